import { setWords } from '../survey/words';
import { Name } from '../dns/name';
import { fingerprint } from '../move/fingerprint';
import { EditResult, readRow } from './editRuling';
import { isHostsOwn, Ruling, RulingKind } from './ruling';

/** A row of the ledger: a ruling with the id by which people and decisions call it. */
export interface LedgerRow extends Ruling {
  readonly id: string;
  /** Who decided it last; null: as proposed. */
  readonly decidedBy: string | null;
}

/** What a decision about a row says of it; null: the row is taken out. */
export type RowDecision = Pick<Ruling, 'owner' | 'type' | 'ruling' | 'found' | 'planned' | 'reason'> | null;

/**
 * Many rows after one edit: `data` where they are repointed. Rows that are so already are left out; where one cannot be so, none is
 * changed, and it is said which.
 */
export function editRows(
  zone: Name,
  rows: readonly LedgerRow[],
  edit: RulingEdit,
): { readonly ok: true; readonly rows: { readonly id: string; readonly row: RowDecision }[] } | Extract<RulingResult, { ok: false }> {
  const changed: { id: string; row: RowDecision }[] = [];
  for (const before of rows) {
    // What was not found can only go, or get another value.
    const ruling = edit.ruling === 'repoint' && !before.found ? 'new' : edit.ruling;
    const result = editRow(zone, before, { ...edit, ruling });
    if (!result.ok) return { ...result, problem: `${setWords(before)}: ${result.problem}` };
    if (result.row && sameRow(before, result.row)) continue;
    changed.push({ id: before.id, row: result.row });
  }
  return { ok: true, rows: changed };
}

/** True where a row is so already. */
export function sameRow(a: Pick<Ruling, 'ruling' | 'planned'>, b: Pick<Ruling, 'ruling' | 'planned'>): boolean {
  return a.ruling === b.ruling && samePlanned(a.planned, b.planned);
}

function samePlanned(a: Ruling['planned'], b: Ruling['planned']): boolean {
  if (!a || !b) return !a && !b;
  return a.owner === b.owner && a.type === b.type && a.ttl === b.ttl && a.data.length === b.data.length && a.data.every((text, at) => text === b.data[at]);
}

/** What somebody sees of a row before ruling it: another word once anything of it is otherwise. */
export function rowSeen({ ruling, planned }: Pick<Ruling, 'ruling' | 'planned'>): string {
  return fingerprint(JSON.stringify([ruling, planned?.ttl ?? null, planned?.data ?? null]));
}

export interface RulingEdit {
  readonly ruling: RulingKind;
  readonly ttl?: string | undefined;
  readonly data?: string | undefined;
}

export type RulingResult =
  | { readonly ok: true; readonly row: RowDecision }
  | { readonly ok: false; readonly status: 'refused' | 'wrong'; readonly field?: string; readonly problem: string };

/** The reason of a row that a person ruled. */
export const BY_HAND = 'decided by hand';

/** The row after an edit; null where a new row is left out, which takes it out. Says what is wrong where it cannot be so. */
export function editRow(zone: Name, before: Ruling, edit: RulingEdit): RulingResult {
  const { owner, type, found } = before;
  const base = { owner, type, found, ruling: edit.ruling, reason: BY_HAND };
  if (type === 'SOA' || (type === 'NS' && Name.parse(owner).equals(zone)) || isHostsOwn(before))
    return { ok: false, status: 'refused', problem: `${owner} ${type} belongs to the DNS host.` };
  switch (edit.ruling) {
    case 'drop':
      return { ok: true, row: found ? { ...base, planned: undefined } : null };
    case 'carry':
      if (!found) return { ok: false, status: 'wrong', field: 'ruling', problem: 'A record set that was not found cannot be kept as it is.' };
      return { ok: true, row: { ...base, planned: found } };
    case 'repoint':
    case 'new': {
      if ((edit.ruling === 'new') !== (found === undefined)) {
        const problem = found ? 'A record set that was found is changed, not added.' : 'A record set that was not found is added.';
        return { ok: false, status: 'wrong', field: 'ruling', problem };
      }
      const set = before.planned ?? found!;
      const read = readRow(zone, { owner, type, ttl: edit.ttl ?? String(set.ttl), data: edit.data ?? set.data.join('\n') });
      if (!read.ok) return { ok: false, status: 'wrong', field: read.field, problem: read.problem };
      return { ok: true, row: { ...base, planned: read.set } };
    }
  }
}

/** A row that was not found, as a person typed it. */
export function newRow(zone: Name, rows: readonly Ruling[], typed: { owner: string; type: string; ttl: string; data: string }): RulingResult {
  const read: EditResult = readRow(zone, typed);
  if (!read.ok) return { ok: false, status: 'wrong', field: read.field, problem: read.problem };
  const { owner, type } = read.set;
  if (rows.some((one) => one.owner.toLowerCase() === owner.toLowerCase() && one.type === type))
    return { ok: false, status: 'refused', field: 'owner', problem: `${owner} ${type} is in the plan already: change that row.` };
  return { ok: true, row: { owner, type, ruling: 'new', found: undefined, planned: read.set, reason: 'added by hand' } };
}

/** The reason of a row that became another one at the old host after the survey, and was taken into the plan. */
export const CHANGED_SINCE = 'changed at the old host after the survey';

/** What is taken into the plan where a zone changed: rows as decisions, by owner and type. TTLs are kept where a set is only seen lowered. */
export function adoptedRow(
  rows: readonly LedgerRow[],
  change: { readonly owner: string; readonly type: string; readonly data: readonly string[]; readonly ttl: number },
  where: 'old' | 'new',
): { readonly row: RowDecision; readonly id: string | undefined } {
  const before = rows.find((one) => one.owner.toLowerCase() === change.owner.toLowerCase() && one.type === change.type);
  const { owner, type } = change;
  const set = change.data.length === 0 ? undefined : { owner, type, ttl: before?.planned?.ttl ?? change.ttl, data: [...change.data] };
  if (where === 'old') {
    const found = set && { ...set, ttl: change.ttl };
    const reason = CHANGED_SINCE;
    // What was to be another value at the new host stays that; what was carried follows.
    if (before && (before.ruling === 'repoint' || before.ruling === 'drop') && found) return { id: before.id, row: { ...before, found, reason } };
    if (before?.ruling === 'repoint') return { id: before.id, row: { owner, type, ruling: 'new', found: undefined, planned: before.planned, reason } };
    return { id: before?.id, row: found ? { owner, type, ruling: 'carry', found, planned: found, reason } : null };
  }
  const reason = 'taken as it stands at the new host';
  const found = before?.found;
  if (!set) return { id: before?.id, row: found ? { owner, type, ruling: 'drop', found, planned: undefined, reason } : null };
  return { id: before?.id, row: { owner, type, ruling: found ? 'repoint' : 'new', found, planned: set, reason } };
}
