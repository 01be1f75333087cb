import { Instant, Remark, isDone } from '@wanderon/core';
import { Config } from '../config';
import { Leg, RulingRow, StepRow } from '../moves/leg';
import { timesOf } from './times';

export interface Gate {
  readonly open: boolean;
  readonly lines: { readonly text: string; readonly holds: boolean }[];
}

/** What must hold before the nameservers may be changed (DESIGN §2, gate). */
export function gateOf(leg: Leg, steps: readonly StepRow[], rulings: readonly RulingRow[], remarks: readonly Remark[], now: Instant, config: Config): Gate {
  const times = timesOf(leg, steps, rulings, now, config);
  const stops = remarks.filter((remark) => remark.weight === 'stop').length;
  const { drift } = leg.facts;
  const lines = [
    {
      text: isDone(steps, 'served') ? 'Every server of the new DNS host serves the plan.' : 'The new DNS host does not serve the plan yet.',
      holds: isDone(steps, 'served'),
    },
    { text: stops === 0 ? 'No remark on the plan stops the move.' : `${stops} ${stops === 1 ? 'remark stops' : 'remarks stop'} the move.`, holds: stops === 0 },
    { text: driftWords(drift), holds: drift?.length === 0 },
    {
      text: leg.facts.ds ? 'The parent publishes a DS: the domain would not resolve at validating resolvers.' : 'The parent publishes no DS.',
      holds: !leg.facts.ds,
    },
    {
      text: leg.facts.tl ? 'Every old authority was seen to serve the lowered TTLs.' : 'The TTLs are not seen lowered at every old authority.',
      holds: leg.facts.tl !== undefined,
    },
    {
      text:
        times?.certain && times.earliestSwitch.at <= now ? 'Every answer with an old TTL has run out.' : 'Answers with their old TTL may still be remembered.',
      holds: times?.certain === true && times.earliestSwitch.at <= now,
    },
  ];
  return { open: lines.every((line) => line.holds), lines };
}

function driftWords(drift: readonly string[] | undefined): string {
  if (!drift) return 'The old zone is compared with the survey once its TTLs are seen lowered.';
  return drift.length === 0 ? 'The old zone holds what was surveyed.' : `The old zone changed since the survey: ${drift.slice(0, 5).join('; ')}.`;
}
