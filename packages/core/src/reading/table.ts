import { contraryWords, isContrary } from './about';
import { withNamesAbove } from './blankNames';
import { Columns, isEmptyCell, tellColumns } from './columns';
import { RawRecord } from './find';
import { Around, FormRead, NOTHING, Row } from './formRead';
import { labelOf } from './labels';
import { Line } from './lines';
import { RULED } from './clean';
import { Parting, partLines } from './parting';
import { SWITCHED_OFF, isSwitchedOff, outByState } from './rowState';
import { typeWord } from './typeWord';
import { valuesIn } from './value';

/** Labels that make a line the heading of a table: two at least, of which one is about value or type, and no type of a record. */
export function isHead(cells: readonly string[]): boolean {
  const labels = cells.map(labelOf);
  const known = labels.filter((label) => label !== undefined);
  return (
    known.length >= 2 && (known.includes('value') || known.includes('type') || known.includes('address')) && cells.every((cell) => typeWord(cell) === undefined)
  );
}

/** Reads lines as a table of this parting. */
export function readTableLines(lines: readonly Line[], parting: Parting, around: Around): FormRead {
  const rows = withNumbersJoined(partLines(lines, parting)).map(withoutBrackets);
  return readRows(rows, lines, around);
}

/** Reads rows of cells; the first that is a heading is one, and so is what stood above. */
export function readRows(rows: readonly Row[], lines: readonly Line[], around: Around): FormRead {
  const turned = turnedRows(rows);
  if (turned) return { ...readRows(turned, lines, around), read: new Set(rows.map(({ line }) => line)) };
  const read = new Set<number>(lines.filter(({ text }) => text === RULED).map(({ line }) => line));
  const at = rows.findIndex(({ cells }) => isHead(cells));
  const head = at >= 0 ? rows[at]!.cells : around.head;
  if (at >= 0) read.add(rows[at]!.line);
  const body = rows.filter((row, index) => index !== at && row.cells.filter((cell) => cell !== '').length > 1);
  if (body.length === 0) return at >= 0 ? { records: [], read, head: rows[at]!.cells } : NOTHING;
  // The heading of a table that is drawn with one cell more than its rows, and the like, tells nothing.
  const width = body.reduce((widest, { cells }) => Math.max(widest, cells.length), 0);
  const fitting = head && Math.abs(head.length - width) <= 1 ? head : undefined;
  const columns = tellColumns(
    body.map(({ cells }) => cells),
    fitting,
    around,
  );
  if (!columns) return NOTHING;
  const usual = usualLength(body);
  const records = body.flatMap((row): RawRecord[] => {
    const record = rowRecord(row, columns, around);
    if (!record) return [];
    // Where its last cells are missing, the one that ends it may be cut as well.
    const isShort = row.cells.length < usual && row.cells.length - 1 <= Math.max(columns.value, columns.name ?? 0);
    if (isShort) record.doubts.push('This row has fewer cells than the others: is it whole?');
    for (let line = row.line; line <= row.lastLine; line++) read.add(line);
    const values = valuesIn(record.type, record.value);
    if (values.length > 1 && !/[,;]|\p{L}/u.test(record.value.replace(/[0-9a-f]*:[0-9a-f:]*/gi, ''))) record.doubts.push('Are all of these its addresses?');
    return values.map((value) => (value === record.value ? record : { ...record, value }));
  });
  return { records: withNamesAbove(records, around.subject), read, head: fitting };
}

/** `MX | 10 | mail` in a table that has no column for the number: it belongs to the value behind it. */
function withNumbersJoined(rows: readonly Row[]): Row[] {
  const usual = rows.length === 0 ? 0 : usualLength(rows);
  return rows.map((row) => {
    const at = row.cells.findIndex((cell) => typeWord(cell) !== undefined);
    const numbers = { MX: 1, SRV: 3 }[typeWord(row.cells[at] ?? '') ?? ''];
    if (at < 0 || numbers === undefined || row.cells.length !== usual + numbers) return row;
    const [value, more] = [row.cells.slice(at + 1, at + 2 + numbers), row.cells.slice(at + 2 + numbers)];
    if (!value.slice(0, -1).every((cell) => /^\d{1,5}$/.test(cell))) return row;
    return { ...row, cells: [...row.cells.slice(0, at + 1), value.join(' '), ...more] };
  });
}

/** Records that stand side by side, with a label at the beginning of each row; undefined where they do not. */
function turnedRows(rows: readonly Row[]): Row[] | undefined {
  if (rows.length < 2 || rows.length > 12) return undefined;
  const labels = rows.map(({ cells }) => labelOf(cells[0] ?? ''));
  const width = rows[0]!.cells.length;
  if (width < 3 || !labels.every((label) => label !== undefined) || !labels.includes('type') || !labels.includes('value')) return undefined;
  // A heading over columns is no row of values.
  if (rows.some(({ cells }) => Math.abs(cells.length - width) > 1 || isHead(cells))) return undefined;
  return Array.from({ length: width }, (_, column) => ({
    line: rows[0]!.line,
    lastLine: rows.at(-1)!.line,
    cells: rows.map(({ cells }) => cells[column] ?? ''),
  }));
}

/** How many cells most rows have. */
function usualLength(rows: readonly Row[]): number {
  const counts = new Map<number, number>();
  for (const { cells } of rows) counts.set(cells.length, (counts.get(cells.length) ?? 0) + 1);
  return [...counts].reduce((best, one) => (one[1] > best[1] ? one : best))[0];
}

function rowRecord(
  { line, lastLine, cells, beside }: Row,
  columns: Columns,
  { subject, type: above, name: nameAbove }: Around,
): (RawRecord & { readonly doubts: string[] }) | undefined {
  const cell = (index: number | undefined): string | undefined => {
    const text = index === undefined ? undefined : cells[index]?.trim();
    return text === undefined || (isEmptyCell(text) && index !== columns.name) ? undefined : text;
  };
  const type = columns.type === undefined ? above : typeWord(cells[columns.type] ?? '');
  const value = cell(columns.value);
  if (type === undefined || value === undefined) return undefined;
  const doubts: string[] = [];
  const states = columns.states.map(({ index, heading, all }) => ({ text: cells[index] ?? '', heading, all }));
  for (const index of columns.unknown) if (!isEmptyCell(cells[index] ?? '')) doubts.push(`It is not known what “${short(cells[index]!)}” in this row means.`);
  if (states.some(({ text, heading }) => isSwitchedOff(text, heading))) doubts.push(SWITCHED_OFF);
  const stateOut = states.map(({ text, all }) => outByState(text, all, subject)).find((why) => why !== undefined);
  if (columns.name === undefined && nameAbove === undefined) doubts.push('No name stands there: the domain itself is taken.');
  const { turned } = columns;
  if (turned) doubts.push('Name and value could be the other way round.');
  const bare = columns.name === undefined ? nameAbove : (cells[columns.name]?.trim() ?? '');
  const service = [cell(columns.service), cell(columns.protocol)].filter((part) => part !== undefined).join('.');
  const name = service === '' || type !== 'SRV' ? bare : bare === undefined || isEmptyCell(bare) || bare === '@' ? service : `${service}.${bare}`;
  return {
    owner: name === undefined ? undefined : apart(name, cell(columns.domain)),
    type,
    value,
    ttl: cell(columns.ttl) ?? beside?.ttl,
    priority: cell(columns.priority) ?? beside?.priority,
    weight: cell(columns.weight),
    port: cell(columns.port),
    line,
    lastLine,
    form: 'table',
    doubts,
    ...(turned && { other: { owner: cells[turned.name] ?? '', value: cells[turned.value] ?? '' } }),
    ...(stateOut !== undefined && { out: stateOut }),
    ...(isContrary(columns.about, subject.as) && { out: contraryWords('It is headed', subject.as) }),
  };
}

/** Characters of a cell that ends with brackets. */
const LONGEST_BRACKETED = 300;

/** `192.0.2.1 (TTL 3600)`: what stands in brackets behind a value, where all of it has labels, stands beside it. */
function withoutBrackets(row: Row): Row {
  const found = row.cells.map((cell) => (cell.length <= LONGEST_BRACKETED && cell.endsWith(')') ? /^(.*\S)\s+\(([^()]{3,60})\)$/.exec(cell) : null));
  const at = found.findIndex((match) => match !== null);
  const parts = found[at]?.[2]!.split(/\s*[,;]\s*/).map((part) => /^(\p{L}+)[:=]?\s+(\d+(?:\s?\p{L}+)?)$/u.exec(part));
  if (!parts?.every((part) => part !== null && ['ttl', 'priority'].includes(labelOf(part[1]!) ?? ''))) return row;
  return {
    ...row,
    cells: row.cells.map((cell, index) => (index === at ? found[at]![1]! : cell)),
    beside: Object.fromEntries(parts.map((part) => [labelOf(part![1]!), part![2]!])),
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
