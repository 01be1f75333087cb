import { Name } from './name';
import { readName } from './fields';
import { parseRdataWords, printRdata } from './rdata';
import { CLASS_IN, ResourceRecord } from './record';
import { Entry, TextError, TokenReader, entries } from './token';
import { parseTtl } from './ttl';
import { TYPE_CODES, typeCode, typeMnemonic } from './typeNames';

export interface ZoneFileFinding {
  readonly line: number;
  readonly column: number;
  readonly message: string;
}

export interface Place {
  readonly line: number;
  readonly column: number;
}

export interface ZoneFile {
  readonly records: readonly ResourceRecord[];
  /** Where each record begins, in the order of `records`. */
  readonly places: readonly Place[];
  /** Every entry that could not be read; the others stand in `records`. */
  readonly findings: readonly ZoneFileFinding[];
}

/**
 * Reads a zone file (RFC 1035 §5, RFC 2308 §4 for $TTL). A bad entry is a finding and the reading goes on.
 * $INCLUDE and $GENERATE are findings: this reader takes no other file and makes no records up.
 */
export function parseZoneFile(text: string, origin: Name): ZoneFile {
  const records: ResourceRecord[] = [];
  const places: Place[] = [];
  const findings: ZoneFileFinding[] = [];
  const state: State = { origin, owner: undefined, ttl: undefined, lastTtl: undefined };
  try {
    for (const entry of entries(text)) {
      try {
        const record = readEntry(entry, state);
        if (!record) continue;
        records.push(record);
        places.push({ line: entry.tokens[0]!.line, column: entry.tokens[0]!.column });
      } catch (error) {
        if (!(error instanceof TextError)) throw error;
        findings.push({ line: error.line, column: error.column, message: error.message });
      }
    }
  } catch (error) {
    if (!(error instanceof TextError)) throw error;
    findings.push({ line: error.line, column: error.column, message: error.message });
  }
  return { records, places, findings };
}

/** One record a line, absolute names, in the order given. */
export function printZoneFile(records: Iterable<ResourceRecord>): string {
  let text = '';
  for (const record of records) {
    text += `${record.owner.toString()} ${record.ttl} IN ${typeMnemonic(record.type)} ${printRdata(record.type, record.data)}\n`;
  }
  return text;
}

interface State {
  origin: Name;
  owner: Name | undefined;
  ttl: number | undefined;
  lastTtl: number | undefined;
}

function readEntry(entry: Entry, state: State): ResourceRecord | undefined {
  const words = new TokenReader(entry.tokens, entry.end);
  const first = entry.tokens[0]!;
  if (!entry.sameOwner && !first.quoted && first.text.startsWith('$')) {
    directive(words, state);
    return undefined;
  }
  if (!entry.sameOwner) state.owner = readName(words.take('the owner name'), state.origin);
  if (!state.owner) throw new TextError('the first record has no owner name', first.line, first.column);
  let ttl: number | undefined;
  let sawClass = false;
  for (;;) {
    const word = words.peek();
    if (!word) break;
    const asTtl = ttl === undefined && !word.quoted ? parseTtl(word.text) : undefined;
    if (asTtl !== undefined) ttl = asTtl;
    else if (!sawClass && /^(IN|CLASS1)$/i.test(word.text)) sawClass = true;
    else if (!sawClass && /^(CH|HS|CS)$/i.test(word.text)) throw new TextError('only class IN is served', word.line, word.column);
    else break;
    words.take('the type');
  }
  const typeWord = words.take('the record type');
  const type = typeCode(typeWord.text);
  if (type === undefined) throw new TextError(`${typeWord.text} is not a record type`, typeWord.line, typeWord.column);
  if ((type >= 249 && type <= 255) || type === TYPE_CODES.OPT)
    throw new TextError(`${typeMnemonic(type)} cannot stand in a zone`, typeWord.line, typeWord.column);
  const data = parseRdataWords(type, words, state.origin);
  // RFC 1035 leaves out the TTL for "same as before", RFC 2308 §4 for $TTL; a first SOA gives its minimum.
  const soaMinimum = type === TYPE_CODES.SOA ? new DataView(data.buffer, data.byteOffset).getUint32(data.length - 4) : undefined;
  const resolved = ttl ?? state.ttl ?? state.lastTtl ?? soaMinimum;
  if (resolved === undefined) throw new TextError('no TTL is given and there is no $TTL', typeWord.line, typeWord.column);
  state.lastTtl = resolved;
  return { owner: state.owner, type, cls: CLASS_IN, ttl: resolved, data };
}

function directive(words: TokenReader, state: State): void {
  const word = words.take('a directive');
  switch (word.text.toUpperCase()) {
    case '$ORIGIN':
      state.origin = readName(words.take('a name after $ORIGIN'), state.origin);
      return;
    case '$TTL': {
      const value = words.take('a TTL after $TTL');
      const ttl = parseTtl(value.text);
      if (ttl === undefined) throw new TextError(`${value.text} is not a TTL`, value.line, value.column);
      state.ttl = ttl;
      return;
    }
    default:
      throw new TextError(`${word.text} is not read here`, word.line, word.column);
  }
}
