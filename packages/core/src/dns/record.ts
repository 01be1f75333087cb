import { compareBytes, equalBytes, toHex } from './bytes';
import { Name } from './name';
import { canonicalRdata, parseRdata, printRdata } from './rdata';
import { typeCode, typeMnemonic } from './typeNames';

export const CLASS_IN = 1;
export const CLASS_NONE = 254;
export const CLASS_ANY = 255;

/** One resource record; `ttl` in seconds, `data` without compression. */
export interface ResourceRecord {
  readonly owner: Name;
  readonly type: number;
  readonly cls: number;
  readonly ttl: number;
  readonly data: Uint8Array;
}

/** All records of one owner and type (RFC 2181 §5); class IN. */
export interface RRset {
  readonly owner: Name;
  readonly type: number;
  /** Seconds. Where records of one set differ, the smallest (RFC 2181 §5.2). */
  readonly ttl: number;
  readonly data: readonly Uint8Array[];
}

/** A record set as JSON: names absolute, data in presentation form, which reads back to the same octets. */
export interface RRsetText {
  owner: string;
  type: string;
  ttl: number;
  data: string[];
}

export function rrsetKey(owner: Name, type: number): string {
  return `${type}/${owner.key}`;
}

/** Groups records; a record that stands twice counts once. Sets come in canonical order of owner, then type. */
export function groupRecords(records: Iterable<ResourceRecord>): RRset[] {
  const sets = new Map<string, { owner: Name; type: number; ttl: number; data: Map<string, Uint8Array> }>();
  for (const record of records) {
    const key = rrsetKey(record.owner, record.type);
    let set = sets.get(key);
    if (!set) sets.set(key, (set = { owner: record.owner, type: record.type, ttl: record.ttl, data: new Map() }));
    set.ttl = Math.min(set.ttl, record.ttl);
    const canonical = toHex(canonicalRdata(record.type, record.data));
    if (!set.data.has(canonical)) set.data.set(canonical, record.data);
  }
  return [...sets.values()].map((set) => ({ ...set, data: [...set.data.values()] })).sort(compareSets);
}

export function compareSets(a: Pick<RRset, 'owner' | 'type'>, b: Pick<RRset, 'owner' | 'type'>): number {
  return a.owner.compare(b.owner) || a.type - b.type;
}

export function recordsOf(set: RRset): ResourceRecord[] {
  return set.data.map((data) => ({ owner: set.owner, type: set.type, cls: CLASS_IN, ttl: set.ttl, data }));
}

/** The same data in any order, letter case of names aside. TTLs are not compared. */
export function sameData(type: number, a: readonly Uint8Array[], b: readonly Uint8Array[]): boolean {
  if (a.length !== b.length) return false;
  const order = (all: readonly Uint8Array[]): Uint8Array[] => all.map((data) => canonicalRdata(type, data)).sort(compareBytes);
  const right = order(b);
  return order(a).every((data, i) => equalBytes(data, right[i]!));
}

/** True for two sets of one type with the same values, however they are written and in whatever order. */
export function sameSet(a: RRsetText, b: RRsetText): boolean {
  const [left, right] = [rrsetRead(a), rrsetRead(b)];
  return sameData(left.type, left.data, right.data);
}

export function rrsetToText(set: RRset): RRsetText {
  return {
    owner: set.owner.toString(),
    type: typeMnemonic(set.type),
    ttl: set.ttl,
    data: set.data.map((data) => printRdata(set.type, data)),
  };
}

const READ = new WeakMap<RRsetText, RRset>();

/**
 * As rrsetFromText, read once for each text and kept as long as that is: many rules look at one plan. The text must not be
 * changed afterwards.
 */
export function rrsetRead(text: RRsetText): RRset {
  let set = READ.get(text);
  if (!set) READ.set(text, (set = rrsetFromText(text)));
  return set;
}

/** The reverse of rrsetToText; throws NameError or TextError on text that it never printed. */
export function rrsetFromText(text: RRsetText): RRset {
  const type = typeCode(text.type);
  if (type === undefined) throw new RangeError(`${text.type} is not a record type`);
  return { owner: Name.parse(text.owner), type, ttl: text.ttl, data: text.data.map((data) => parseRdata(type, data)) };
}
