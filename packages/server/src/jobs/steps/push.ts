import { RCODE, hostsOwnSet, plannedSets } from '@wanderon/core';
import { rulingOf } from '../../moves/leg';
import { bringZoneTo } from '../outward';
import { StepContext, StepOutcome, StepWork, stepOf } from '../stepContext';
import { updateTarget } from '../updateTarget';

/** Pushes the planned zone to the new DNS host, with TTLs kept low until the move is settled. */
export const push: StepWork = (context) => pushPhase(context, 'push', 'starting');

/** Gives the records at the new host the TTLs they had. */
export const raise: StepWork = (context) => pushPhase(context, 'raise', 'settled');

async function pushPhase(context: StepContext, step: 'push' | 'raise', phase: 'starting' | 'settled'): Promise<StepOutcome> {
  const { leg, rulings, zone } = context;
  const target = await updateTarget(context, leg.new_dns_host);
  if ('problem' in target) return { state: 'failed', problem: `${target.problem} Set it right at Hosts, then try again.` };
  const wanted = plannedSets(rulings.map(rulingOf), phase);
  const outcome = await bringZoneTo(context, {
    step,
    key: target.key,
    server: target.server,
    wanted: () => wanted,
    keep: hostsOwnSet(zone),
    decidedBy: stepOf(context, step).decided_by,
    says: (changes) => (step === 'push' ? `${changes} record sets of the new zone.` : `the lasting TTLs of ${changes} record sets.`),
  });
  if (outcome.state === 'failed' && outcome.rcode === RCODE.NOTAUTH)
    return {
      ...outcome,
      problem: `${target.host.name} does not hold ${zone.toString()} yet, or its key is not good for it. Add the domain in its panel, then try again.`,
    };
  return outcome;
}
