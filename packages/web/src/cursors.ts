import { CursorTold } from '@wanderon/contract';

/** Milliseconds after which somebody who is no longer heard of is taken for gone. */
const GONE = 45_000;

interface Cursor {
  readonly leg: string;
  readonly row: string;
  readonly name: string;
  readonly at: number;
}

/** Where the pages of other people stand, by page. */
const cursors = new Map<string, Cursor>();
const listeners = new Set<() => void>();
/** Called where a page is heard of for the first time: it does not know of the others yet. */
const greeters = new Set<() => void>();
/** What was handed out of a leg: React wants the same for the same state. */
const handed = new Map<string, ReadonlyMap<string, readonly string[]>>();

function changed(): void {
  handed.clear();
  for (const listener of listeners) listener();
}

/** Takes what the server tells of somebody's cursor; what `own` page told is not news. */
export function takeCursor({ leg, page, row, name }: CursorTold, own: string): void {
  if (page === own) return;
  const isNew = !cursors.has(page);
  if (row === null) cursors.delete(page);
  else cursors.set(page, { leg, row, name, at: performance.now() });
  changed();
  if (isNew && row !== null) for (const greet of greeters) greet();
}

/** Forgets who was not heard of for long. */
export function forgetGone(): void {
  const before = cursors.size;
  for (const [page, { at }] of cursors) if (performance.now() - at > GONE) cursors.delete(page);
  if (cursors.size !== before) changed();
}

export function onCursors(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export function onNewPage(greet: () => void): () => void {
  greeters.add(greet);
  return () => greeters.delete(greet);
}

/** Who stands on which row of a leg. */
export function cursorsOn(leg: string): ReadonlyMap<string, readonly string[]> {
  const known = handed.get(leg);
  if (known) return known;
  const rows = new Map<string, string[]>();
  for (const one of cursors.values()) if (one.leg === leg) rows.set(one.row, [...(rows.get(one.row) ?? []), one.name]);
  handed.set(leg, rows);
  return rows;
}
