import { Name } from '../dns/name';
import { RRset, RRsetText, rrsetRead, rrsetKey, rrsetToText, sameData } from '../dns/record';
import { TYPE_CODES } from '../dns/typeNames';
import { MADE_BY_SIGNING } from '../rebuild/hostsOwn';
import { Ruling } from '../rebuild/ruling';
import { keyOfRow, setKey } from '../move/plan';
import { DriftSight } from '../move/seen';
import { sameTexts } from '../timetable/wanted';

/**
 * What a zone holds now otherwise than it did when the plan was made: data only, since TTLs are lowered meanwhile, and without
 * what belongs to the DNS host. Sets whose answers vary anyway are passed over (`varying`, by rrsetKey).
 */
export function driftFromPlan(zone: Name, rulings: readonly Ruling[], now: readonly RRset[], varying: ReadonlySet<string>): DriftSight[] {
  const own = (set: Pick<RRset, 'owner' | 'type'>): boolean =>
    MADE_BY_SIGNING.has(set.type) || set.type === TYPE_CODES.SOA || (set.type === TYPE_CODES.NS && set.owner.equals(zone));
  const before = new Map(
    rulings
      .flatMap((ruling) => (ruling.found ? [rrsetRead(ruling.found)] : []))
      .filter((set) => !own(set))
      .map((set) => [rrsetKey(set.owner, set.type), set]),
  );
  const after = new Map(now.filter((set) => !own(set)).map((set) => [rrsetKey(set.owner, set.type), set]));
  const changes: DriftSight[] = [];
  for (const key of new Set([...before.keys(), ...after.keys()])) {
    const [old, later] = [before.get(key), after.get(key)];
    if (varying.has(key) || (old && later && sameData(old.type, old.data, later.data))) continue;
    const { owner, type } = rrsetToText((old ?? later)!);
    const sight = (set: RRset | undefined): DriftSight['before'] => (set ? { ttl: set.ttl, data: [...rrsetToText(set).data].sort() } : null);
    changes.push({ owner, type, before: sight(old), after: sight(later) });
  }
  return changes;
}

/** What has been taken into the plan since it was seen is no drift any more; nor what may be put there beforehand (`early`). */
export function stillDrifting(changes: readonly DriftSight[], rulings: readonly Ruling[], early: readonly RRsetText[] = []): DriftSight[] {
  const found = new Map(rulings.map((ruling) => [keyOfRow(ruling), ruling.found?.data ?? []]));
  const put = new Map(early.map((set) => [keyOfRow(set), set.data]));
  return changes.filter(({ owner, type, after }) => {
    const key = setKey(owner, type);
    const sent = put.get(key);
    if (sent && after && sameTexts(key, [...sent].sort(), [...after.data].sort())) return false;
    return !sameTexts(key, [...(found.get(key) ?? [])].sort(), [...(after?.data ?? [])].sort());
  });
}
