import { LegView } from '@wanderon/contract';
import { counted } from '@wanderon/core';
import { clockTime, relative } from '../../time';

/** What keeps the gate shut: how much there is to do, what finishes by itself, and when. */
export function gateWords(gate: LegView['gate'], now: number, act: 'switch' | 'change'): string {
  const lacking = gate.lines.filter((line) => !line.passes);
  const waits = lacking.flatMap((line) => (line.holdsAt === null ? [] : [line.holdsAt]));
  const yours = lacking.length - waits.length;
  const last = Math.max(...waits);
  const time = waits.length > 0 ? `by ${clockTime(last)}, ${relative(last, now)}` : '';
  if (yours === 0)
    return waits.length === 0
      ? ''
      : `Nothing is left to do. ${counted(waits.length, 'thing finishes', 'things finish')} by ${waits.length === 1 ? 'itself' : 'themselves'} ${time}.`;
  const also = waits.length > 0 ? ` ${counted(waits.length, 'more finishes', 'more finish')} by ${waits.length === 1 ? 'itself' : 'themselves'} ${time}.` : '';
  return `Before you ${act}, ${counted(yours, 'thing is', 'things are')} left to do.${also}`;
}
