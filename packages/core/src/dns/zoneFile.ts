import { ByteWriter, utf8 } from './bytes';
import { Name } from './name';
import { readName } from './fields';
import { isGeneric, parseRdataWords, rdataProblem, writeRdataText } from './rdata';
import { CLASS_IN, ResourceRecord } from './record';
import { GENERATE_LIMIT, fillTemplate, parseRange } from './generate';
import { Scanner } from './scanner';
import { TextError, Token, Words, fail } from './token';
import { effectiveTtl, ttlOf } from './ttl';
import { TYPE_CODES, typeCode, typeMnemonic } from './typeNames';
import { RECORD_TYPES } from './types';

export interface Place {
  readonly line: number;
  readonly column: number;
  /** The included file, as it was named; absent for the file itself. */
  readonly file?: string;
}

/** What could not be read (`error`), or was read in a way that may surprise (`warning`). */
export interface ZoneFileFinding extends Place {
  readonly severity: 'error' | 'warning';
  readonly code: string;
  readonly message: string;
}

/** Where records begin, a million of them in a few megabytes. */
export class Places {
  private readonly lines: number[] = [];
  private readonly columns: number[] = [];
  private readonly files = new Map<number, string>();

  add(line: number, column: number, file: string | undefined): void {
    if (file !== undefined) this.files.set(this.lines.length, file);
    this.lines.push(line);
    this.columns.push(column);
  }

  at(index: number): Place {
    const place = { line: this.lines[index] ?? 1, column: this.columns[index] ?? 1 };
    const file = this.files.get(index);
    return file === undefined ? place : { ...place, file };
  }
}

export interface ZoneFile {
  readonly records: readonly ResourceRecord[];
  /** Where each record begins, in the order of `records`. */
  readonly places: Places;
  /** Every entry that could not be read; the others stand in `records`. */
  readonly findings: readonly ZoneFileFinding[];
}

export interface ZoneFileOptions {
  /** Gives the octets of a file that $INCLUDE names, or why it may not be had. Without it $INCLUDE is a finding. */
  readonly include?: (file: string) => { readonly octets: Uint8Array } | { readonly problem: string };
}

/** What a ZoneReader tells of a file as it reads it. */
export interface ZoneFileEvents {
  record(record: ResourceRecord, line: number, column: number, file: string | undefined): void;
  finding(finding: ZoneFileFinding): void;
}

/** How deep files may include files. */
const INCLUDE_DEPTH = 10;

/**
 * Reads a zone file (RFC 1035 §5, RFC 2308 §4 for $TTL) that comes in pieces, and holds no more of it than one entry.
 * A bad entry is a finding and the reading goes on; so is every further one, each with its place.
 */
export class ZoneReader {
  private readonly words = new Words();
  private readonly scanner = new Scanner();
  private readonly state: State;

  constructor(apex: Name, events: ZoneFileEvents, options: ZoneFileOptions = {}) {
    this.state = {
      apex,
      events,
      include: options.include,
      origin: apex,
      owner: undefined,
      outside: false,
      ttl: undefined,
      lastTtl: undefined,
      file: undefined,
      depth: 0,
    };
  }

  write(piece: Uint8Array): void {
    this.scanner.feed(piece);
    readEntries(this.scanner, this.words, this.state, false);
  }

  end(): void {
    readEntries(this.scanner, this.words, this.state, true);
  }
}

/** Reads a zone file that is there as a whole. */
export function parseZoneFile(text: string | Uint8Array, apex: Name, options: ZoneFileOptions = {}): ZoneFile {
  const gathered = gatherZone();
  const reader = new ZoneReader(apex, gathered, options);
  reader.write(typeof text === 'string' ? utf8(text) : text);
  reader.end();
  return gathered.file;
}

/** Events that put a ZoneFile together. */
export function gatherZone(): ZoneFileEvents & { readonly file: ZoneFile } {
  const records: ResourceRecord[] = [];
  const places = new Places();
  const findings: ZoneFileFinding[] = [];
  return {
    file: { records, places, findings },
    record(record, line, column, file) {
      records.push(record);
      places.add(line, column, file);
    },
    finding: (finding) => void findings.push(finding),
  };
}

/** One record a line, absolute names, in the order given. */
export function printZoneFile(records: Iterable<ResourceRecord>): string {
  const out = new ByteWriter(4096);
  for (const record of records) printRecord(record, out);
  return out.text();
}

/** One line of a zone file. */
export function printRecord(record: ResourceRecord, out: ByteWriter): void {
  record.owner.print(out);
  out.u8(32);
  out.decimal(record.ttl);
  out.ascii(' IN ');
  out.ascii(typeMnemonic(record.type));
  out.u8(32);
  writeRdataText(record.type, record.data, out);
  out.u8(10);
}

interface State {
  readonly apex: Name;
  readonly events: ZoneFileEvents;
  readonly include: ZoneFileOptions['include'] | undefined;
  origin: Name;
  owner: Name | undefined;
  /** The owner is outside of the zone: servers leave such records out, and do not ask for their TTL. */
  outside: boolean;
  /** From $TTL, or the SOA where it had none. */
  ttl: number | undefined;
  /** Of the record before. */
  lastTtl: number | undefined;
  file: string | undefined;
  depth: number;
}

function readEntries(scanner: Scanner, words: Words, state: State, last: boolean): void {
  for (;;) {
    try {
      if (scanner.next(words, last) !== 'entry') return;
      readEntry(words, state);
    } catch (error) {
      if (!(error instanceof TextError)) throw error;
      report(state, error.line, error.column, 'error', 'syntax', error.message);
    }
  }
}

function report(state: State, line: number, column: number, severity: ZoneFileFinding['severity'], code: string, message: string): void {
  state.events.finding({ line, column, severity, code, message, ...(state.file === undefined ? {} : { file: state.file }) });
}

function readEntry(words: Words, state: State): void {
  const first = words.peek()!;
  const { line } = first;
  // Most records begin where their line does; counting characters is for the others.
  const column = first.start === first.lineStart ? 1 : first.column;
  if (!words.sameOwner) {
    if (first.source[first.start] === DOLLAR) return directive(words, state);
    // An owner that cannot be read must not lend its records to the owner before it.
    state.owner = undefined;
    const owner = readName(words.take('the owner name'), state.origin);
    state.owner = owner;
    state.outside = !owner.isAtOrBelow(state.apex);
  }
  const { owner } = state;
  if (!owner) fail(first, 'the record has no owner name, and none stands before it');
  const { type, ttl, word } = readHead(words, state);
  const dataWord = words.peek();
  const unsure = isGeneric(words) || RECORD_TYPES.get(type)?.check !== undefined;
  const data = parseRdataWords(type, words, state.origin);
  const problem = unsure || data.length > 60_000 ? rdataProblem(type, data) : undefined;
  if (problem !== undefined) report(state, dataWord!.line, dataWord!.column, 'error', 'bad-data', problem);
  keep(state, owner, type, ttl, data, word, line, column);
}

const DOLLAR = 36;

const CLASSES: ReadonlyMap<string, number> = new Map([
  ['IN', CLASS_IN],
  ['CH', 3],
  ['CHAOS', 3],
  ['HS', 4],
  ['HESIOD', 4],
  ['NONE', 254],
  ['ANY', 255],
]);

function classOf(token: Token): number | undefined {
  if (token.quoted) return undefined;
  return looked(CLASS_WORDS, token, (text) => {
    const upper = text.toUpperCase();
    const generic = /^CLASS(\d{1,5})$/.exec(upper);
    return generic ? Number(generic[1]) : CLASSES.get(upper);
  });
}

/** A zone has few words for classes and types: short ones are looked up once, by their octets packed into a number. */
function looked(words: Map<number, number | undefined>, word: Token, look: (text: string) => number | undefined): number | undefined {
  const { source, start, end } = word;
  if (end - start > 6) return look(word.text);
  let packed = 0;
  for (let i = start; i < end; i++) packed = packed * 256 + source[i]!;
  const found = words.get(packed);
  if (found !== undefined || words.has(packed)) return found;
  const made = look(word.text);
  if (words.size < 10_000) words.set(packed, made);
  return made;
}

const CLASS_WORDS = new Map<number, number | undefined>();
const TYPE_WORDS = new Map<number, number | undefined>();

interface Head {
  readonly type: number;
  readonly ttl: number | undefined;
  /** The type's word. */
  readonly word: Token;
}

/** TTL and class in either order, then the type. */
function readHead(words: Words, state: State): Head {
  let ttl: number | undefined;
  let cls: number | undefined;
  let classWord: Token | undefined;
  for (let left = 2; left > 0; left--) {
    const word = words.peek();
    if (!word) break;
    const first = word.source[word.start]!;
    if (ttl === undefined && first >= 48 && first <= 57) {
      const value = ttlOf(word);
      if (value === undefined) break;
      ttl = limited(value, word, state);
    } else {
      const value = cls === undefined ? classOf(word) : undefined;
      if (value === undefined) break;
      cls = value;
      classWord = word;
    }
    words.take('the type');
  }
  const word = words.bare('the record type');
  const type = looked(TYPE_WORDS, word, typeCode);
  if (type === undefined) fail(word, `${word.text} is not a record type`);
  if (cls !== undefined && cls !== CLASS_IN) fail(classWord!, 'only class IN is served');
  if ((type >= 128 && type <= 255) || type === TYPE_CODES.OPT || type === 0) fail(word, `${typeMnemonic(type)} cannot stand in a zone`);
  if (type === TYPE_CODES.MD || type === TYPE_CODES.MF)
    report(state, word.line, word.column, 'error', 'obsolete-type', `${typeMnemonic(type)} is obsolete and no longer loaded; MX took its place`);
  return { type, ttl, word };
}

/** RFC 2181 §8: a TTL has 31 bits; a larger one counts as 0. */
function limited(ttl: number, word: Token, state: State): number {
  const effective = effectiveTtl(ttl);
  if (effective !== ttl) report(state, word.line, word.column, 'warning', 'ttl-too-large', `the TTL ${word.text} is over 2147483647 and counts as 0`);
  return effective;
}

/** RFC 1035 leaves out the TTL for "same as before", RFC 2308 §4 for $TTL; without either, a first SOA gives its minimum. */
function keep(state: State, owner: Name, type: number, ttl: number | undefined, data: Uint8Array, word: Token, line: number, column: number): void {
  if (ttl !== undefined) state.lastTtl = ttl;
  let resolved = ttl ?? state.ttl ?? state.lastTtl;
  if (resolved === undefined && type === TYPE_CODES.SOA && !state.outside) {
    const minimum = new DataView(data.buffer, data.byteOffset).getUint32(data.length - 4);
    resolved = state.ttl = limited(minimum, word, state);
    report(state, line, column, 'warning', 'no-ttl', `no TTL is given: the minimum of the SOA, ${resolved}, counts`);
  }
  if (resolved === undefined) {
    if (!state.outside) fail(word, 'no TTL is given and there is no $TTL');
    resolved = 0;
  }
  state.events.record({ owner, type, cls: CLASS_IN, ttl: resolved, data }, line, column, state.file);
}

function directive(words: Words, state: State): void {
  const word = words.take('a directive');
  switch (word.text.toUpperCase()) {
    case '$ORIGIN': {
      const origin = readName(words.bare('a name after $ORIGIN'), state.origin);
      words.end('$ORIGIN');
      state.origin = origin;
      return;
    }
    case '$TTL': {
      const value = words.bare('a TTL after $TTL');
      const ttl = ttlOf(value);
      if (ttl === undefined) fail(value, `${value.text} is not a TTL`);
      words.end('$TTL');
      state.ttl = limited(ttl, value, state);
      return;
    }
    case '$DATE':
      // Written by some servers into their own files; it tells when, and changes nothing.
      if (!/^\d{14}$/.test(words.bare('a date after $DATE').text)) fail(word, 'a date after $DATE is like 20300101120000');
      return words.end('$DATE');
    case '$INCLUDE':
      return include(word, words, state);
    case '$GENERATE':
      return generate(words, state);
    default:
      fail(word, `${word.text} is not read here`);
  }
}

/** RFC 1035 §5.1: origin and owner are afterwards what they were before. */
function include(word: Token, words: Words, state: State): void {
  const name = words.take('a file name after $INCLUDE');
  const origin = words.left > 0 ? readName(words.bare('an origin'), state.origin) : state.origin;
  words.end('$INCLUDE');
  if (!state.include) fail(word, '$INCLUDE is not read here');
  if (state.depth >= INCLUDE_DEPTH) fail(word, `files include each other more than ${INCLUDE_DEPTH} deep`);
  const got = state.include(name.text);
  if ('problem' in got) fail(name, got.problem);
  const inner: State = { ...state, origin, file: name.text, depth: state.depth + 1 };
  const scanner = new Scanner();
  scanner.feed(got.octets);
  readEntries(scanner, new Words(), inner, true);
  // TTLs go on from where the file left them (RFC 2308 §4 sets no end to $TTL).
  state.ttl = inner.ttl;
  state.lastTtl = inner.lastTtl;
}

/** `$GENERATE range owner [ttl] [class] type data`: a record for every step of a range, as bind reads it. */
function generate(words: Words, state: State): void {
  const rangeWord = words.bare('a range after $GENERATE');
  const { line, column } = rangeWord;
  const range = parseRange(rangeWord.text);
  if (!range) fail(rangeWord, `${rangeWord.text} is not a range like 1-10 or 0-100/2`);
  if ((range.stop - range.start) / range.step >= GENERATE_LIMIT) fail(rangeWord, `a range makes at most ${GENERATE_LIMIT} records`);
  const ownerWord = words.bare('the owner name');
  const { type, ttl, word } = readHead(words, state);
  const dataWord = words.take('the data');
  const extra = words.peek();
  if (extra) fail(extra, 'data of more than one word is quoted');
  const [ownerTemplate, dataTemplate] = [ownerWord.text, dataWord.text];
  const owner = state.owner;
  const outside = state.outside;
  for (let counter = range.start; counter <= range.stop; counter += range.step) {
    const filled = fillTemplate(ownerTemplate, counter);
    const text = fillTemplate(dataTemplate, counter);
    if (filled === undefined) fail(ownerWord, `${ownerTemplate} cannot be filled in`);
    if (text === undefined) fail(dataWord, `${dataTemplate} cannot be filled in`);
    const name = placed(ownerWord, () => {
      const octets = utf8(filled);
      return readName(Object.assign(new Token(), { source: octets, end: octets.length }), state.origin);
    });
    state.outside = !name.isAtOrBelow(state.apex);
    if (state.outside) {
      report(state, line, column, 'warning', 'out-of-zone', `${name.toString()} is outside the zone and is left out`);
      continue;
    }
    const data = placed(dataWord, () => {
      const scanner = new Scanner();
      scanner.feed(utf8(text));
      const inner = new Words();
      scanner.next(inner, true);
      return parseRdataWords(type, inner, state.origin);
    });
    keep(state, name, type, ttl, data, word, line, column);
  }
  state.owner = owner;
  state.outside = outside;
}

/** Gives errors in generated text the place of the word that it was generated from. */
function placed<T>(word: Token, read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (error instanceof TextError) fail(word, error.message);
    throw error;
  }
}
