import { LedgerRow, BY_HAND, RowDecision } from './ledgerRow';
import { RulingKind } from './ruling';
import { MadeRule } from './standingRule';

/** What a ruling of many says of each of its rows: what was found there is kept, dropped, or has this in its place. */
export interface ShortWord {
  readonly ruling: RulingKind;
  /** Absent where it is kept or dropped. */
  readonly set?: { readonly ttl: number; readonly data: readonly string[] };
}

/** What a decision says of one row. */
export type RowWord = RowDecision | ShortWord;

interface SaidOfRow {
  readonly id: string;
  readonly row: RowWord;
}

/** The value of a decision about many rows: those of which the same is said together, the others whole. */
export interface RulingsValue {
  readonly groups?: readonly (ShortWord & { readonly ids: readonly string[] })[];
  readonly rows: readonly { readonly id: string; readonly row: RowDecision }[];
  /** The rule by which they were ruled, which stands for as long as this does. */
  readonly rule?: MadeRule;
}

interface Said {
  readonly kind: string;
  readonly subject: string;
  readonly value: unknown;
}

/** The rows that a decision is about, one or many. */
export function rowsOf(decision: Said): readonly SaidOfRow[] {
  return [...groupsOf(decision).flatMap(({ ids, ...word }) => ids.map((id) => ({ id, row: word }))), ...wholeRowsOf(decision)];
}

function groupsOf({ kind, value }: Said): NonNullable<RulingsValue['groups']> {
  return kind === 'rulings' ? ((value as RulingsValue).groups ?? []) : [];
}

function wholeRowsOf({ kind, subject, value }: Said): RulingsValue['rows'] {
  if (kind === 'ruling') return [{ id: subject, row: (value as { row: RowDecision } | null)?.row ?? null }];
  return kind === 'rulings' ? (value as RulingsValue).rows : [];
}

/**
 * Rows after one edit as a decision keeps them: what is the same of many is said once, so that five hundred rows dropped are their ids
 * and one word. What was taken out stays by itself.
 */
export function grouped(rows: RulingsValue['rows']): RulingsValue {
  const groups = new Map<string, { word: ShortWord; ids: string[] }>();
  const alone: { id: string; row: RowDecision }[] = [];
  for (const { id, row } of rows) {
    if (!row) {
      alone.push({ id, row });
      continue;
    }
    const { ruling, planned } = row;
    const word: ShortWord = planned && ruling !== 'carry' ? { ruling, set: { ttl: planned.ttl, data: planned.data } } : { ruling };
    const key = word.set ? JSON.stringify(word) : ruling;
    const group = groups.get(key);
    if (group) group.ids.push(id);
    else groups.set(key, { word, ids: [id] });
  }
  return { groups: [...groups.values()].map(({ word, ids }) => ({ ...word, ids })), rows: alone };
}

/** Proposed rows with what people decided about them laid over; rows that were added come last. */
export function overlaid(
  proposed: readonly LedgerRow[],
  decided: readonly { readonly id: string; readonly row: RowWord; readonly by: string | null }[],
): LedgerRow[] {
  const rows = new Map(proposed.map((row): [string, LedgerRow | undefined] => [row.id, row]));
  for (const { id, row, by } of decided) rows.set(id, after(id, rows.get(id), row, by));
  return [...rows.values()].filter((row): row is LedgerRow => row !== undefined);
}

function after(id: string, before: LedgerRow | undefined, word: RowWord, by: string | null): LedgerRow | undefined {
  if (!isShort(word)) return word ? { ...word, id, decidedBy: by } : undefined;
  // It was ruled together with others, and what brought it into the plan was taken back since.
  if (!before) return undefined;
  const { owner, type, found } = before;
  const base = { id, owner, type, ruling: word.ruling, found, reason: BY_HAND, decidedBy: by };
  if (word.set) return { ...base, ruling: found ? 'repoint' : 'new', planned: { owner, type, ttl: word.set.ttl, data: [...word.set.data] } };
  // The same with what was found: nothing is left to carry or to drop.
  if (!found) return word.ruling === 'drop' ? undefined : before;
  return { ...base, planned: word.ruling === 'carry' ? found : undefined };
}

/** Where a row stands among those proposed, worked out once for each plan. */
const places = new WeakMap<readonly LedgerRow[], ReadonlyMap<string, number>>();

function placesIn(proposed: readonly LedgerRow[]): ReadonlyMap<string, number> {
  let known = places.get(proposed);
  if (!known) places.set(proposed, (known = new Map(proposed.map(({ id }, place) => [id, place]))));
  return known;
}

/**
 * Rows as they stand after decisions, the oldest of which comes first, without those that are not there, or were taken out; all of them, or
 * those with these ids. The same as `overlaid` by every word in turn, for what it costs to read each row's last: of each row the newest word
 * counts, and where that is a short one the newest whole one before it. Somebody may have decided about thousands, again and again.
 */
export function decidedRows(
  proposed: readonly LedgerRow[],
  decisions: readonly (Said & { readonly person: string | null })[],
  ids?: readonly string[],
): LedgerRow[] {
  const place = placesIn(proposed);
  const added = new Set(decisions.flatMap((one) => wholeRowsOf(one).flatMap(({ id }) => (place.has(id) ? [] : [id]))));
  const wanted = new Set(ids ?? [...place.keys(), ...added]);
  const rows = ids
    ? [...wanted]
        .flatMap((id) => place.get(id) ?? [])
        .sort((a, b) => a - b)
        .map((at) => proposed[at]!)
    : proposed;
  const [short, whole] = [new Map<string, SaidBy<ShortWord>>(), new Map<string, SaidBy<RowDecision>>()];
  const unsaid = new Set(wanted);
  for (const decision of [...decisions].reverse()) {
    const by = decision.person;
    if (unsaid.size > 0) for (const { ids: group, ...row } of groupsOf(decision)) for (const id of group) if (unsaid.delete(id)) short.set(id, { id, row, by });
    for (const { id, row } of wholeRowsOf(decision)) {
      if (!wanted.has(id) || whole.has(id)) continue;
      unsaid.delete(id);
      whole.set(id, { id, row, by });
    }
  }
  // Where nothing is found any more that could be carried, what was said before that stands: every word counts.
  const isLost = ({ id, row }: SaidBy<ShortWord>): boolean => {
    const before = whole.has(id) ? whole.get(id)!.row : proposed[place.get(id) ?? -1];
    return row.ruling === 'carry' && !before?.found;
  };
  if ([...short.values()].some(isLost))
    return overlaid(
      rows,
      decisions.flatMap((one) => rowsOf(one).flatMap(({ id, row }) => (wanted.has(id) ? [{ id, row, by: one.person }] : []))),
    );
  // Those that were added come in the order in which they were.
  const first = [...added].flatMap((id) => whole.get(id) ?? []);
  return overlaid(rows, [...first, ...whole.values(), ...short.values()]);
}

interface SaidBy<W> {
  readonly id: string;
  readonly row: W;
  readonly by: string | null;
}

function isShort(word: RowWord): word is ShortWord {
  return word !== null && !('owner' in word);
}
