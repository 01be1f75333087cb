import { Name, RRset, TYPE_CODES, parseRdata } from '@wanderon/core';
import { bringZoneTo } from '../outward';
import { StepWork, stepOf } from '../stepContext';
import { loweredTtl } from './lower';

/** Sets the apex NS set of the old zone to the new one, for resolvers that follow the child's. */
export const turn: StepWork = async (context) => {
  const { hosts, leg, network, zone } = context;
  const key = await hosts.keyOf(leg.old_dns_host);
  const old = leg.old_dns_host ? await hosts.get(leg.old_dns_host) : undefined;
  const first = leg.facts.oldAuthorities?.[0];
  if (!key || !old || !first)
    return { state: 'failed', problem: 'The old DNS host takes no updates from us. Change the NS records of the apex in its panel, or go on without.' };
  const address = old.updateAddress ?? (await network.walker().addressesOf(Name.parse(old.nameservers[0]!)))[0] ?? first.address;
  const data = leg.new_nameservers.map((name) => parseRdata(TYPE_CODES.NS, name));
  const isApexNs = (set: RRset): boolean => set.type === TYPE_CODES.NS && set.owner.equals(zone);
  const outcome = await bringZoneTo(context, {
    step: 'turn',
    key,
    server: { server: old.nameservers[0]!, address },
    decidedBy: stepOf(context, 'turn').decided_by,
    wanted: (served) => served.map((set) => (isApexNs(set) ? { ...set, ttl: loweredTtl(leg), data } : set)),
    keep: (set) => set.type === TYPE_CODES.SOA,
    says: () => 'the new apex NS set.',
  });
  if (outcome.state === 'done') await context.store.addFacts(leg.id, { turned: true });
  return outcome;
};
