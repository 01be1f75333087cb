import { quotedText } from '../dns/quotedText';
import { Name, NameError } from '../dns/name';
import { parseRdata } from '../dns/rdata';
import { ResourceRecord } from '../dns/record';
import { TextError } from '../dns/token';
import { parseTtl } from '../dns/ttl';
import { TYPE_CODES, typeCode, typeMnemonic } from '../dns/typeNames';
import { isIpv4, isIpv6 } from '../dns/address';
import { drawn, readHtml } from './html';

/** What a column of a pasted table is taken for. */
export type Column = 'name' | 'type' | 'ttl' | 'class' | 'priority' | 'weight' | 'port' | 'value' | 'other';

export interface TableRow {
  /** Counts from 1. */
  readonly line: number;
  readonly record: ResourceRecord;
  /** What was guessed about this row, in words. */
  readonly guesses: readonly string[];
  /** The other way to read the name, where there are two: with and without the zone appended. */
  readonly otherName: Name | undefined;
}

export interface TableReading {
  readonly columns: readonly Column[];
  readonly rows: readonly TableRow[];
  readonly bad: readonly { readonly line: number; readonly text: string; readonly problem: string }[];
  /** Lines beyond the limit that were not looked at. */
  readonly leftOut: number;
}

export interface TableOptions {
  /** Seconds for rows without a TTL. */
  readonly ttl: number;
  /** Columns as a person corrected them, instead of the guess. */
  readonly columns?: readonly Column[];
}

const LINES = 20_000;
const CELLS = 40;
/** Headings and types, with what is said of them in brackets. */
const WORDY = 200;
/** Every octet of the longest name written as a number of three digits. */
const NAME_LENGTH = 1100;
/** Every octet of the longest data written as a number of three digits, with its quotes. */
const VALUE_LENGTH = 300_000;

/**
 * Reads a table of records as a panel shows it: columns in any order, parted by tabs, commas, semicolons, bars or HTML;
 * names relative, absolute, `@`, empty or the domain itself; units in TTLs; a priority in a column of its own or in the
 * value. A line that cannot be read is listed, and the others are read.
 */
export function readTable(text: string, zone: Name, options: TableOptions): TableReading {
  const all = /<t[dhr][\s>]/i.test(text) ? htmlRows(text) : plainRows(text);
  const lines = all.slice(0, LINES);
  const heading = headingOf(lines[0]?.cells ?? []);
  const body = heading ? lines.slice(1) : lines;
  const columns = options.columns ?? heading ?? guessColumns(body.map((one) => one.cells));
  const rows: TableRow[] = [];
  const bad: { line: number; text: string; problem: string }[] = [];
  for (const { line, cells } of body) {
    try {
      if (cells.some((cell) => cell.length > VALUE_LENGTH)) throw new RangeError('it is longer than a record can be');
      rows.push(readRow(line, cells, columns, zone, options.ttl));
    } catch (error) {
      if (!(error instanceof NameError) && !(error instanceof TextError) && !(error instanceof RangeError)) throw error;
      bad.push({ line, text: cells.join('  ').slice(0, 300), problem: error.message });
    }
  }
  return { columns, rows, bad, leftOut: all.length - lines.length };
}

interface Line {
  readonly line: number;
  readonly cells: readonly string[];
}

/** Cells of lines; the separator is the one that parts most lines most evenly. */
function plainRows(text: string): Line[] {
  const lines = text
    .replace(/^\uFEFF/, '')
    .split(/\r\n|\r|\n/)
    .map((raw, index) => ({ raw, line: index + 1 }))
    .filter(({ raw }) => raw.trim() !== '' && !/^\s*(;|#|\/\/)/.test(raw));
  const separator = separatorOf(lines.slice(0, 200).map(({ raw }) => raw.slice(0, 2000)));
  return lines.map(({ raw, line }) => {
    if (raw.length > CELLS + VALUE_LENGTH) return { line, cells: [raw.slice(0, VALUE_LENGTH + 1)] };
    return { line, cells: (separator === ' ' ? wordsOf(raw) : splitQuoted(raw, separator)).slice(0, CELLS) };
  });
}

function separatorOf(lines: readonly string[]): string {
  let best = ' ';
  let most = 0;
  for (const separator of ['\t', ';', ',', '|']) {
    const counts = lines.map((line) => splitQuoted(line, separator).length);
    // A type has to stand in a cell of its own, or the separator parts something else.
    const typed = lines.filter((line) => splitQuoted(line, separator).some((cell) => typeOf(cell) !== undefined)).length;
    const score = Math.min(...counts) > 1 || typed > lines.length / 2 ? typed : 0;
    if (score > most) [best, most] = [separator, score];
  }
  return best;
}

/** RFC 4180 §2: quotes keep a separator, doubled quotes stand for one. */
function splitQuoted(line: string, separator: string): string[] {
  const cells: string[] = [];
  let cell = '';
  let quoted = false;
  let blank = true;
  const add = (part: string): void => {
    cell += part;
    blank &&= part.trim() === '';
  };
  // Quotes around part of a cell belong to the value, as in a text of several strings.
  const keptQuote = separator === ',' || separator === ';' ? '' : '"';
  const parts = line.match(new RegExp(`[^"${separator}]+|["${separator}]`, 'g')) ?? [];
  for (let i = 0; i < parts.length; i++) {
    const part = parts[i]!;
    if (quoted && part === '"' && parts[i + 1] === '"') {
      add('"');
      i += 1;
    } else if (part === '"' && (quoted || blank)) {
      quoted = !quoted;
      add(keptQuote);
    } else if (part === separator && !quoted) {
      cells.push(cell.trim());
      [cell, blank] = ['', true];
    } else add(part);
  }
  cells.push(cell.trim());
  if (separator === '|') {
    if (cells[0] === '') cells.shift();
    if (cells.at(-1) === '') cells.pop();
  }
  return cells;
}

/** Words parted by white space; what comes behind the type and its numbers is one value. */
function wordsOf(line: string): string[] {
  const words = line.trim().split(/\s+/);
  if (/^\s/.test(line)) words.unshift('');
  const at = words.findIndex((word, index) => index > 0 && typeOf(word) !== undefined);
  if (at < 0) return words;
  const value = line
    .trim()
    .split(/\s+/)
    .slice(/^\s/.test(line) ? at : at + 1);
  return [...words.slice(0, at + 1), value.join(' ')];
}

function htmlRows(text: string): Line[] {
  const rows: Line[] = [];
  let cells: string[] = [];
  let cell: string[] | undefined;
  const endCell = (): void => {
    if (cell) cells.push(drawn(cell.join('')));
    cell = undefined;
  };
  const endRow = (): void => {
    endCell();
    if (cells.some((one) => one !== '')) rows.push({ line: rows.length + 1, cells: cells.slice(0, CELLS) });
    cells = [];
  };
  readHtml(text, {
    open: (tag) => {
      if (tag === 'tr') endRow();
      else if (tag === 'td' || tag === 'th') {
        endCell();
        cell = [];
      } else if (tag === 'br') cell?.push(' ');
    },
    close: (tag) => {
      if (tag === 'tr' || tag === 'table') endRow();
      else if (tag === 'td' || tag === 'th') endCell();
    },
    text: (piece) => cell?.push(piece),
  });
  endRow();
  return rows;
}

const HEADINGS: Readonly<Record<Exclude<Column, 'other'>, RegExp>> = {
  name: /^(name|host ?name|host|record name|owner( name)?|sub ?domain|domain|label|dns name|record)$/i,
  type: /^(type|record type|rr ?type|kind)$/i,
  ttl: /^(ttl.*|time to live.*|lifetime)$/i,
  class: /^(class|rr ?class)$/i,
  priority: /^(priority|prio|pri|preference|pref|mx( pref(erence)?| priority)?|distance)$/i,
  weight: /^weight$/i,
  port: /^port$/i,
  value: /^(value|content|data|r?data|target|points to|answer|destination|address|record value|result|ip( address)?|text)$/i,
};

/** Columns by their heading; undefined where the first line is no heading. */
function headingOf(cells: readonly string[]): Column[] | undefined {
  const columns = cells.map((cell): Column => {
    if (cell.length > WORDY) return 'other';
    const found = Object.entries(HEADINGS).find(([, pattern]) => pattern.test(cell.replace(/[:*]+$/, '').trim()));
    return (found?.[0] as Column | undefined) ?? 'other';
  });
  return columns.includes('type') && columns.includes('value') ? columns : undefined;
}

/** Columns by what stands in them. */
function guessColumns(rows: readonly (readonly string[])[]): Column[] {
  const width = Math.max(0, ...rows.map((row) => row.length));
  const sample = rows.slice(0, 500);
  const share = (index: number, test: (cell: string) => boolean): number => sample.filter((row) => test(row[index] ?? '')).length / Math.max(1, sample.length);
  const columns: Column[] = Array.from({ length: width }, () => 'other');
  const indexes = [...columns.keys()];
  const best = (test: (cell: string) => boolean, least: number, among = indexes): number | undefined => {
    const free = among.filter((index) => columns[index] === 'other');
    const top = free.map((index) => ({ index, part: share(index, test) })).sort((a, b) => b.part - a.part || a.index - b.index)[0];
    return top && top.part >= least ? top.index : undefined;
  };
  const put = (index: number | undefined, column: Column): void => {
    if (index !== undefined) columns[index] = column;
  };
  put(
    best((cell) => typeOf(cell) !== undefined, 0.6),
    'type',
  );
  put(
    best((cell) => /^(IN|CLASS1)$/i.test(cell), 0.5),
    'class',
  );
  // Of what looks like numbers, a TTL is on every row and a priority on few.
  put(
    best((cell) => ttlIn(cell) !== undefined && !/^\d{1,2}$/.test(cell), 0.5),
    'ttl',
  );
  put(
    best(
      (cell) => cell === '' || cell === '-' || /^\d{1,5}$/.test(cell),
      0.95,
      indexes.filter((index) => share(index, (cell) => /^\d{1,5}$/.test(cell)) > 0),
    ),
    'priority',
  );
  const type = columns.indexOf('type');
  const left = indexes.filter((index) => columns[index] === 'other');
  // An address, blanks or quotes make a value for sure; a final dot may also stand behind whole names.
  const sure = (cell: string): boolean => isIpv4(cell) || isIpv6(cell) || /\s|"|^v=/.test(cell) || cell.length > 40;
  const likeValue = (index: number): number => share(index, sure) * 2 + share(index, (cell) => cell.endsWith('.'));
  const values = left.filter((index) => likeValue(index) > 0.25).sort((a, b) => likeValue(b) - likeValue(a));
  put(values[0] ?? left.find((index) => index > type), 'value');
  put(
    indexes.find((index) => columns[index] === 'other' && share(index, (cell) => !/\s/.test(cell)) > 0.9),
    'name',
  );
  return columns;
}

/** A word that is a type in capitals or small letters, and no number of one. */
function typeOf(cell: string): number | undefined {
  if (cell.length > WORDY) return undefined;
  const word = cell.trim().replace(/\s*\(.*\)$/, '');
  if (!/^([A-Z][A-Z0-9-]{0,11}|[a-z][a-z0-9-]{0,11})$/.test(word) || /^(in|any)$/i.test(word)) return undefined;
  return typeCode(word);
}

/** `3600`, `1h`, `1 hour`, `30 min`, `Auto`. */
function ttlIn(cell: string): number | undefined {
  const text = cell.trim().toLowerCase();
  const words = /^(\d+)\s*(seconds?|secs?|s|minutes?|mins?|m|hours?|hrs?|h|days?|d|weeks?|w)\.?$/.exec(text);
  return words ? parseTtl(`${words[1]}${words[2]![0]}`) : parseTtl(text);
}

/** Types whose value begins with numbers that a panel may show in columns of their own. */
const NUMBERED: Readonly<Record<number, number>> = {
  [TYPE_CODES.MX]: 1,
  [TYPE_CODES.SRV]: 3,
  [TYPE_CODES.KX]: 1,
  [TYPE_CODES.AFSDB]: 1,
  [TYPE_CODES.RT]: 1,
  [TYPE_CODES.URI]: 2,
  [TYPE_CODES.HTTPS]: 1,
  [TYPE_CODES.SVCB]: 1,
};
const ENDS_IN_NAME: ReadonlySet<number> = new Set([TYPE_CODES.CNAME, TYPE_CODES.MX, TYPE_CODES.NS, TYPE_CODES.SRV, TYPE_CODES.PTR, TYPE_CODES.DNAME]);

function readRow(line: number, cells: readonly string[], columns: readonly Column[], zone: Name, fallback: number): TableRow {
  const cell = (column: Column): string => cells[columns.indexOf(column)]?.trim() ?? '';
  const guesses: string[] = [];
  const type = typeOf(cell('type'));
  if (type === undefined) throw new RangeError(cell('type') === '' ? 'no type stands on this line' : `${cell('type')} is not a record type`);
  const { owner, otherName } = readOwner(cell('name'), zone, guesses);
  const ttl = ttlIn(cell('ttl'));
  if (ttl === undefined) guesses.push(`TTL ${fallback} s, as none can be read`);
  // A value of several columns: what the person sees as one goes on to the end of the line.
  const at = columns.indexOf('value');
  const value = cells
    .slice(at, at === columns.length - 1 ? undefined : at + 1)
    .join(' ')
    .trim();
  const data = parseRdata(type, valueText(type, value, [cell('priority'), cell('weight'), cell('port')], zone, guesses), zone);
  return { line, record: { owner, type, cls: 1, ttl: ttl ?? fallback, data }, guesses, otherName };
}

/** `@`, nothing and the domain are the apex; a name that ends in the domain is absolute though its dot is missing. */
function readOwner(text: string, zone: Name, guesses: string[]): { owner: Name; otherName: Name | undefined } {
  if (text.length > NAME_LENGTH) throw new RangeError('the name is longer than a name can be');
  const typed = text.replace(/\s*\(.*\)$/, '');
  if (typed === '' || typed === '@' || typed === '-') return { owner: zone, otherName: undefined };
  const relative = Name.parse(typed, zone);
  if (typed.endsWith('.')) {
    if (!relative.isAtOrBelow(zone)) throw new RangeError(`${typed} is outside the zone`);
    return { owner: relative, otherName: undefined };
  }
  const absolute = Name.parse(`${typed}.`);
  if (!absolute.isAtOrBelow(zone)) return { owner: relative, otherName: undefined };
  guesses.push(`${typed} is taken for the whole name`);
  return { owner: absolute, otherName: relative };
}

function valueText(type: number, value: string, numbers: readonly string[], zone: Name, guesses: string[]): string {
  if (value === '') throw new RangeError('no value stands on this line');
  if (type === TYPE_CODES.TXT || type === TYPE_CODES.SPF) return quoted(value);
  if (type === TYPE_CODES.CAA)
    return value.replace(/^(\d+)\s+(\w+)\s+([^"\s][^]*)$/, (_, flags: string, tag: string, rest: string) => `${flags} ${tag} ${quoted(rest)}`);
  const words = value.split(/\s+/);
  const wanted = NUMBERED[type] ?? 0;
  const there = words.findIndex((word) => !/^\d+$/.test(word));
  const own = numbers.filter((number) => /^\d+$/.test(number));
  const missing = wanted - Math.max(0, there);
  if (missing > 0 && own.length > 0) words.unshift(...own.slice(0, missing));
  if (wanted > 0 && words.findIndex((word) => !/^\d+$/.test(word)) < wanted) {
    if (type !== TYPE_CODES.MX) throw new RangeError(`a ${typeMnemonic(type)} value begins with ${wanted} numbers`);
    words.unshift('10');
    guesses.push('preference 10, as none stands there');
  }
  if (ENDS_IN_NAME.has(type)) words[words.length - 1] = targetText(words.at(-1)!, zone, guesses);
  return words.join(' ');
}

/** A target with a dot in it is taken for a whole name, as panels mean it; one without is relative. */
function targetText(target: string, zone: Name, guesses: string[]): string {
  if (target === '@') return zone.toString();
  if (target.endsWith('.') || !target.includes('.')) return target;
  guesses.push(`${target} is taken for a whole name`);
  return `${target}.`;
}

/** A text as a panel shows it, in quotes or not, as strings of at most 255 octets. */
function quoted(value: string): string {
  if (/^"(?:[^"\\]|\\.)*"(\s+"(?:[^"\\]|\\.)*")*$/.test(value)) return value;
  const plain = value.replace(/^"([\s\S]*)"$/, '$1');
  return quotedText(plain);
}
