import { Name } from '../dns/name';
import { RRset, RRsetText, rrsetRead } from '../dns/record';
import { Purpose, inReadingOrder, meaningsOf } from '../survey/purpose';
import { Ruling, ASKED_FOR, isHostsOwn } from './ruling';

/** A row of a ledger, here or as it came over HTTP. */
export type GroupedRow = Pick<Ruling, 'owner' | 'type' | 'reason'> & {
  readonly found?: RRsetText | null | undefined;
  readonly planned?: RRsetText | null | undefined;
};

export interface LedgerGroup<R> {
  readonly title: string;
  readonly rows: readonly R[];
  /** Not decided by anybody here: shown folded at first. */
  readonly hostsOwn: boolean;
}

/** Where a row stands in the groups of its ledger: in which one, and counted through all of them. */
export interface Placed {
  readonly group: string;
  readonly place: number;
}

/** In the order in which they are worked through; several purposes can be one group. */
const GROUPS: readonly (readonly [string, readonly Purpose[]])[] = [
  ['Website', ['website']],
  ['Mail', ['mail in', 'mail out', 'sender policy']],
  ['Certificates', ['certificates']],
  ['Proofs of ownership', ['verification']],
  ['Calendar and devices', ['calendar and devices']],
  ['Voice', ['voice']],
  ['Infrastructure', ['infrastructure']],
  ['Delegated subzones', ['delegated subzone']],
  ['The old host’s defaults', ["host's default"]],
  ['Not known what for', ['unknown']],
];

/** How the rows of a ledger are grouped: by what they serve, or by the name below the domain at or under which they stand. */
export type Grouping = 'purpose' | 'name';

/** The groups of names at which one row stands are one: hundreds of headings would hide what they head. */
const SINGLE = 'Names with one row';
const APEX = 'The domain itself';
const HOSTS_OWN: Pick<LedgerGroup<never>, 'title' | 'hostsOwn'> = { title: 'The DNS host’s own', hostsOwn: true };

/**
 * The rows in reading order, in groups by the name directly below the domain: `shop`, `www.shop` and `_acme-challenge.shop` stand
 * together. What belongs to the DNS host comes last.
 */
export function namedGroups<R extends GroupedRow>(zone: Name, rows: readonly R[]): LedgerGroup<R>[] {
  const { sets, own } = parted(rows);
  const depth = zone.labelCount;
  const byName = new Map<string, { title: string; rows: R[] }>();
  for (const set of inReadingOrder(zone, [...sets.keys()])) {
    let name = set.owner;
    while (name.labelCount > depth + 1) name = name.parent;
    const group = byName.get(name.key);
    if (group) group.rows.push(sets.get(set)!);
    else byName.set(name.key, { title: name.equals(zone) ? APEX : name.relativeTo(zone), rows: [sets.get(set)!] });
  }
  const all = [...byName.values()];
  const single = all.filter((group) => group.rows.length === 1 && group.title !== APEX).flatMap((group) => group.rows);
  const groups = [...all.filter((group) => group.rows.length > 1 || group.title === APEX), { title: SINGLE, rows: single }];
  return [...groups.map((group) => ({ ...group, hostsOwn: false })), { ...HOSTS_OWN, rows: own }].filter((group) => group.rows.length > 0);
}

/** Rows by their sets, apart from those that belong to the DNS host. */
function parted<R extends GroupedRow>(rows: readonly R[]): { readonly sets: Map<RRset, R>; readonly own: R[] } {
  const sets = new Map<RRset, R>();
  const own: R[] = [];
  for (const row of rows) {
    const text = row.planned ?? row.found;
    if (text && !isHostsOwn(row)) sets.set(rrsetRead(text), row);
    else own.push(row);
  }
  return { sets, own };
}

/**
 * The rows in reading order, in groups by what they serve; what belongs to the DNS host comes last. `said`: what a person says a set is
 * for, by owner and type as in the rows.
 */
export function ledgerGroups<R extends GroupedRow>(
  zone: Name,
  rows: readonly R[],
  said: readonly { readonly owner: string; readonly type: string; readonly purpose: Purpose }[] = [],
): LedgerGroup<R>[] {
  const { sets, own } = parted(rows);
  const meanings = meaningsOf(zone, [...sets.keys()]);
  const corrected = new Map(said.map(({ owner, type, purpose }) => [`${owner} ${type}`, purpose]));
  const byPurpose = new Map<Purpose, R[]>();
  for (const set of inReadingOrder(zone, [...sets.keys()], meanings)) {
    const row = sets.get(set)!;
    const own = meanings.get(set)!.purpose;
    // What a web host asks for is for its website, whatever its name.
    const purpose = corrected.get(`${row.owner} ${row.type}`) ?? (own === 'unknown' && row.reason.endsWith(ASKED_FOR) ? 'website' : own);
    const group = byPurpose.get(purpose);
    if (group) group.push(row);
    else byPurpose.set(purpose, [row]);
  }
  const groups = GROUPS.map(([title, purposes]) => ({ title, rows: purposes.flatMap((purpose) => byPurpose.get(purpose) ?? []), hostsOwn: false }));
  return [...groups, { ...HOSTS_OWN, rows: own }].filter((group) => group.rows.length > 0);
}

/** Where each row stands in `ledgerGroups`. */
export function placesOf<R extends GroupedRow>(...ledger: Parameters<typeof ledgerGroups<R>>): Map<R, Placed> {
  const all = ledgerGroups(...ledger).flatMap(({ title, rows }) => rows.map((row) => ({ row, title })));
  return new Map(all.map(({ row, title }, place) => [row, { group: title, place }]));
}

/** `ledgerGroups` of rows, or of some of them, whose places are known: what thousands of rows serve is not worked out again. */
export function placedGroups<R extends Placed>(rows: readonly R[]): LedgerGroup<R>[] {
  const groups = new Map<string, R[]>();
  for (const row of [...rows].sort((a, b) => a.place - b.place)) {
    const group = groups.get(row.group);
    if (group) group.push(row);
    else groups.set(row.group, [row]);
  }
  return [...groups].map(([title, all]) => ({ title, rows: all, hostsOwn: title === HOSTS_OWN.title }));
}
