import { Line } from './lines';
import { labelOf } from './labels';
import { Around, FormRead, Row } from './formRead';
import { readRows } from './table';
import { typeWord } from './typeWord';

/** Cells of a record that stand in lines of their own. */
const MOST_CELLS = 12;

/**
 * Reads a table whose cells came as lines of their own, as a copy from a page gives it. With the labels of the columns on top, a row is
 * as long as they are; without, one type follows the other at the same distance.
 */
export function readStacked(lines: readonly Line[], around: Around): FormRead {
  const cells = lines.filter(({ text, cells: of }) => of === undefined && text.trim() !== '');
  const labelled = cells.findIndex((_, index) => headLength(cells, index) >= 3);
  const length = labelled >= 0 ? headLength(cells, labelled) : 0;
  if (length >= 3) {
    const body = cells.slice(labelled + length);
    const head = cells.slice(labelled, labelled + length).map(({ text }) => text.trim());
    const typeAt = head.findIndex((one) => labelOf(one) === 'type');
    // Each row has its type in the same place; what follows the last row is no row.
    let count = 0;
    while ((count + 1) * length <= body.length && (typeAt < 0 || typeWord(body[count * length + typeAt]!.text.trim()) !== undefined)) count += 1;
    if (count > 0) return readStack(body, length, 0, count, around, head, cells.slice(labelled, labelled + length));
  }
  const types = cells.flatMap(({ text }, index) => (isTypeLine(text) ? [index] : []));
  if (types.length < 2) return { records: [], read: new Set() };
  const step = types[1]! - types[0]!;
  if (step < 3 || step > MOST_CELLS) return { records: [], read: new Set() };
  let count = 1;
  while (types.includes(types[0]! + count * step)) count += 1;
  if (count < types.length * 0.9) return { records: [], read: new Set() };
  const tried = Array.from({ length: step }, (_, before) => before)
    .filter((before) => before <= types[0]! && types[0]! - before + count * step <= cells.length)
    .map((before) => ({ from: types[0]! - before, form: readStack(cells, step, types[0]! - before, count, around, undefined, []) }));
  const whole = tried.filter(({ form }) => form.records.length === count);
  if (whole.length === 0) return { records: [], read: new Set() };
  // Rows that begin with the first line and end with the last explain all of it; else where they begin is a guess.
  const exact = whole.filter(({ from }) => from === 0 && count * step === cells.length);
  const best = exact[0] ?? whole[0]!;
  if (exact.length === 1 || whole.length === 1) return best.form;
  const doubt = 'It is not sure where one record ends and the next begins.';
  return { ...best.form, records: best.form.records.map((record) => ({ ...record, doubts: [...record.doubts, doubt] })) };
}

/**
 * Reads blocks of which each is one record, its cells in lines of their own: one line of each is a type. Blocks of one length are rows of
 * one table.
 */
export function readCards(blocks: readonly (readonly Line[])[], around: Around): FormRead {
  const byLength = new Map<number, (readonly Line[])[]>();
  for (const block of blocks) {
    const same = byLength.get(block.length);
    if (same) same.push(block);
    else byLength.set(block.length, [block]);
  }
  const parts = [...byLength.values()].map((some) => {
    const rows = some.map((block): Row => ({ line: block[0]!.line, lastLine: block.at(-1)!.line, cells: block.map(({ text }) => text.trim()) }));
    return readRows(rows, some.flat(), around);
  });
  return { records: parts.flatMap(({ records }) => records), read: new Set(parts.flatMap(({ read }) => [...read])) };
}

/** True for a block that may be one record in lines. */
export function isCard(block: readonly Line[]): boolean {
  if (block.length < 3 || block.length > MOST_CELLS) return false;
  return block.every(({ cells, text }) => cells === undefined && !text.includes('\t')) && block.filter(({ text }) => isTypeLine(text)).length === 1;
}

/** True for a type in capitals, alone in its line. */
export function isTypeLine(text: string): boolean {
  const word = text.trim();
  return typeWord(word) !== undefined && word === word.toUpperCase();
}

/** How many labels stand from here on. */
function headLength(cells: readonly Line[], from: number): number {
  let length = 0;
  const labels = new Set<string>();
  while (from + length < cells.length && length < MOST_CELLS) {
    const text = cells[from + length]!.text.trim();
    const label = labelOf(text);
    if (label === undefined || typeWord(text) === text) break;
    if (label !== 'noise') labels.add(label);
    length += 1;
  }
  return labels.has('type') && labels.has('value') ? length : 0;
}

function readStack(
  cells: readonly Line[],
  length: number,
  from: number,
  count: number,
  around: Around,
  head: readonly string[] | undefined,
  headLines: readonly Line[],
): FormRead {
  const rows = Array.from({ length: count }, (_, index): Row => {
    const part = cells.slice(from + index * length, from + (index + 1) * length);
    return { line: part[0]!.line, lastLine: part.at(-1)!.line, cells: part.map(({ text }) => text.trim()) };
  });
  const taken = cells.slice(from, from + count * length);
  const found = readRows(rows, taken, head ? { ...around, head } : around);
  return { ...found, read: new Set([...found.read, ...headLines.map(({ line }) => line)]) };
}
