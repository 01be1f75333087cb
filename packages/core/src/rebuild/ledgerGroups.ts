import { Name } from '../dns/name';
import { RRset, RRsetText, rrsetRead } from '../dns/record';
import { Purpose, inReadingOrder, meaningsOf } from '../survey/purpose';
import { Ruling, isHostsOwn } from './ruling';

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

/**
 * The rows in reading order, in groups by what they serve; what belongs to the DNS host comes last. `said`: what a person says a set is
 * for, by owner and type as in the rows.
 */
export function ledgerGroups<R extends GroupedRow>(
  zone: Name,
  rows: readonly R[],
  said: readonly { readonly owner: string; readonly type: string; readonly purpose: Purpose }[] = [],
): LedgerGroup<R>[] {
  const sets = new Map<RRset, R>();
  const own: R[] = [];
  for (const row of rows) {
    const text = row.planned ?? row.found;
    if (text && !isHostsOwn(row)) sets.set(rrsetRead(text), row);
    else own.push(row);
  }
  const meanings = meaningsOf(zone, [...sets.keys()]);
  const corrected = new Map(said.map(({ owner, type, purpose }) => [`${owner} ${type}`, purpose]));
  const byPurpose = new Map<Purpose, R[]>();
  for (const set of inReadingOrder(zone, [...sets.keys()], meanings)) {
    const row = sets.get(set)!;
    const purpose = corrected.get(`${row.owner} ${row.type}`) ?? meanings.get(set)!.purpose;
    const group = byPurpose.get(purpose);
    if (group) group.push(row);
    else byPurpose.set(purpose, [row]);
  }
  const groups = GROUPS.map(([title, purposes]) => ({ title, rows: purposes.flatMap((purpose) => byPurpose.get(purpose) ?? []), hostsOwn: false }));
  return [...groups, { title: 'The DNS host’s own', rows: own, hostsOwn: true }].filter((group) => group.rows.length > 0);
}
