import { LegView } from '@wanderon/contract';
import { relative } from '../../time';

/** What keeps the gate shut, in one sentence: how much there is to do, and when it opens if that is done. */
export function gateWords(gate: LegView['gate'], now: number): string {
  const lacking = gate.lines.filter((line) => !line.passes);
  const waits = lacking.flatMap((line) => (line.holdsAt === null ? [] : [line.holdsAt]));
  const yours = lacking.length - waits.length;
  const opens = waits.length > 0 ? ` ${yours > 0 ? 'Then it' : 'It'} opens ${relative(Math.max(...waits), now)} at the earliest.` : '';
  return yours > 0 ? `${yours} ${yours === 1 ? 'line does' : 'lines do'} not hold and will not by waiting.${opens}` : opens.trim();
}
