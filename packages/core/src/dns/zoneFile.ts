import { Name } from './name';
import { readName } from './fields';
import { parseRdataWords, printRdata } from './rdata';
import { CLASS_IN, ResourceRecord } from './record';
import { GENERATE_LIMIT, fillTemplate, parseRange } from './generate';
import { Entry, TextError, Token, TokenReader, entries } from './token';
import { parseTtl } from './ttl';
import { TYPE_CODES, typeCode, typeMnemonic } from './typeNames';

export interface ZoneFileFinding extends Place {
  readonly message: string;
}

export interface Place {
  readonly line: number;
  readonly column: number;
  /** The included file, as it was named; absent for the file itself. */
  readonly file?: string;
}

export interface ZoneFile {
  readonly records: readonly ResourceRecord[];
  /** Where each record begins, in the order of `records`. */
  readonly places: readonly Place[];
  /** Every entry that could not be read; the others stand in `records`. */
  readonly findings: readonly ZoneFileFinding[];
}

export interface ZoneFileOptions {
  /** Gives the text of a file that $INCLUDE names, or why it may not be had. Without it $INCLUDE is a finding. */
  readonly include?: (file: string) => { readonly text: string } | { readonly problem: string };
}

/** How deep files may include files. */
const INCLUDE_DEPTH = 10;

/**
 * Reads a zone file (RFC 1035 §5, RFC 2308 §4 for $TTL). A bad entry is a finding and the reading goes on; so is every
 * further one, each with its place.
 */
export function parseZoneFile(text: string, origin: Name, options: ZoneFileOptions = {}): ZoneFile {
  const state: State = {
    origin,
    owner: undefined,
    ttl: undefined,
    lastTtl: undefined,
    file: undefined,
    depth: 0,
    include: options.include,
    records: [],
    places: [],
    findings: [],
  };
  readText(text, state);
  return { records: state.records, places: state.places, findings: state.findings };
}

function readText(text: string, state: State): void {
  const report = (error: unknown): void => {
    if (!(error instanceof TextError)) throw error;
    state.findings.push({ line: error.line, column: error.column, message: error.message, ...(state.file === undefined ? {} : { file: state.file }) });
  };
  try {
    for (const entry of entries(text)) {
      try {
        readEntry(entry, state);
      } catch (error) {
        report(error);
      }
    }
  } catch (error) {
    report(error);
  }
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
  file: string | undefined;
  depth: number;
  readonly include: ZoneFileOptions['include'] | undefined;
  readonly records: ResourceRecord[];
  readonly places: Place[];
  readonly findings: ZoneFileFinding[];
}

function readEntry(entry: Entry, state: State): void {
  const words = new TokenReader(entry.tokens, entry.end);
  const first = entry.tokens[0]!;
  if (!entry.sameOwner && !first.quoted && first.text.startsWith('$')) {
    return directive(words, state);
  }
  if (!entry.sameOwner) state.owner = readName(words.take('the owner name'), state.origin);
  if (!state.owner) throw new TextError('the first record has no owner name', first.line, first.column);
  readRecord(words, state, state.owner, first);
}

/** The rest of a record after its owner: TTL and class in either order, type, data. */
function readRecord(words: TokenReader, state: State, owner: Name, place: Place): void {
  const { type, ttl, word } = readHead(words);
  const data = parseRdataWords(type, words, state.origin);
  keep(state, owner, type, ttl, data, word, place);
}

function readHead(words: TokenReader): { type: number; ttl: number | undefined; word: Token } {
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
  const word = words.take('the record type');
  const type = typeCode(word.text);
  if (type === undefined) throw new TextError(`${word.text} is not a record type`, word.line, word.column);
  if ((type >= 249 && type <= 255) || type === TYPE_CODES.OPT) throw new TextError(`${typeMnemonic(type)} cannot stand in a zone`, word.line, word.column);
  return { type, ttl, word };
}

/** RFC 1035 leaves out the TTL for "same as before", RFC 2308 §4 for $TTL; a first SOA gives its minimum. */
function keep(state: State, owner: Name, type: number, ttl: number | undefined, data: Uint8Array, word: Token, place: Place): void {
  const soaMinimum = type === TYPE_CODES.SOA ? new DataView(data.buffer, data.byteOffset).getUint32(data.length - 4) : undefined;
  const resolved = ttl ?? state.ttl ?? state.lastTtl ?? soaMinimum;
  if (resolved === undefined) throw new TextError('no TTL is given and there is no $TTL', word.line, word.column);
  state.lastTtl = resolved;
  state.records.push({ owner, type, cls: CLASS_IN, ttl: resolved, data });
  state.places.push({ line: place.line, column: place.column, ...(state.file === undefined ? {} : { file: state.file }) });
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
    case '$INCLUDE':
      return include(word, words, state);
    case '$GENERATE':
      return generate(words, state);
    default:
      throw new TextError(`${word.text} is not read here`, word.line, word.column);
  }
}

/** RFC 1035 §5.1: origin and owner are afterwards what they were before. */
function include(word: Token, words: TokenReader, state: State): void {
  const name = words.take('a file name after $INCLUDE');
  const origin = words.left > 0 ? readName(words.take('an origin'), state.origin) : state.origin;
  if (!state.include) throw new TextError('$INCLUDE is not read here', word.line, word.column);
  if (state.depth >= INCLUDE_DEPTH) throw new TextError(`files include each other more than ${INCLUDE_DEPTH} deep`, word.line, word.column);
  const got = state.include(name.text);
  if ('problem' in got) throw new TextError(got.problem, name.line, name.column);
  const before = { origin: state.origin, owner: state.owner, file: state.file };
  Object.assign(state, { origin, owner: undefined, file: name.text, depth: state.depth + 1 });
  readText(got.text, state);
  Object.assign(state, before, { depth: state.depth - 1 });
}

/** `$GENERATE range owner [ttl] [class] type data`: a record for every step of a range, as bind reads it. */
function generate(words: TokenReader, state: State): void {
  const rangeWord = words.take('a range after $GENERATE');
  const range = parseRange(rangeWord.text);
  if (!range) throw new TextError(`${rangeWord.text} is not a range like 1-10 or 0-100/2`, rangeWord.line, rangeWord.column);
  if ((range.stop - range.start) / range.step >= GENERATE_LIMIT)
    throw new TextError(`a range makes at most ${GENERATE_LIMIT} records`, rangeWord.line, rangeWord.column);
  const ownerWord = words.take('the owner name');
  const { type, ttl, word } = readHead(words);
  const dataWord = words.take('the data');
  const extra = words.peek();
  if (extra) throw new TextError('data of more than one word is quoted', extra.line, extra.column);
  for (let counter = range.start; counter <= range.stop; counter += range.step) {
    const owner = fillTemplate(ownerWord.text, counter);
    const text = fillTemplate(dataWord.text, counter);
    if (owner === undefined) throw new TextError(`${ownerWord.text} cannot be filled in`, ownerWord.line, ownerWord.column);
    if (text === undefined) throw new TextError(`${dataWord.text} cannot be filled in`, dataWord.line, dataWord.column);
    const tokens = [...entries(text)].flatMap((entry) => entry.tokens).map((token) => ({ ...token, line: dataWord.line, column: dataWord.column }));
    const data = parseRdataWords(type, new TokenReader(tokens, dataWord), state.origin);
    keep(state, readName({ ...ownerWord, text: owner }, state.origin), type, ttl, data, word, rangeWord);
  }
}
