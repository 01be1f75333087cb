import { RRset, TYPE_CODES, changesBetween, parseRdata, setKey, sharedNames, keyOf } from '@wanderon/core';
import { ActResult, WorkContext } from '../context';
import { Outward } from './outward';

/** Sets the apex NS set of the old zone to the new one, and the addresses of names that stay, for resolvers that follow the child's. */
export async function turn(context: WorkContext, outward: Outward): Promise<ActResult> {
  const { leg, zone, loaded } = context;
  const target = await outward.target(loaded.row.old_dns_host);
  if ('problem' in target) return { outcome: 'stopped', problem: `${target.problem} Change the NS records of the apex in its panel, or go on without.` };
  const data = leg.plan.newNameservers.map((name) => parseRdata(TYPE_CODES.NS, name));
  const addresses = sharedNames(leg.plan);
  const turned = (set: RRset): RRset => {
    if (set.type === TYPE_CODES.NS && set.owner.equals(zone)) return { ...set, ttl: Math.min(set.ttl, leg.said.lowerTo), data };
    const fresh = [...addresses].find(([name]) => set.type === TYPE_CODES.A && setKey(name, 'A') === keyOf(set.owner, set.type))?.[1];
    const usable = fresh?.filter((address) => !address.includes(':'));
    return usable && usable.length > 0 ? { ...set, data: usable.map((address) => parseRdata(TYPE_CODES.A, address)) } : set;
  };
  return outward.bring(context, target, {
    step: 'turn',
    decidedBy: leg.said.approved?.person ?? null,
    says: () => 'the new apex NS set.',
    plan: (served) => changesBetween(served, served.map(turned)),
    ttlsAside: true,
  });
}
