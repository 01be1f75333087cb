import { changesBetween, duration, loweredZone } from '@wanderon/core';
import { ActResult, WorkContext } from '../context';
import { Outward } from './outward';

/** Lowers TTLs at the old host by dynamic update; data stays as it is. */
export async function lower(context: WorkContext, outward: Outward): Promise<ActResult> {
  const { leg, loaded } = context;
  const target = await outward.target(
    { id: loaded.row.old_dns_host, names: leg.plan.oldNameservers },
    'Lower the TTLs in its panel, then go on without the update.',
  );
  if ('refusal' in target) return target.refusal;
  const { lowerTo } = leg.said;
  return outward.bring(context, target, {
    witness: context.witness,
    step: 'lower',
    decidedBy: leg.said.approved?.person ?? null,
    says: (changes) => `TTLs of ${changes} record sets down to ${duration(lowerTo)}.`,
    plan: (served) => changesBetween(served, loweredZone(leg.plan, served, lowerTo)),
    ttlsAside: true,
  });
}
