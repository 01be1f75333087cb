import { Name, RRset, STARTING_TTL, TYPE_CODES, isChanging, rrsetKey, rrsetFromText } from '@wanderon/core';
import { Leg, RulingRow, rulingOf } from '../../moves/leg';
import { bringZoneTo } from '../outward';
import { StepWork, stepOf } from '../stepContext';
import { updateTarget } from '../updateTarget';

/** TTL in seconds to which the old host's records go down before the switch, as approved. */
export function loweredTtl(leg: Leg): number {
  return leg.facts.lowerTo ?? STARTING_TTL;
}

/** The sets whose TTL counts for this move: those that change, and the apex NS set. */
export function setsToLower(zone: Name, rulings: readonly RulingRow[]): { owner: Name; type: number; T: number }[] {
  const changing = rulings.filter((row) => row.found && (isChanging(rulingOf(row)) || (row.type === 'NS' && Name.parse(row.owner).equals(zone))));
  return changing.map((row) => {
    const set = rrsetFromText(row.found!);
    return { owner: set.owner, type: set.type, T: set.ttl };
  });
}

/** Lowers TTLs at the old host by dynamic update; data stays as it is. */
export const lower: StepWork = async (context) => {
  const { leg, rulings, zone } = context;
  const target = await updateTarget(context, leg.old_dns_host);
  if ('problem' in target) return { state: 'failed', problem: `${target.problem} Lower the TTLs in its panel, then go on without the update.` };
  const keys = new Set(setsToLower(zone, rulings).map((set) => rrsetKey(set.owner, set.type)));
  return bringZoneTo(context, {
    step: 'lower',
    key: target.key,
    server: target.server,
    decidedBy: stepOf(context, 'lower').decided_by,
    wanted: (served: readonly RRset[]) =>
      served.map((set) => (keys.has(rrsetKey(set.owner, set.type)) ? { ...set, ttl: Math.min(set.ttl, loweredTtl(leg)) } : set)),
    keep: (set) => set.type === TYPE_CODES.SOA,
    says: (changes) => `TTLs of ${changes} record sets down to ${loweredTtl(leg)} s.`,
  });
};
