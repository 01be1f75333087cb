import { ByteReader, ByteWriter, WireError, fromHex, toHex } from './bytes';
import { Name } from './name';
import { Token, TokenReader, entries, fail } from './token';
import { RECORD_TYPES } from './types';

/**
 * Reads a record's data from words: the type's own form, or RFC 3597's `\# length hex` for any type.
 * Throws a TextError at the word that is wrong.
 */
export function parseRdataWords(type: number, words: TokenReader, origin: Name): Uint8Array {
  if (words.peek()?.text === '\\#' && !words.peek()?.quoted) return parseGeneric(type, words);
  const known = RECORD_TYPES.get(type);
  if (!known) fail(words.take('data'), 'data of a type without a text form of its own is written as \\# length hex');
  const out = new ByteWriter();
  for (const field of known.fields) field.parse(words, origin, out);
  const extra = words.peek();
  if (extra) fail(extra, `${extra.text} is more than ${known.mnemonic} takes`);
  return checkLength(out.done());
}

/** Reads one record's data from a line of text, as typed in the ledger. */
export function parseRdata(type: number, text: string, origin: Name = Name.root): Uint8Array {
  const tokens: Token[] = [];
  for (const entry of entries(text)) tokens.push(...entry.tokens);
  return parseRdataWords(type, new TokenReader(tokens, { line: 1, column: text.length + 1 }), origin);
}

/** Prints data so that it reads back to the same octets; what its type cannot express prints as RFC 3597. */
export function printRdata(type: number, data: Uint8Array): string {
  const known = RECORD_TYPES.get(type);
  if (known) {
    try {
      const reader = new ByteReader(data);
      const text = known.fields.map((field) => field.print(reader)).join(' ');
      if (reader.left === 0) return text.trimEnd();
    } catch (error) {
      if (!(error instanceof WireError)) throw error;
    }
  }
  return data.length === 0 ? '\\# 0' : `\\# ${data.length} ${toHex(data).toUpperCase()}`;
}

/** The names that the data holds, in their order; none where the data does not fit its type. */
export function namesIn(type: number, data: Uint8Array): Name[] {
  const known = RECORD_TYPES.get(type);
  if (!known) return [];
  try {
    const reader = new ByteReader(data);
    return known.fields.flatMap((field) => field.names(reader));
  } catch (error) {
    if (error instanceof WireError) return [];
    throw error;
  }
}

/** Data as it stands in a message, without compression (RFC 3597 §4 names the types that may be compressed). */
export function expandRdata(type: number, message: ByteReader, length: number): Uint8Array {
  const end = message.at + length;
  if (end > message.data.length) throw new WireError('record data runs past the end');
  const known = RECORD_TYPES.get(type);
  if (!known || length === 0) return message.bytes(length);
  const inner = new ByteReader(message.data, message.at, end);
  if (known.plain) {
    for (const field of known.fields) field.skip!(inner);
    if (inner.at !== end) throw new WireError('record data is longer than its type allows');
    return message.bytes(length);
  }
  const out = new ByteWriter();
  for (const field of known.fields) field.expand(inner, out);
  if (inner.at !== end) throw new WireError('record data is longer than its type allows');
  message.at = end;
  return out.done();
}

/** Data with its names in lower case where RFC 4034 §6.2 asks for it: two data that a server takes as one compare equal. */
export function canonicalRdata(type: number, data: Uint8Array): Uint8Array {
  const known = RECORD_TYPES.get(type);
  if (!known?.lowerNames) return data;
  try {
    const reader = new ByteReader(data);
    const out = new ByteWriter();
    for (const field of known.fields) {
      const from = reader.at;
      const names = field.names(reader);
      if (names.length === 0) out.bytes(data.subarray(from, reader.at));
      else for (const name of names) name.lower.write(out);
    }
    return reader.left === 0 ? out.done() : data;
  } catch (error) {
    if (error instanceof WireError) return data;
    throw error;
  }
}

function parseGeneric(type: number, words: TokenReader): Uint8Array {
  words.take('\\#');
  const lengthWord = words.take('the length');
  const length = /^\d{1,5}$/.test(lengthWord.text) ? Number(lengthWord.text) : fail(lengthWord, 'the length must be a number');
  const digits = words.left > 0 ? words.takeJoined('hexadecimal digits') : { ...lengthWord, text: '' };
  let data: Uint8Array;
  try {
    data = fromHex(digits.text);
  } catch (error) {
    if (error instanceof WireError) fail(digits, error.message);
    throw error;
  }
  if (data.length !== length) fail(lengthWord, `${length} octets were announced, ${data.length} stand there`);
  if (RECORD_TYPES.has(type) && length > 0) {
    try {
      expandRdata(type, new ByteReader(data), length);
    } catch (error) {
      if (error instanceof WireError) fail(lengthWord, `this is no data of the type: ${error.message}`);
      throw error;
    }
  }
  return checkLength(data);
}

function checkLength(data: Uint8Array): Uint8Array {
  if (data.length > 0xffff) throw new WireError('record data is over 65,535 octets');
  return data;
}
