import { Name, hostsOwnSet, plannedSets } from '@wanderon/core';
import { rulingOf } from '../../moves/leg';
import { bringZoneTo } from '../outward';
import { StepContext, StepOutcome, StepWork, stepOf } from '../stepContext';

/** Pushes the planned zone to the new DNS host, with TTLs kept low until the move is settled. */
export const push: StepWork = (context) => pushPhase(context, 'push', 'starting');

/** Gives the records at the new host the TTLs they had. */
export const raise: StepWork = (context) => pushPhase(context, 'raise', 'settled');

async function pushPhase(context: StepContext, step: 'push' | 'raise', phase: 'starting' | 'settled'): Promise<StepOutcome> {
  const { hosts, leg, network, rulings, zone } = context;
  const host = await hosts.get(leg.new_dns_host!);
  const key = await hosts.keyOf(host.id);
  if (!key) return { state: 'failed', problem: `${host.name} has no key for updates. Give it at Hosts, then try again.` };
  const server = host.nameservers[0]!;
  const address = host.updateAddress ?? (await network.walker().addressesOf(Name.parse(server)))[0];
  if (!address) return { state: 'failed', problem: `${server} has no address.` };
  const wanted = plannedSets(rulings.map(rulingOf), phase);
  const outcome = await bringZoneTo(context, {
    step,
    key,
    server: { server, address },
    wanted: () => wanted,
    keep: hostsOwnSet(zone),
    decidedBy: stepOf(context, step).decided_by,
    says: (changes) => (step === 'push' ? `${changes} record sets of the new zone.` : `the lasting TTLs of ${changes} record sets.`),
  });
  if (outcome.state === 'failed' && outcome.problem.includes('NOTAUTH') && step === 'push')
    return {
      ...outcome,
      problem: `${host.name} does not hold ${zone.toString()} yet, or its key is not good for it. Add the domain in its panel, then push again.`,
    };
  return outcome;
}
