import { RCODE, RRset, apexTtlBack, changesBetween, foreignWords, hostsOwnSet, pushChanges, pushedSets, turnedZone } from '@wanderon/core';
import { ActResult, WorkContext } from '../context';
import { Outward } from './outward';

/** Pushes the planned zone to the new DNS host, with TTLs kept low until the move is finished everywhere; what is not ours goes only with assent. */
export async function push(context: WorkContext, outward: Outward): Promise<ActResult> {
  const { leg, zone, loaded, move } = context;
  const target = await outward.target({ id: loaded.row.new_dns_host, names: leg.plan.newNameservers }, 'Set it right at Hosts, then try again.');
  if ('refusal' in target) return target.refusal;
  const wanted = pushedSets(leg.plan);
  const sent = await outward.sent(move.domain_id, target.server.address);
  const keep = hostsOwnSet(zone, leg.plan.newNameservers);
  const outcome = await outward.bring(context, target, {
    step: 'push',
    ttlsAside: leg.plan.isBack ?? false,
    decidedBy: leg.said.pushed?.person ?? null,
    says: (changes) => `${changes} record sets of the new zone.`,
    plan: (served: readonly RRset[]) => {
      const { changes, foreign } = pushChanges(served, wanted, { keep, sent, assents: leg.said.assents });
      // Back at the old host, the apex NS set that was turned is turned back with it, for good: some servers take no TTL alone afterwards.
      const turned = leg.plan.isBack ? changesBetween(served, turnedZone(leg.plan, served, leg.said.lowerTo, apexTtlBack(leg))) : [];
      if (foreign.length === 0) return [...changes, ...turned];
      return { stopped: { outcome: 'stopped', ...foreignWords(target.host.name, foreign) } };
    },
  });
  if (outcome.outcome === 'stopped' && outcome.rcode === RCODE.NOTAUTH)
    return {
      outcome: 'stopped',
      problem: `${target.host.name} does not hold ${zone.toString()} yet, or its key is not good for it. Add the domain in its panel, then try again.`,
    };
  return outcome;
}
