import { RRset, STARTING_TTL, changedZone, foreignWords, hostsOwnSet, isChanging, keyOfRow, pushChanges } from '@wanderon/core';
import { ActResult, WorkContext } from '../context';
import { Outward } from './outward';

/**
 * Changes the records of a repoint leg where they are, by dynamic update, and nothing outside of it. What stands there and is neither
 * what was found nor what we sent goes only with assent.
 */
export async function change(context: WorkContext, outward: Outward): Promise<ActResult> {
  const { leg, loaded, move, zone } = context;
  const target = await outward.target(
    { id: loaded.row.old_dns_host, names: leg.plan.oldNameservers },
    'Change the records in its panel, then go on without the update.',
  );
  if ('refusal' in target) return target.refusal;
  const ttl = Math.min(STARTING_TTL, leg.said.lowerTo);
  const rows = leg.plan.rulings.filter(isChanging);
  const found = new Map(rows.flatMap((row): [string, readonly string[]][] => (row.found ? [[keyOfRow(row), row.found.data]] : [])));
  const sent = await outward.sent(move.domain_id, target.server.address);
  const keep = hostsOwnSet(zone, leg.plan.oldNameservers);
  return outward.bring(context, target, {
    witness: context.witness,
    step: 'change',
    decidedBy: leg.said.submitted?.person ?? null,
    says: (changes) => `${changes} record ${changes === 1 ? 'set' : 'sets'} to their new values.`,
    plan: (served: readonly RRset[]) => {
      const wanted = changedZone(leg.plan, served, ttl);
      const { changes, foreign } = pushChanges(served, wanted, { keep, sent, found, assents: leg.said.assents });
      if (foreign.length === 0) return changes;
      return { stopped: { outcome: 'stopped', ...foreignWords(target.host.name, foreign) } };
    },
    ttlsAside: true,
  });
}
