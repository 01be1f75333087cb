import { RRset, TYPE_CODES, parseRdata } from '@wanderon/core';
import { bringZoneTo } from '../outward';
import { StepWork, stepOf } from '../stepContext';
import { updateTarget } from '../updateTarget';
import { loweredTtl } from './lower';

/** Sets the apex NS set of the old zone to the new one, for resolvers that follow the child's. */
export const turn: StepWork = async (context) => {
  const { leg, zone } = context;
  const target = await updateTarget(context, leg.old_dns_host);
  if ('problem' in target) return { state: 'failed', problem: `${target.problem} Change the NS records of the apex in its panel, or go on without.` };
  const data = leg.new_nameservers.map((name) => parseRdata(TYPE_CODES.NS, name));
  const isApexNs = (set: RRset): boolean => set.type === TYPE_CODES.NS && set.owner.equals(zone);
  const outcome = await bringZoneTo(context, {
    step: 'turn',
    key: target.key,
    server: target.server,
    decidedBy: stepOf(context, 'turn').decided_by,
    wanted: (served) => served.map((set) => (isApexNs(set) ? { ...set, ttl: loweredTtl(leg), data } : set)),
    keep: (set) => set.type === TYPE_CODES.SOA,
    says: () => 'the new apex NS set.',
  });
  if (outcome.state === 'done') await context.store.addFacts(leg.id, { turned: true });
  return outcome;
};
