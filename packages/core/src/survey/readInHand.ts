import { utf8 } from '../dns/bytes';
import { Name, NameError } from '../dns/name';
import { ResourceRecord, groupRecords, RRset } from '../dns/record';
import { readSoa } from '../dns/soa';
import { TYPE_CODES, typeCode } from '../dns/typeNames';
import { ZoneReader, gatherZone } from '../dns/zoneFile';
import { Column, TableReading, readTable } from './readTable';

/** One thing that was read, for the preview. */
export interface InHandRow {
  /** Counts from 1. */
  readonly line: number;
  readonly name: Name;
  /** The other way to read the name. */
  readonly otherName: Name | undefined;
  /** Absent where only a name was given. */
  readonly record: ResourceRecord | undefined;
  readonly guesses: readonly string[];
}

export interface InHand {
  readonly kind: 'zone file' | 'table' | 'names' | 'mail';
  readonly rows: readonly InHandRow[];
  readonly bad: readonly { readonly line: number; readonly text: string; readonly problem: string }[];
  /** Of a table: what each column was taken for. */
  readonly columns: readonly Column[];
  readonly leftOut: number;
  /** Every line was read, those about names outside the zone aside. */
  readonly complete: boolean;
}

/** Records of a zone file, and lines with something amiss, after which it is not read on. */
const MOST_RECORDS = 20_000;
const MOST_BAD = 5000;
/** The most octets of text that are read. */
export const IN_HAND_LIMIT = 2_000_000;

/**
 * Understands what people have in hand about a zone: a zone file, a table pasted from a panel, a list of names, or a mail
 * with its headers, whose signatures and return path name selectors and hosts.
 */
export function readInHand(text: string, zone: Name, options: { readonly ttl: number; readonly columns?: readonly Column[] }): InHand {
  const taken = wholeLines(text);
  const reading = readTaken(taken, zone, options);
  return taken.length === text.length ? reading : { ...reading, leftOut: reading.leftOut + linesIn(text.slice(taken.length)), complete: false };
}

/** As much as is read, without a last line that would be cut in two. */
function wholeLines(text: string): string {
  if (text.length <= IN_HAND_LIMIT) return text;
  return text.slice(0, text.lastIndexOf('\n', IN_HAND_LIMIT) + 1);
}

function linesIn(text: string): number {
  let count = text.endsWith('\n') ? 0 : 1;
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) count += 1;
  return count;
}

function readTaken(taken: string, zone: Name, options: { readonly ttl: number; readonly columns?: readonly Column[] }): InHand {
  if (options.columns) return fromTable(readTable(taken, zone, options));
  if (/^(dkim-signature|return-path|received|authentication-results|message-id):/im.test(taken)) return fromMail(taken, zone);
  if (isNameList(taken)) return fromNames(taken, zone);
  const table = readTable(taken, zone, options);
  // A table row is nearly always an entry of a zone file as well; directives, parentheses and comments are of files only.
  const fileLike = looksLikeFile(taken);
  if (!fileLike && table.bad.length <= table.rows.length) return fromTable(table);
  const file = fromFile(taken, zone);
  return fileLike || file.rows.length >= table.rows.length ? file : fromTable(table);
}

function looksLikeFile(text: string): boolean {
  return text.split('\n').some((line) => /^\s*\$(ttl|origin|generate)\b/i.test(line) || /^\S*\s+(\d\w*\s+)?(IN\s+)?SOA\s.*\(/i.test(line));
}

/** The sets that were given with their data, apex SOA aside, which is the host's own. */
export function givenSets(reading: InHand): RRset[] {
  return groupRecords(reading.rows.flatMap(({ record }) => (record && record.type !== TYPE_CODES.SOA ? [record] : [])));
}

/** The serial of the zone that was given, where there is one and all that was given was read: what it proves, it proves of the whole file. */
export function givenSerial(reading: InHand, zone: Name): number | undefined {
  if (!reading.complete) return undefined;
  const soa = reading.rows.find(({ record }) => record?.type === TYPE_CODES.SOA && record.owner.equals(zone))?.record;
  return soa && readSoa(soa.data).serial;
}

function fromTable(table: TableReading): InHand {
  return {
    kind: 'table',
    rows: table.rows.map(({ line, record, guesses, otherName }) => ({ line, name: record.owner, otherName, record, guesses })),
    bad: table.bad,
    columns: table.columns,
    leftOut: table.leftOut,
    complete: table.bad.length === 0 && table.leftOut === 0,
  };
}

/** As much of a zone file was read as is. */
class Enough extends Error {
  constructor(readonly line: number) {
    super('enough was read');
  }
}

function fromFile(text: string, zone: Name): InHand {
  const lines = text.split('\n');
  if (lines.at(-1) === '') lines.pop();
  const zoneFile = gatherZone();
  const { records, places, findings } = zoneFile.file;
  const enough = (line: number): void => {
    if (records.length >= MOST_RECORDS || findings.length >= MOST_BAD) throw new Enough(line);
  };
  let read = lines.length;
  try {
    const reader = new ZoneReader(zone, {
      record: (record, line, column, file) => {
        enough(line);
        zoneFile.record(record, line, column, file);
      },
      finding: (finding) => {
        enough(finding.line);
        zoneFile.finding(finding);
      },
    });
    reader.write(utf8(`${lines.join('\n')}\n`));
    reader.end();
  } catch (error) {
    if (!(error instanceof Enough)) throw error;
    read = error.line - 1;
  }
  const rows = records.map((record, index): InHandRow => ({ line: places.at(index).line, name: record.owner, otherName: undefined, record, guesses: [] }));
  const outside = rows.filter((row) => !row.name.isAtOrBelow(zone));
  return {
    kind: 'zone file',
    rows: rows.filter((row) => row.name.isAtOrBelow(zone)),
    bad: [
      ...findings
        .filter((finding) => finding.severity === 'error')
        .map(({ line, message }) => ({ line, text: (lines[line - 1] ?? '').slice(0, 300), problem: message })),
      ...outside.map(({ line, name }) => ({ line, text: name.toString(), problem: 'it is outside the zone' })),
    ].sort((a, b) => a.line - b.line),
    columns: [],
    leftOut: lines.length - read,
    complete: read === lines.length && findings.every((finding) => finding.severity !== 'error'),
  };
}

/** One word a line, none of them a type. */
function isNameList(text: string): boolean {
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== '');
  return lines.length > 0 && lines.every((line) => /^\s*[^\s;,|<>"]+[;,]?\s*$/.test(line) && typeCode(line.trim()) === undefined);
}

function fromNames(text: string, zone: Name): InHand {
  const rows: InHandRow[] = [];
  const bad: { line: number; text: string; problem: string }[] = [];
  const lines = text.split(/\r?\n/);
  for (const [index, raw] of lines.slice(0, MOST_RECORDS).entries()) {
    // A name copied out of an address bar or a mail address is meant as the name in it.
    const word = raw
      .trim()
      .replace(/[;,]$/, '')
      .replace(/^[a-z]+:\/\//i, '')
      .replace(/\/.*$/, '')
      .replace(/^.*@(?=.)/, '');
    if (word === '') continue;
    try {
      rows.push({ line: index + 1, ...nameIn(word, zone), record: undefined, guesses: [] });
    } catch (error) {
      if (!(error instanceof NameError) && !(error instanceof RangeError)) throw error;
      bad.push({ line: index + 1, text: raw.trim().slice(0, 300), problem: error.message });
    }
  }
  return { kind: 'names', rows, bad, columns: [], leftOut: Math.max(0, lines.length - MOST_RECORDS), complete: false };
}

function nameIn(word: string, zone: Name): { name: Name; otherName: Name | undefined } {
  if (word.endsWith('.')) {
    const name = Name.parse(word);
    if (!name.isAtOrBelow(zone)) throw new RangeError('it is outside the zone');
    return { name, otherName: undefined };
  }
  const whole = word === '@' ? zone : Name.parse(`${word}.`);
  const relative = Name.parse(word, zone);
  return whole.isAtOrBelow(zone) ? { name: whole, otherName: word === '@' ? undefined : relative } : { name: relative, otherName: undefined };
}

/** Selectors of signatures (RFC 6376 §3.5, §3.6.2.1) and the domain that bounces go to, where they are of this zone. */
function fromMail(text: string, zone: Name): InHand {
  const end = /\r?\n\r?\n/.exec(text)?.index ?? text.length;
  // Folded lines belong to the header before them (RFC 5322 §2.2.3).
  const headers = text.slice(0, end).split(/\r?\n(?![ \t])/);
  const rows: InHandRow[] = [];
  const bad: { line: number; text: string; problem: string }[] = [];
  let line = 1;
  for (const header of headers) {
    const unfolded = header.replace(/\r?\n[ \t]+/g, ' ');
    const found: string[] = [];
    if (/^dkim-signature:/i.test(unfolded)) {
      const tag = (name: string): string | undefined => new RegExp(`[;:]\\s*${name}\\s*=\\s*([^;\\s]+)`, 'i').exec(unfolded)?.[1];
      const [selector, domain] = [tag('s'), tag('d')];
      if (selector && domain) found.push(`${selector}._domainkey.${domain}.`);
    }
    const path = /^(?:return-path|from|sender|x-original-from):.*?@([a-z0-9._-]+)/i.exec(unfolded)?.[1];
    if (path) found.push(`${path}.`);
    for (const word of found) {
      try {
        const name = Name.parse(word);
        if (name.isAtOrBelow(zone)) rows.push({ line, name, otherName: undefined, record: undefined, guesses: [] });
        else bad.push({ line, text: word, problem: 'it is outside the zone' });
      } catch (error) {
        if (!(error instanceof NameError)) throw error;
        bad.push({ line, text: word.slice(0, 300), problem: error.message });
      }
    }
    line += header.split('\n').length;
  }
  return { kind: 'mail', rows, bad, columns: [], leftOut: 0, complete: false };
}
