import { RRset, STARTING_TTL, earlySets, earlyZone, foreignWords, hostsOwnSet, keyOfRow, pushChanges } from '@wanderon/core';
import { ActResult, WorkContext } from '../context';
import { Outward } from './outward';

/** Puts what the web host looks for before the cutover into the zone that is live until then; nothing else there is touched. */
export async function early(context: WorkContext, outward: Outward): Promise<ActResult> {
  const { leg, loaded, move, zone } = context;
  const target = await outward.target({ id: loaded.row.old_dns_host, names: leg.plan.oldNameservers }, 'Type it in its panel, then go on without the update.');
  if ('refusal' in target) return target.refusal;
  const ttl = Math.min(STARTING_TTL, leg.said.lowerTo);
  const found = new Map(earlySets(leg.plan).map((set) => [keyOfRow(set), set.found]));
  const sent = await outward.sent(move.domain_id, target.server.address);
  const keep = hostsOwnSet(zone, leg.plan.oldNameservers);
  return outward.bring(context, target, {
    witness: context.witness,
    step: 'early',
    decidedBy: leg.said.early?.person ?? null,
    says: (changes) => `${changes} record ${changes === 1 ? 'set' : 'sets'} that the web host looks for beforehand.`,
    plan: (served: readonly RRset[]) => {
      const { changes, foreign } = pushChanges(served, earlyZone(leg.plan, served, ttl), { keep, sent, found, assents: leg.said.assents });
      if (foreign.length === 0) return changes;
      return { stopped: { outcome: 'stopped', ...foreignWords(target.host.name, foreign) } };
    },
    ttlsAside: true,
  });
}
