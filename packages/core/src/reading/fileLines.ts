import { utf8 } from '../dns/bytes';
import { Name } from '../dns/name';
import { printRdata } from '../dns/rdata';
import { TYPE_CODES, typeMnemonic } from '../dns/typeNames';
import { ResourceRecord } from '../dns/record';
import { readSoa } from '../dns/soa';
import { ZoneReader, gatherZone } from '../dns/zoneFile';
import { Line } from './lines';

/** Records of a zone file, and lines with something amiss, after which it is not read on. */
const MOST_RECORDS = 20_000;
const MOST_BAD = 5000;

export interface FileRead {
  readonly records: readonly { readonly record: ResourceRecord; readonly line: number }[];
  readonly bad: readonly { readonly line: number; readonly problem: string }[];
  /** The first line that was not read any more. */
  readonly from: number | undefined;
}

/** As much of a zone file was read as is. */
class Enough extends Error {
  constructor(readonly line: number) {
    super('enough was read');
  }
}

/** True where a text has what only zone files have: a directive, an SOA record in brackets or in full. */
export function hasFileMarks(lines: readonly Line[]): boolean {
  return lines.some(({ text, cells }) => cells === undefined && /^\s*\$(?:ttl|origin|generate)\s|^\S*\s+(?:\d\w*\s+)?(?:IN\s+)?(?:\d\w*\s+)?SOA\s/i.test(text));
}

const DIRECTIVE = /^\s*\$[a-z]+\s/i;
/** True for a line that is an entry of its own, whatever is wrong with it. */
export function isEntry(text: string): boolean {
  return DIRECTIVE.test(text) || ENTRY_OF_A_TYPE.test(text);
}

const ENTRY_OF_A_TYPE = /^\S*\s+(?:(?:\d\w*|IN|CH|HS)\s+){0,2}[A-Z][A-Z0-9-]*\s+\S/;
const ENTRY = /^\S*\s+(?:(?:\d\w*|IN|CH|HS|CLASS\d+)\s+){0,2}[A-Z][A-Z0-9-]*(?:\s|$)/i;

/**
 * The lines of a zone file within a text: from its first directive or entry to its last, brackets over lines and comments included.
 * Undefined where there is none.
 */
export function fileRange(lines: readonly Line[]): { readonly from: number; readonly to: number } | undefined {
  let from: number | undefined;
  let to = -1;
  let depth = 0;
  for (const [index, { text, cells }] of lines.entries()) {
    if (cells !== undefined) continue;
    if (depth > 0) {
      depth = depthAfter(text, depth);
      to = index;
      continue;
    }
    if (text.trim() === '' || /^\s*;/.test(text)) continue;
    if (DIRECTIVE.test(text) || (ENTRY.test(text) && !isProse(text))) {
      from ??= index;
      to = index;
      depth = depthAfter(text, 0);
    }
  }
  return from === undefined ? undefined : { from, to };
}

/** A sentence may begin like an entry: "Add A records to your zone." */
function isProse(text: string): boolean {
  return /(?:^|\s)\p{L}{2,},? \p{L}{2,},? \p{L}{2,},? \p{L}{2,}.*[.:!?]$/u.test(text) && !text.includes('"');
}

function depthAfter(text: string, before: number): number {
  let depth = before;
  let isQuoted = false;
  for (let at = 0; at < text.length; at++) {
    const character = text[at];
    if (character === '\\') at += 1;
    else if (character === '"') isQuoted = !isQuoted;
    else if (isQuoted) continue;
    else if (character === ';') break;
    else if (character === '(') depth += 1;
    else if (character === ')') depth = Math.max(0, depth - 1);
  }
  return depth;
}

/** Reads lines as a server reads a zone file (RFC 1035 §5), each in its place. */
export function readFileLines(lines: readonly Line[], zone: Name): FileRead {
  const gathered = gatherZone();
  const { records, places, findings } = gathered.file;
  let from: number | undefined;
  const lineOf = (line: number): number => lines[line - 1]?.line ?? line;
  const enough = (line: number): void => {
    if (records.length >= MOST_RECORDS || findings.length >= MOST_BAD) throw new Enough(line);
  };
  try {
    const reader = new ZoneReader(zone, {
      record: (record, line, column, file) => {
        enough(line);
        gathered.record(record, line, column, file);
      },
      finding: (finding) => {
        enough(finding.line);
        gathered.finding(finding);
      },
    });
    reader.write(utf8(`${lines.map(({ text }) => text).join('\n')}\n`));
    reader.end();
  } catch (error) {
    if (!(error instanceof Enough)) throw error;
    from = lineOf(error.line);
  }
  return {
    records: records.map((record, index) => ({ record, line: lineOf(places.at(index).line) })),
    bad: findings.filter(({ severity }) => severity === 'error').map(({ line, message }) => ({ line: lineOf(line), problem: message })),
    from,
  };
}

/** The serial of the zone among its records. */
export function serialIn({ records }: FileRead, zone: Name): number | undefined {
  const soa = records.find(({ record }) => record.type === TYPE_CODES.SOA && record.owner.equals(zone))?.record;
  return soa && readSoa(soa.data).serial;
}

export function shownRecord({ owner, type, data }: ResourceRecord, zone: Name): { owner: string; type: string; data: string } {
  return {
    owner: owner.isAtOrBelow(zone) ? owner.relativeTo(zone) : owner.toString(),
    type: typeMnemonic(type),
    data: printRdata(type, data),
  };
}
