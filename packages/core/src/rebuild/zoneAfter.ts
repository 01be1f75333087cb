import { earlySets } from '../hosts/needs';
import { RRset, rrsetFromText, rrsetKey, sameData } from '../dns/record';
import { parseRdata } from '../dns/rdata';
import { TYPE_CODES } from '../dns/typeNames';
import { rebuildsZone } from '../move/account';
import { LegPlan, keyOf, keyOfRow } from '../move/plan';
import { nameKey } from '../watch/verdict';
import { setsToLower } from '../timetable/lowering';
import { sharedNames } from '../timetable/newSet';
import { isChanging } from './ruling';
import { plannedSets } from './propose';

/** The zone at the old host once TTLs are lowered: data stays as it is. `lowerTo` in seconds. */
export function loweredZone(plan: LegPlan, served: readonly RRset[], lowerTo: number): RRset[] {
  const keys = new Set(setsToLower(plan).map((set) => set.key));
  return served.map((set) => (keys.has(keyOf(set.owner, set.type)) ? { ...set, ttl: Math.min(set.ttl, lowerTo) } : set));
}

/**
 * The old zone once it leads to the new servers: its apex NS set is the new one, and nameserver names that stay and move have
 * their new addresses in both families, for resolvers that follow the child's answers. `lowerTo` in seconds; `apexTtl`: what the NS set
 * is to have instead, where it stays.
 */
export function turnedZone(plan: LegPlan, served: readonly RRset[], lowerTo: number, apexTtl?: number): RRset[] {
  const moved = sharedNames(plan);
  const addressesAt = (set: RRset): readonly string[] | undefined =>
    set.type === TYPE_CODES.A || set.type === TYPE_CODES.AAAA ? moved.get(nameKey(set.owner.toString())) : undefined;
  const stays = served.flatMap((set): RRset[] => {
    if (addressesAt(set)) return [];
    if (set.type !== TYPE_CODES.NS || !set.owner.equals(plan.zone)) return [set];
    return [{ ...set, ttl: apexTtl ?? Math.min(set.ttl, lowerTo), data: plan.newNameservers.map((name) => parseRdata(TYPE_CODES.NS, name)) }];
  });
  const fresh = new Map<string, RRset>();
  for (const set of served)
    for (const address of addressesAt(set) ?? []) {
      const type = address.includes(':') ? TYPE_CODES.AAAA : TYPE_CODES.A;
      const key = rrsetKey(set.owner, type);
      const data = parseRdata(type, address);
      const made = fresh.get(key) ?? { owner: set.owner, type, ttl: Math.min(set.ttl, lowerTo), data: [] };
      if (!made.data.some((one) => sameData(type, [one], [data]))) fresh.set(key, { ...made, data: [...made.data, data] });
    }
  return [...stays, ...fresh.values()];
}

/**
 * What a push brings to a host: the planned sets, with TTLs kept low until the move is finished everywhere. Back at the old host, where the zone
 * still stands, what did not change keeps its TTL.
 */
export function pushedSets({ rulings, isBack }: Pick<LegPlan, 'rulings' | 'isBack'>): RRset[] {
  if (!isBack) return plannedSets(rulings, 'starting');
  return [
    ...plannedSets(rulings.filter(isChanging), 'starting'),
    ...plannedSets(
      rulings.filter((row) => !isChanging(row)),
      'settled',
    ),
  ];
}

/** The zone where it is once the records of a repoint leg are changed; everything else there stays. `ttl` in seconds: until finished everywhere, at most. */
export function changedZone(plan: Pick<LegPlan, 'rulings'>, served: readonly RRset[], ttl: number): RRset[] {
  const rows = plan.rulings.filter(isChanging);
  const keys = new Set(rows.map(keyOfRow));
  const fresh = rows.flatMap(({ planned }) => (planned ? [rrsetFromText({ ...planned, ttl: Math.min(planned.ttl, ttl) })] : []));
  return [...served.filter((set) => !keys.has(keyOf(set.owner, set.type))), ...asServed(fresh, served)];
}

/** Sets that stand there with these data are left alone, their TTLs included: another move, or a person, has put them there. */
function asServed(sets: readonly RRset[], served: readonly RRset[]): RRset[] {
  const there = new Map(served.map((set) => [rrsetKey(set.owner, set.type), set]));
  return sets.map((set) => {
    const stands = there.get(rrsetKey(set.owner, set.type));
    return stands && sameData(set.type, stands.data, set.data) ? stands : set;
  });
}

/** The live zone once what the web host looks for beforehand is in it, beside what is there. `ttl` in seconds, at most. */
export function earlyZone(plan: LegPlan, served: readonly RRset[], ttl: number): RRset[] {
  const sets = earlySets(plan);
  const keys = new Set(sets.map(keyOfRow));
  const fresh = sets.map((set) => rrsetFromText({ ...set, ttl: Math.min(set.ttl, ttl) }));
  return [...served.filter((set) => !keys.has(keyOf(set.owner, set.type))), ...asServed(fresh, served)];
}

/** The zone at the new host once the sets that are as planned have the TTLs they are to keep, or the higher ones that somebody gave them; everything else there stays. */
export function raisedZone(plan: Pick<LegPlan, 'kind' | 'account' | 'rulings' | 'former'>, served: readonly RRset[]): RRset[] {
  // Where records changed in place, only those were lowered, and what was for a way that was chosen before.
  const former = new Set(plan.former?.lowered);
  const rows = rebuildsZone(plan) ? plan.rulings : plan.rulings.filter((row) => isChanging(row) || former.has(keyOfRow(row)));
  const planned = new Map(plannedSets(rows, 'settled').map((set) => [rrsetKey(set.owner, set.type), set]));
  return served.map((set) => {
    const wish = planned.get(rrsetKey(set.owner, set.type));
    return wish && sameData(set.type, set.data, wish.data) ? { ...set, ttl: Math.max(set.ttl, wish.ttl) } : set;
  });
}
