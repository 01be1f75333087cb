import { RRsetText, rrsetFromText, rrsetToText, sameSet } from '../dns/record';
import { fingerprint } from '../move/fingerprint';
import { SetKey, keyOfRow, setKey } from '../move/plan';
import { STARTING_TTL } from './propose';
import { RowDecision } from './ledgerRow';
import { Ruling } from './ruling';

/** One row of the plan as a fix would have it; `row` is null where it would be taken out. */
export interface FixedRow {
  readonly owner: string;
  readonly type: string;
  readonly row: RowDecision;
}

/** What would mend a remark: rows as they would be, made as one decision. */
export interface Fix {
  readonly text: string;
  readonly rows: readonly FixedRow[];
}

/** What somebody saw before it was made: another word wherever any row of it is another. */
export function fixKey(fix: Fix): string {
  return fingerprint(JSON.stringify(fix));
}

/** The reason of a row that a fix made. */
export const MENDED = 'mended where a remark proposed it';

/** Rows of a plan by name and type, made once for each plan: a fix looks for its row among thousands. */
const byKey = new WeakMap<readonly Ruling[], ReadonlyMap<SetKey, Ruling>>();

export function rowAt(rulings: readonly Ruling[], owner: string, type: string): Ruling | undefined {
  return rowOfKey(rulings, setKey(owner, type));
}

export function rowOfKey(rulings: readonly Ruling[], key: SetKey): Ruling | undefined {
  let rows = byKey.get(rulings);
  if (!rows) byKey.set(rulings, (rows = new Map(rulings.map((row) => [keyOfRow(row), row]))));
  return rows.get(key);
}

/** The row is not rebuilt; one that was not found is taken out. */
export function fixedAway({ owner, type, found }: Ruling): FixedRow {
  return { owner, type, row: found ? { owner, type, found, ruling: 'drop', planned: undefined, reason: MENDED } : null };
}

/** The row as it was found; undefined where it was not. */
export function fixedAsFound({ owner, type, found }: Ruling): FixedRow | undefined {
  return found && { owner, type, row: { owner, type, found, planned: found, ruling: 'carry', reason: MENDED } };
}

/** The set with this data, whether the plan has such a row or not. `data` in presentation form, names absolute; `ttl` in seconds. */
export function fixedTo(rulings: readonly Ruling[], owner: string, type: string, data: readonly string[], ttl?: number): FixedRow {
  const before = rowAt(rulings, owner, type);
  const set = before?.planned ?? before?.found;
  const planned = normal({ owner: before?.owner ?? owner, type, ttl: ttl ?? set?.ttl ?? STARTING_TTL, data: [...data] });
  const found = before?.found;
  const asFound = found !== undefined && found.ttl === planned.ttl && sameSet(found, planned);
  const ruling = !found ? 'new' : asFound ? 'carry' : 'repoint';
  return { owner: planned.owner, type, row: { owner: planned.owner, type, found, planned: asFound ? found : planned, ruling, reason: MENDED } };
}

/** As the readers of records print it; duplicates stand once. */
function normal(set: RRsetText): RRsetText {
  return rrsetToText(rrsetFromText({ ...set, data: [...new Set(set.data)] }));
}
