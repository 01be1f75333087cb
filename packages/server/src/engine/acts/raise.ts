import { changesBetween, raisedZone } from '@wanderon/core';
import { ActResult, WorkContext } from '../context';
import { Outward } from './outward';

/** Gives the sets at the new host that are as planned the TTLs they are to have; everything else there is left as it is. */
export async function raise(context: WorkContext, outward: Outward): Promise<ActResult> {
  const { leg, loaded } = context;
  const target = await outward.target(
    leg.plan.kind === 'repoint'
      ? { id: loaded.row.old_dns_host, names: leg.plan.oldNameservers }
      : { id: loaded.row.new_dns_host, names: leg.plan.newNameservers },
    'Raise the TTLs in its panel, then go on without.',
  );
  if ('refusal' in target) return target.refusal;
  return outward.bring(context, target, {
    step: 'raise',
    decidedBy: leg.said.approved?.person ?? null,
    says: (changes) => `the lasting TTLs of ${changes} record sets.`,
    plan: (served) => changesBetween(served, raisedZone(leg.plan, served)),
    ttlsAside: true,
  });
}
