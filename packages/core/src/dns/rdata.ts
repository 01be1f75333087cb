import { ByteReader, ByteWriter, UnknownCodeError, WireError, decodeHex, toHex, utf8 } from './bytes';
import { Name } from './name';
import { RecordType, decimalOf, readNumber } from './recordType';
import { Scanner } from './scanner';
import { Words, fail } from './token';
import { typeMnemonic } from './typeNames';
import { RECORD_TYPES } from './types';

/**
 * Reads a record's data from words: the type's own form, or RFC 3597's `\# length hex` for any type.
 * Throws a TextError at the word that is wrong.
 */
export function parseRdataWords(type: number, words: Words, origin: Name): Uint8Array {
  const first = words.peek();
  if (isGeneric(words)) return parseGeneric(words);
  const known = RECORD_TYPES.get(type);
  if (!known) fail(words.take('data'), `data of type ${typeMnemonic(type)} is written as \\# length hex`);
  PARSED.cut(0);
  for (const field of known.fields) field.parse(words, origin, PARSED);
  words.end(known.mnemonic);
  const data = PARSED.done();
  if (data.length > 0xffff) fail(first ?? words.endToken, 'record data is over 65,535 octets');
  return data;
}

/** True where data that comes next is written as RFC 3597 has it: `\#` and a number. Without the number it is text. */
export function isGeneric(words: Words): boolean {
  const first = words.peek();
  if (!first || first.quoted || first.length !== 2 || first.source[first.start] !== 92 || first.source[first.start + 1] !== 35) return false;
  const second = words.peek(1);
  return second !== undefined && decimalOf(second) !== undefined;
}

/** What a message of 65,535 octets leaves after its header and the shortest owner, type, class, TTL and length (RFC 1035 §4.1). */
const LARGEST = 65_535 - 12 - 11;

/** Why a server would not take data for its type, though it can be carried; undefined where it would. */
export function rdataProblem(type: number, data: Uint8Array): string | undefined {
  if (data.length > LARGEST) return `data of over ${LARGEST} octets fits into no message`;
  const known = RECORD_TYPES.get(type);
  if (!known) return undefined;
  PRINTED.cut(0);
  const wrong = writeKnown(known, data, PRINTED);
  // What a later standard may define is kept as it is (RFC 3597 §5).
  if (wrong instanceof UnknownCodeError) return undefined;
  if (wrong) return `this is no data of type ${known.mnemonic}`;
  try {
    known.check?.(data);
    return undefined;
  } catch (error) {
    if (error instanceof WireError) return error.message;
    throw error;
  }
}

/** For data being read or printed; no field calls what uses these. */
const PARSED = new ByteWriter(1024);
const PRINTED = new ByteWriter(1024);
const CANONICAL = new ByteWriter(1024);

/** Reads one record's data from a line of text, as typed in the ledger. Throws a TextError. */
export function parseRdata(type: number, text: string, origin: Name = Name.root): Uint8Array {
  return parseRdataWords(type, oneLine(text), origin);
}

/** Prints data so that it reads back to the same octets; what its type cannot express prints as RFC 3597. */
export function printRdata(type: number, data: Uint8Array): string {
  PRINTED.cut(0);
  writeRdataText(type, data, PRINTED);
  return PRINTED.text();
}

/** As printRdata, into `out`. */
export function writeRdataText(type: number, data: Uint8Array, out: ByteWriter): void {
  const known = RECORD_TYPES.get(type);
  const from = out.length;
  if (known && !writeKnown(known, data, out)) return;
  out.cut(from);
  writeGeneric(data, out);
}

/** RFC 3597 §5 */
export function writeGeneric(data: Uint8Array, out: ByteWriter): void {
  out.ascii('\\# ');
  out.decimal(data.length);
  if (data.length > 0) out.ascii(` ${toHex(data).toUpperCase()}`);
}

/** Prints the fields of a type with blanks between them; gives what is wrong where the data does not fit it. */
function writeKnown(known: RecordType, data: Uint8Array, out: ByteWriter): WireError | undefined {
  const from = out.length;
  const reader = new ByteReader(data);
  try {
    let begin = from;
    for (const field of known.fields) {
      if (out.length > begin) out.u8(32);
      begin = out.length;
      field.print(reader, out);
    }
    if (out.length === begin && begin > from) out.cut(begin - 1);
  } catch (error) {
    if (error instanceof WireError) return error;
    throw error;
  }
  return reader.left === 0 ? undefined : new WireError('there are octets to spare');
}

/** The names that the data holds, in their order; none where the data does not fit its type. */
export function namesIn(type: number, data: Uint8Array): Name[] {
  const known = RECORD_TYPES.get(type);
  if (!known || known.plain) return [];
  try {
    const reader = new ByteReader(data);
    return known.fields.flatMap((field) => field.names(reader));
  } catch (error) {
    if (error instanceof WireError) return [];
    throw error;
  }
}

/**
 * Data as it stands in a message, without compression (RFC 3597 §4 names the types that may be compressed). Lengths
 * inside must fit; what values mean is not looked at, so that odd data is kept and not lost. Throws a WireError.
 */
export function expandRdata(type: number, message: ByteReader, length: number): Uint8Array {
  const end = message.at + length;
  if (end > message.data.length) throw new WireError('record data runs past the end');
  const known = RECORD_TYPES.get(type);
  if (!known || length === 0) return message.bytes(length);
  const start = message.at;
  const bound = message.end;
  message.end = end;
  if (known.plain) {
    for (const field of known.fields) field.skip!(message);
    if (message.at !== end) throw new WireError('record data is longer than its type allows');
    message.at = start;
    message.end = bound;
    return message.bytes(length);
  }
  PARSED.cut(0);
  for (const field of known.fields) field.expand(message, PARSED);
  if (message.at !== end) throw new WireError('record data is longer than its type allows');
  message.end = bound;
  return PARSED.done();
}

/** Data with its names in lower case where RFC 4034 §6.2 asks for it: two data that a server takes as one compare equal. */
export function canonicalRdata(type: number, data: Uint8Array): Uint8Array {
  const known = RECORD_TYPES.get(type);
  if (!known?.lowerNames) return data;
  try {
    const reader = new ByteReader(data);
    const out = CANONICAL;
    out.cut(0);
    for (const field of known.fields) {
      const from = reader.at;
      const names = field.names(reader);
      // Names stand at the end of a field that holds more than a name.
      out.slice(data, from, reader.at - names.reduce((sum, name) => sum + name.size, 0));
      for (const name of names) name.lower.write(out);
    }
    return reader.left === 0 ? out.done() : data;
  } catch (error) {
    if (error instanceof WireError) return data;
    throw error;
  }
}

/** `\# length hex`, for whatever octets there are: data that its type should not have must read back as well. */
function parseGeneric(words: Words): Uint8Array {
  words.take('\\#');
  const lengthWord = words.take('the length');
  const length = readNumber(lengthWord, 'the length', 0xffff);
  const { first, octets } = words.left > 0 ? words.joined('hexadecimal digits') : { first: lengthWord, octets: new Uint8Array(0) };
  let data: Uint8Array;
  try {
    data = decodeHex(octets);
  } catch (error) {
    if (error instanceof WireError) fail(first, error.message);
    throw error;
  }
  if (data.length !== length) fail(lengthWord, `${length} octets were announced, ${data.length} stand there`);
  return data;
}

function oneLine(text: string): Words {
  const scanner = new Scanner();
  scanner.feed(utf8(text));
  const words = new Words();
  if (scanner.next(words, true) === 'end') return words;
  const second = new Words();
  if (scanner.next(second, true) === 'entry') fail(second.take('a word'), 'the data of a record stands on one line');
  return words;
}
