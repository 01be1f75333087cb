import { ParentSight } from '@wanderon/core';
import { Delegation, NetError } from '@wanderon/net';
import { Network } from '../../network/network';
import { Sighted } from '../../moves/observation.store';
import { WorkContext } from '../context';

type Referral = Delegation['referrals'][number];

/** What every server of the parent publishes. */
export async function lookAtParent(context: WorkContext, network: Network): Promise<Sighted[]> {
  try {
    const { referrals } = await network.walker().delegation(context.zone);
    return referrals.map(parentSighted);
  } catch (error) {
    if (!(error instanceof NetError)) throw error;
    // The way to the parent is lost: of no server anything was heard.
    return context.leg.seen.parent.map((one) => ({ kind: 'parent', subject: one.address, server: one.server, value: undefined, problem: error.message }));
  }
}

export function parentSighted(referral: Pick<Referral, 'server' | 'address' | 'nameservers' | 'ttl' | 'glue' | 'ds' | 'dsTtl' | 'problem'>): Sighted {
  const { server, address, problem } = referral;
  const base = { kind: 'parent', subject: address, server } as const;
  if (problem !== undefined) return { ...base, value: undefined, problem };
  const value: ParentSight = {
    nameservers: [...referral.nameservers].sort(),
    ttl: referral.ttl ?? 0,
    glue: [...referral.glue]
      .map(({ name, address: at, ttl }) => ({ name, address: at, ttl }))
      .sort((a, b) => (`${a.name} ${a.address}` < `${b.name} ${b.address}` ? -1 : 1)),
    ds: [...referral.ds].sort(),
    dsTtl: referral.dsTtl ?? 0,
  };
  return { ...base, value };
}
