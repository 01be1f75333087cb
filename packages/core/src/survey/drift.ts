import { Name } from '../dns/name';
import { RRset, rrsetKey, sameData } from '../dns/record';
import { readSoa } from '../dns/soa';
import { TYPE_CODES } from '../dns/typeNames';
import { Coverage } from './coverage';

export interface DriftChange {
  readonly kind: 'added' | 'gone' | 'changed' | 'TTL changed';
  readonly before: RRset | undefined;
  readonly after: RRset | undefined;
  /** At a set whose answers vary anyway: it says little. */
  readonly shaky: boolean;
}

export interface Drift {
  readonly changes: readonly DriftChange[];
  readonly serials: { readonly before: number | undefined; readonly after: number | undefined };
  /** What the changes may rest on, in words. */
  readonly remarks: readonly string[];
}

interface Surveyed {
  readonly sets: readonly RRset[];
  readonly grade: Coverage['grade'];
  /** Sets whose answers vary, by rrsetKey: a difference there says little. */
  readonly varying: ReadonlySet<string>;
}

/** What is otherwise in a later survey of a zone than in an earlier one. The SOA record itself is told as the serial. */
export function driftBetween(zone: Name, before: Surveyed, after: Surveyed): Drift {
  const old = new Map(before.sets.map((set) => [rrsetKey(set.owner, set.type), set]));
  const now = new Map(after.sets.map((set) => [rrsetKey(set.owner, set.type), set]));
  const changes: DriftChange[] = [];
  const note = (kind: DriftChange['kind'], a: RRset | undefined, b: RRset | undefined): void => {
    const key = rrsetKey((a ?? b)!.owner, (a ?? b)!.type);
    changes.push({ kind, before: a, after: b, shaky: before.varying.has(key) || after.varying.has(key) });
  };
  for (const [key, set] of old) {
    if (isSoa(zone, set)) continue;
    const later = now.get(key);
    if (!later) note('gone', set, undefined);
    else if (!sameData(set.type, set.data, later.data)) note('changed', set, later);
    else if (set.ttl !== later.ttl) note('TTL changed', set, later);
  }
  for (const [key, set] of now) if (!old.has(key) && !isSoa(zone, set)) note('added', undefined, set);
  changes.sort((a, b) => (a.before ?? a.after!).owner.compare((b.before ?? b.after!).owner) || (a.before ?? a.after!).type - (b.before ?? b.after!).type);
  const serials = { before: serialOf(zone, before.sets), after: serialOf(zone, after.sets) };
  return { changes, serials, remarks: remarksOn(changes, serials, before, after) };
}

function remarksOn(changes: readonly DriftChange[], serials: Drift['serials'], before: Surveyed, after: Surveyed): string[] {
  const remarks: string[] = [];
  const { before: old, after: now } = serials;
  if (old !== undefined && now !== undefined)
    remarks.push(
      old === now
        ? changes.length > 0
          ? `The serial is still ${now}: nobody saved a change of the zone, unless its host does not count them; the host itself answers otherwise.`
          : `The serial is still ${now}.`
        : `The serial went from ${old} to ${now}: ${changes.length > 0 ? 'somebody with access to the zone saved a change, or its host did.' : 'the zone was saved, or signed again, without a change of its records.'}`,
    );
  if (before.grade !== 'whole' && changes.some((change) => change.kind === 'added'))
    remarks.push('The earlier survey was not whole: what is added now may have stood there then.');
  if (after.grade !== 'whole' && changes.some((change) => change.kind === 'gone'))
    remarks.push('The later survey is not whole: what is gone may only not have been found again.');
  const shaky = changes.filter((change) => change.shaky);
  if (shaky.length > 0) remarks.push(`${shaky.length} of the differences ${shaky.length === 1 ? 'is' : 'are'} at sets whose answers vary anyway.`);
  return remarks;
}

function isSoa(zone: Name, set: RRset): boolean {
  return set.type === TYPE_CODES.SOA && set.owner.equals(zone);
}

function serialOf(zone: Name, sets: readonly RRset[]): number | undefined {
  const soa = sets.find((set) => isSoa(zone, set));
  return soa && readSoa(soa.data[0]!).serial;
}
