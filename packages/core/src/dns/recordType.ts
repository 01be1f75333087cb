import { ByteReader, ByteWriter } from './bytes';
import { Name } from './name';
import { Token, Words, fail } from './token';

/** One field of a record's data: the same functions for every kind, so that a type is a list of fields. */
export interface Field {
  readonly label: string;
  /** Moves past a field that holds no name and so stands in a message as it is; absent where there may be one. Throws a WireError. */
  readonly skip?: (message: ByteReader) => void;
  /** Text to octets; `origin` completes relative names. Throws a TextError at the word that is wrong. */
  parse(words: Words, origin: Name, out: ByteWriter): void;
  /** Octets (without compression) to text, as a server prints it; nothing for a field that is left out. */
  print(data: ByteReader, out: ByteWriter): void;
  /** From a message to octets without compression. */
  expand(message: ByteReader, out: ByteWriter): void;
  /** The names inside, for targets and canonical form. Moves `data` past the field. */
  names(data: ByteReader): Name[];
}

export interface RecordType {
  readonly code: number;
  readonly mnemonic: string;
  readonly fields: readonly Field[];
  /** No field can hold a name: the data stands in a message as it is. */
  readonly plain: boolean;
  /** Names in the data are lower-cased in canonical form (RFC 4034 §6.2, RFC 6840 §5.1). */
  readonly lowerNames: boolean;
  /** Names in the data may be compressed when a message is written: the types of RFC 1035 (RFC 3597 §4). */
  readonly compressed: boolean;
  /** A rule by which servers refuse data that its fields allow; throws a WireError with what is wrong. */
  readonly check: ((data: Uint8Array) => void) | undefined;
}

/** `lowered`: names are lower-cased in canonical form; `compressed`: and may be compressed on writing. */
export function recordType(
  mnemonic: string,
  code: number,
  fields: readonly Field[],
  names: 'as they are' | 'lowered' | 'compressed' = 'as they are',
  check?: (data: Uint8Array) => void,
): RecordType {
  return {
    code,
    mnemonic,
    fields,
    plain: fields.every((field) => field.skip !== undefined),
    lowerNames: names !== 'as they are',
    compressed: names === 'compressed',
    check,
  };
}

/** A field without names: `expand` and `names` follow from how it is skipped. */
export function plainField(
  label: string,
  parse: (words: Words, out: ByteWriter) => void,
  print: (data: ByteReader, out: ByteWriter) => void,
  skip: (data: ByteReader) => void,
): Field {
  return {
    label,
    parse: (words, _origin, out) => parse(words, out),
    print,
    skip,
    expand(message, out) {
      const from = message.at;
      skip(message);
      out.slice(message.data, from, message.at);
    },
    names(data) {
      skip(data);
      return [];
    },
  };
}

/** A whole number in decimal from 0 to `max`. Throws a TextError. */
export function readNumber(token: Token, label: string, max: number): number {
  const value = decimalOf(token);
  if (value === undefined) fail(token, `${label} must be a number`);
  if (value > max) fail(token, `${label} must be at most ${max}`);
  return value;
}

/** The value of a word of digits without quotes; undefined for any other. */
export function decimalOf(token: Token): number | undefined {
  if (token.quoted || token.end === token.start) return undefined;
  let value = 0;
  for (let i = token.start; i < token.end; i++) {
    const digit = token.source[i]! - 48;
    if (digit < 0 || digit > 9) return undefined;
    value = value * 10 + digit;
  }
  return value;
}
