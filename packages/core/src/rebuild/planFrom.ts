import { Name } from '../dns/name';
import { RRsetText, sameSet } from '../dns/record';
import { TYPE_CODES } from '../dns/typeNames';
import { keyOfRow, setKey } from '../move/plan';
import { FixedRow, fixedAway, fixedTo } from './fix';
import { MADE_BY_SIGNING } from './hostsOwn';
import { Ruling, isHostsOwn } from './ruling';

/** The reason of a row that was read back from a plan which was edited elsewhere. */
export const READ_BACK = 'as in the plan that was read back';

/**
 * What a plan becomes that was edited elsewhere and is read back: a row for each set that is otherwise there, and for each that is gone.
 * What belongs to the DNS host (SOA, apex NS, what signing makes) is left as it is. `taken`: names that the move is about.
 */
export function planFrom(zone: Name, rulings: readonly Ruling[], sets: readonly RRsetText[], taken: (owner: string, type: string) => boolean): FixedRow[] {
  const wanted = new Map(sets.filter((set) => taken(set.owner, set.type) && !isOfHost(zone, set)).map((set) => [setKey(set.owner, set.type), set]));
  const rows = new Map(rulings.map((row) => [keyOfRow(row), row]));
  const changed = [...wanted].flatMap(([key, set]): FixedRow[] => {
    const row = rows.get(key);
    // What the host has of its own there is not ours to change.
    if (row && isHostsOwn(row)) return [];
    const fixed = fixedTo(rulings, set.owner, set.type, set.data, set.ttl);
    return isSame(row?.planned, fixed.row?.planned) ? [] : [fixed];
  });
  const gone = rulings
    .filter((row) => row.planned && !isHostsOwn(row) && taken(row.owner, row.type) && !isOfHost(zone, row) && !wanted.has(keyOfRow(row)))
    .map(fixedAway);
  return [...changed, ...gone].map((one) => ({ ...one, row: one.row && { ...one.row, reason: READ_BACK } }));
}

function isOfHost(zone: Name, { owner, type }: { readonly owner: string; readonly type: string }): boolean {
  const code = TYPE_CODES[type as keyof typeof TYPE_CODES];
  return type === 'SOA' || MADE_BY_SIGNING.has(code) || (type === 'NS' && Name.parse(owner).equals(zone));
}

function isSame(a: RRsetText | undefined, b: RRsetText | undefined): boolean {
  return a !== undefined && b !== undefined && a.ttl === b.ttl && sameSet(a, b);
}
