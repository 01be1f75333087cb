import { changesBetween, turnedZone } from '@wanderon/core';
import { ActResult, WorkContext } from '../context';
import { Outward } from './outward';

/** Sets the apex NS set of the old zone to the new one, and the addresses of names that stay, for resolvers that follow the child's. */
export async function turn(context: WorkContext, outward: Outward): Promise<ActResult> {
  const { leg, loaded } = context;
  const target = await outward.target(
    { id: loaded.row.old_dns_host, names: leg.plan.oldNameservers },
    'Change the NS records of the domain itself in its panel, or go on without.',
  );
  if ('refusal' in target) return target.refusal;
  return outward.bring(context, target, {
    witness: context.witness,
    step: 'turn',
    decidedBy: leg.said.approved?.person ?? null,
    says: (changes) =>
      changes === 1
        ? 'the new NS records of the domain itself.'
        : 'the new NS records of the domain itself, and the new addresses of nameservers that keep their names.',
    plan: (served) => changesBetween(served, turnedZone(leg.plan, served, leg.said.lowerTo)),
    ttlsAside: true,
  });
}
