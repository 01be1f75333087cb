import { Name } from '../dns/name';
import { Columns, isEmptyCell, tellColumns } from './columns';
import { RawRecord, Subject } from './find';
import { labelOf } from './labels';
import { Line } from './lines';
import { RULED } from './clean';
import { Parting, partLines } from './parting';
import { typeWord } from './typeWord';

export interface Around {
  readonly subject: Subject;
  readonly zone: Name;
  /** The type that the heading above says. */
  readonly type: string | undefined;
  /** Cells of a heading that stood above, parted from its rows. */
  readonly head: readonly string[] | undefined;
}

export interface FormRead {
  readonly records: readonly RawRecord[];
  /** Lines that were accounted for. */
  readonly read: ReadonlySet<number>;
  /** The heading of a table that has no rows here. */
  readonly head?: readonly string[] | undefined;
}

export interface Row {
  readonly line: number;
  readonly lastLine: number;
  readonly cells: readonly string[];
}

const NOTHING: FormRead = { records: [], read: new Set() };

/** Labels that make a line the heading of a table: two at least, of which one is about value or type, and no type of a record. */
export function isHead(cells: readonly string[]): boolean {
  const labels = cells.map(labelOf);
  const known = labels.filter((label) => label !== undefined);
  return known.length >= 2 && (known.includes('value') || known.includes('type') || known.includes('address')) && cells.every((cell) => typeWord(cell) === undefined);
}

/** Reads lines as a table of this parting. */
export function readTableLines(lines: readonly Line[], parting: Parting, around: Around): FormRead {
  const rows = partLines(lines, parting);
  return readRows(rows, lines, around);
}

/** Reads rows of cells; the first that is a heading is one, and so is what stood above. */
export function readRows(rows: readonly Row[], lines: readonly Line[], around: Around): FormRead {
  const read = new Set<number>(lines.filter(({ text }) => text === RULED).map(({ line }) => line));
  const at = rows.findIndex(({ cells }) => isHead(cells));
  const head = at >= 0 ? rows[at]!.cells : around.head;
  if (at >= 0) read.add(rows[at]!.line);
  const body = rows.filter((row, index) => index !== at && row.cells.filter((cell) => cell !== '').length > 1);
  if (body.length === 0) return at >= 0 ? { records: [], read, head: rows[at]!.cells } : NOTHING;
  // The heading of a table that is drawn with one cell more than its rows, and the like, tells nothing.
  const width = Math.max(...body.map(({ cells }) => cells.length));
  const fitting = head && Math.abs(head.length - width) <= 1 ? head : undefined;
  const columns = tellColumns(
    body.map(({ cells }) => cells),
    fitting,
    around,
  );
  if (!columns) return at >= 0 && body.length === 0 ? { records: [], read, head: rows[at]!.cells } : NOTHING;
  const records = body.flatMap((row): RawRecord[] => {
    const record = rowRecord(row, columns, around);
    if (!record) return [];
    for (let line = row.line; line <= row.lastLine; line++) read.add(line);
    return [record];
  });
  return { records, read, head: fitting };
}

function rowRecord({ line, lastLine, cells }: Row, columns: Columns, { subject, type: above }: Around): RawRecord | undefined {
  const cell = (index: number | undefined): string | undefined => {
    const text = index === undefined ? undefined : cells[index]?.trim();
    return text === undefined || (isEmptyCell(text) && index !== columns.name) ? undefined : text;
  };
  const type = columns.type === undefined ? above : typeWord(cells[columns.type] ?? '');
  const value = cell(columns.value);
  if (type === undefined || value === undefined) return undefined;
  const doubts: string[] = [];
  for (const index of columns.unknown) if (!isEmptyCell(cells[index] ?? '')) doubts.push(`It is not known what “${short(cells[index]!)}” in this row means.`);
  if (columns.name === undefined) doubts.push('No name stands there: the domain itself is taken.');
  const wrongWay = columns.about !== undefined && columns.about !== 'example' && columns.about !== subject.as;
  const { turned } = columns;
  if (turned) doubts.push('Name and value could be the other way round.');
  const name = columns.name === undefined ? undefined : (cells[columns.name]?.trim() ?? '');
  return {
    owner: name === undefined ? undefined : apart(name, cell(columns.domain)),
    type,
    value,
    ttl: cell(columns.ttl),
    priority: cell(columns.priority),
    weight: cell(columns.weight),
    port: cell(columns.port),
    line,
    lastLine,
    form: 'table',
    doubts,
    ...(turned && { other: { owner: cells[turned.name] ?? '', value: cells[turned.value] ?? '' } }),
    ...(wrongWay && { out: subject.as === 'old' ? 'It is headed as what is wanted.' : 'It is headed as what is there now.' }),
  };
}

/** A name with the domain in a column of its own: apart('www', 'kelp.example') → www.kelp.example */
function apart(name: string, domain: string | undefined): string {
  if (domain === undefined) return name;
  const whole = domain.replace(/\.$/, '');
  if (isEmptyCell(name) || name === '@') return whole;
  return name.toLowerCase().replace(/\.$/, '').endsWith(whole.toLowerCase()) ? name : `${name}.${whole}`;
}

export function short(text: string): string {
  return text.length > 40 ? `${text.slice(0, 38)}…` : text;
}

