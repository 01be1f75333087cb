import { Line } from './lines';
import { Row } from './formRead';
import { labelOf } from './labels';
import { typeWord } from './typeWord';

/** What stands between the cells of a table. */
export type Parting = 'cells' | 'tab' | 'bar' | 'semicolon' | 'comma' | 'gaps' | 'dash' | 'heads';
export const PARTINGS: readonly Parting[] = ['cells', 'tab', 'bar', 'semicolon', 'comma', 'gaps', 'dash', 'heads'];

/** Cells of a row that are looked at. */
const MOST_CELLS = 40;
/** Lines over which a cell in quotes may go on (RFC 4180 §2). */
const MOST_LINES_OF_CELL = 20;

/** Parts lines into rows; lines that this parting does not part are left out. */
export function partLines(lines: readonly Line[], parting: Parting): Row[] {
  return withTypesApart(cellRows(lines, parting));
}

function cellRows(lines: readonly Line[], parting: Parting): Row[] {
  switch (parting) {
    case 'cells':
      return lines.flatMap(({ line, cells }) => (cells ? [{ line, lastLine: line, cells: cells.slice(0, MOST_CELLS) }] : []));
    case 'tab':
      return rowsOf(lines, ({ text }) => (text.includes('\t') ? text.split('\t').map(unquotedCell) : undefined));
    case 'bar':
      return barRows(lines);
    case 'semicolon':
      return csvRows(lines, ';');
    case 'comma':
      return csvRows(lines, ',');
    case 'gaps':
      return rowsOf(lines, ({ text }) => {
        const cells = text.trim().split(/ {2,}|\t+/);
        return cells.length > 1 ? (/^ {4,}|^\t/.test(text) ? ['', ...cells] : cells) : undefined;
      });
    case 'heads':
      return underHeads(lines);
    case 'dash':
      return rowsOf(lines, ({ text }) => {
        const cells = text.trim().split(/\s(?:[-–—]|->|→|=>|⇒)\s/);
        return cells.length > 1 ? cells : undefined;
      });
  }
}

/**
 * Type and name in one cell: `CNAME www` is two where other rows begin with a type alone, or all do so; the heading over it then is of the
 * name.
 */
function withTypesApart(rows: Row[]): Row[] {
  const isType = (word: string | undefined): boolean => word !== undefined && typeWord(word) === word;
  const isBoth = ({ cells }: Row): boolean => {
    const words = (cells[0] ?? '').split(' ');
    return words.length === 2 && isType(words[0]) && words[1] !== '' && typeWord(cells[0]!) === undefined;
  };
  const both = rows.filter(isBoth).length;
  const alone = rows.filter(({ cells }) => isType(cells[0])).length;
  if (both === 0 || (both + alone) * 2 < rows.length) return rows;
  return rows.map((row) =>
    isBoth(row) ? { ...row, cells: [...(row.cells[0] ?? '').split(' '), ...row.cells.slice(1)] } : alone === 0 ? { ...row, cells: ['', ...row.cells] } : row,
  );
}

/** Cells that stand below the labels of a heading, with a single blank between some of them: they are cut where the labels begin. */
function underHeads(lines: readonly Line[]): Row[] {
  const at = lines.findIndex(({ text, cells }) => cells === undefined && labelsIn(text).length >= 3);
  if (at < 0) return [];
  const labels = labelsIn(lines[at]!.text);
  const starts = labels.map(({ from }) => from);
  const below = lines.slice(at + 1).filter(({ text, cells }) => cells === undefined && text.trim() !== '');
  const isCut = ({ text }: Line): boolean => starts.every((from) => from === 0 || from >= text.length || /\s/.test(text[from - 1]!));
  const fitting = below.filter(isCut);
  if (fitting.length < below.length * 0.8 || fitting.length === 0) return [];
  const cut = (text: string): string[] => starts.map((from, index) => text.slice(from, starts[index + 1] ?? text.length).trim());
  return [lines[at]!, ...fitting].map(({ line, text }) => ({ line, lastLine: line, cells: cut(text) }));
}

/** The labels of a heading, each with its place; none where most words are others. */
function labelsIn(text: string): { readonly from: number }[] {
  const found = [...text.matchAll(/\S+(?: \S+)*/g)].map((match) => ({ from: match.index, text: match[0] }));
  return found.length <= MOST_CELLS && found.filter((one) => labelOf(one.text) !== undefined).length >= found.length * 0.7 ? found : [];
}

function rowsOf(lines: readonly Line[], cellsOf: (line: Line) => readonly string[] | undefined): Row[] {
  return lines.flatMap((one) => {
    const cells = one.cells === undefined ? cellsOf(one) : undefined;
    return cells ? [{ line: one.line, lastLine: one.line, cells: cells.slice(0, MOST_CELLS).map((cell) => cell.trim()) }] : [];
  });
}

/** A cell that a spreadsheet wrapped in quotes for its own: `"say ""x"""`; the quotes of a text are its own. */
function unquotedCell(cell: string): string {
  const inner = /^"((?:[^"]|"")*)"$/.exec(cell.trim())?.[1];
  return inner !== undefined && inner.includes('""') ? inner.replaceAll('""', '"') : cell;
}

/** `| a | b |` → a, b; a bar within quotes is of the value. Bars at the ends are drawn around the rows where all rows have them. */
function barRows(lines: readonly Line[]): Row[] {
  const barred = lines.filter(({ text }) => text.includes('|'));
  const isFramed = { left: barred.every(({ text }) => /^\s*\|/.test(text)), right: barred.every(({ text }) => /\|\s*$/.test(text)) };
  return rowsOf(barred, ({ text }) => splitOutside(text, '|').slice(isFramed.left ? 1 : 0, isFramed.right ? -1 : undefined));
}

function splitOutside(text: string, separator: string): string[] {
  if (!text.includes('"')) return text.split(separator);
  const cells: string[] = [];
  let from = 0;
  let isQuoted = false;
  for (let at = 0; at < text.length; at++) {
    const character = text[at];
    if (character === '\\') at += 1;
    else if (character === '"') isQuoted = !isQuoted;
    else if (character === separator && !isQuoted) {
      cells.push(text.slice(from, at));
      from = at + 1;
    }
  }
  // A quote that is never closed quotes nothing.
  return isQuoted ? text.split(separator) : [...cells, text.slice(from)];
}

/** RFC 4180 §2: quotes keep a separator and an end of line, doubled quotes stand for one. */
function csvRows(lines: readonly Line[], separator: string): Row[] {
  const rows: Row[] = [];
  for (let index = 0; index < lines.length; index++) {
    const first = lines[index]!;
    if (first.cells !== undefined || !first.text.includes(separator)) continue;
    let text = first.text;
    let cells = csvCells(text, separator);
    let last = index;
    while (cells === undefined && last + 1 < lines.length && last - index < MOST_LINES_OF_CELL) {
      last += 1;
      text = `${text}\n${lines[last]!.text}`;
      cells = csvCells(text, separator);
    }
    if (cells === undefined) {
      cells = first.text.split(separator);
      last = index;
    }
    rows.push({ line: first.line, lastLine: lines[last]!.line, cells: cells.slice(0, MOST_CELLS).map((cell) => cell.trim()) });
    index = last;
  }
  return rows;
}

/** Undefined where a quote is not closed. */
function csvCells(text: string, separator: string): string[] | undefined {
  const cells: string[] = [];
  let at = 0;
  while (at <= text.length) {
    const start = /^\s*"/.exec(text.slice(at, at + 8))?.[0].length ?? 0;
    const quoted = start === 0 ? undefined : quotedEnd(text, at + start);
    if (start > 0 && quoted === undefined) return undefined;
    const next = text.indexOf(separator, quoted === undefined ? at : quoted + 1);
    const end = next < 0 ? text.length : next;
    cells.push(quoted === undefined ? text.slice(at, end) : unquoted(text, at + start, quoted, end));
    at = end + 1;
  }
  return cells;
}

/** What stands in quotes; what goes on behind them was no quoting of the cell: `"a" "b"` is a text of two strings. */
function unquoted(text: string, from: number, quoted: number, end: number): string {
  const cell = text.slice(from, quoted).replaceAll('""', '"');
  const behind = text.slice(quoted + 1, end);
  return behind.trim() === '' ? cell : `"${cell}"${behind}`;
}

function quotedEnd(text: string, from: number): number | undefined {
  for (let at = text.indexOf('"', from); at >= 0; at = text.indexOf('"', at + 1)) {
    if (text[at + 1] !== '"') return at;
    at += 1;
  }
  return undefined;
}
