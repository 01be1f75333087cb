import { Name } from '../dns/name';
import { RRsetText, rrsetRead, sameSet } from '../dns/record';
import { MADE_BY_SIGNING } from './hostsOwn';
import { SetKey, setKey } from '../move/plan';
import { inReadingOrder } from '../survey/purpose';
import { TYPE_CODES } from '../dns/typeNames';
import { Ruling, isHostsOwn } from './ruling';

/** One side of a comparison: record sets, and whether what it does not have was asked for. */
export interface Side {
  readonly sets: readonly RRsetText[];
  /** Of a server: what it was asked; what is not in it says nothing. Undefined: it holds everything that there is. */
  readonly asked?: ReadonlySet<SetKey> | undefined;
}

/** `left`, `right`: only there; `unasked`: the other side was not asked for it. */
export const SIDE_KINDS = ['same', 'changed', 'TTL', 'left', 'right', 'unasked'] as const;
export type SideKind = (typeof SIDE_KINDS)[number];

export interface SideRow {
  readonly owner: string;
  readonly type: string;
  readonly kind: SideKind;
  readonly left: RRsetText | undefined;
  readonly right: RRsetText | undefined;
}

/**
 * Two contents of a zone side by side, in reading order. SOA and what signing makes are left out: they are never the same. Data are
 * compared as sets (RFC 2136 §1.1.1: order says nothing); owners that differ by case only are the same name.
 */
export function sideBySide(zone: Name, left: Side, right: Side): SideRow[] {
  const [a, b] = [byKey(left.sets), byKey(right.sets)];
  const sets = new Map([...b, ...a]);
  const read = new Map([...sets].map(([key, set]) => [rrsetRead(set), key]));
  return inReadingOrder(zone, [...read.keys()]).map((one): SideRow => {
    const key = read.get(one)!;
    const { owner, type } = sets.get(key)!;
    return { owner, type, left: a.get(key), right: b.get(key), kind: kindOf(a.get(key), b.get(key), isAsked(left, key), isAsked(right, key)) };
  });
}

/** What a plan comes to: the sets that the new host will serve beside its own. */
export function plannedSide(rulings: readonly Ruling[]): Side {
  return { sets: rulings.flatMap((row) => (row.planned && !isHostsOwn(row) ? [row.planned] : [])) };
}

function byKey(sets: readonly RRsetText[]): Map<SetKey, RRsetText> {
  return new Map(sets.filter(({ type }) => !isNeverTheSame(type)).map((set) => [setKey(set.owner, set.type), set]));
}

function isNeverTheSame(type: string): boolean {
  const code = TYPE_CODES[type as keyof typeof TYPE_CODES];
  return type === 'SOA' || MADE_BY_SIGNING.has(code);
}

function isAsked({ asked }: Side, key: SetKey): boolean {
  return asked === undefined || asked.has(key);
}

function kindOf(a: RRsetText | undefined, b: RRsetText | undefined, askedA: boolean, askedB: boolean): SideKind {
  if (a && b) {
    return !sameSet(a, b) ? 'changed' : a.ttl === b.ttl ? 'same' : 'TTL';
  }
  if (a) return askedB ? 'left' : 'unasked';
  return askedA ? 'right' : 'unasked';
}
