import { RRset, changesBetween, plannedSets, rrsetKey, sameData } from '@wanderon/core';
import { ActResult, WorkContext } from '../context';
import { Outward } from './outward';

/** Gives the sets at the new host that are as planned the TTLs they are to have; everything else there is left as it is. */
export async function raise(context: WorkContext, outward: Outward): Promise<ActResult> {
  const { leg, loaded } = context;
  const target = await outward.target(loaded.row.new_dns_host);
  if ('problem' in target) return { outcome: 'stopped', problem: `${target.problem} Raise the TTLs in its panel, then go on without.` };
  const planned = new Map(plannedSets(leg.plan.rulings, 'settled').map((set) => [rrsetKey(set.owner, set.type), set]));
  const raised = (set: RRset): RRset => {
    const wish = planned.get(rrsetKey(set.owner, set.type));
    return wish && sameData(set.type, set.data, wish.data) ? { ...set, ttl: wish.ttl } : set;
  };
  return outward.bring(context, target, {
    step: 'raise',
    decidedBy: leg.said.approved?.person ?? null,
    says: (changes) => `the lasting TTLs of ${changes} record sets.`,
    plan: (served) => changesBetween(served, served.map(raised)),
    ttlsAside: true,
  });
}
