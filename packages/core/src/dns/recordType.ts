import { ByteReader, ByteWriter } from './bytes';
import { Name } from './name';
import { Token, TokenReader } from './token';

/** One field of a record's data: the same four functions for every kind, so that a type is a list of fields. */
export interface Field {
  readonly label: string;
  /** Moves past a field that holds no name and so stands in a message as it is; absent where there may be one. */
  readonly skip?: (message: ByteReader) => void;
  /** Text to octets; `origin` completes relative names. Throws a TextError at the word that is wrong. */
  parse(words: TokenReader, origin: Name, out: ByteWriter): void;
  /** Octets (without compression) to text, as a server prints it. */
  print(data: ByteReader): string;
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
}

export function recordType(mnemonic: string, code: number, fields: readonly Field[], lowerNames = false): RecordType {
  return { code, mnemonic, fields, lowerNames, plain: fields.every((field) => field.skip !== undefined) };
}

/** A field without names: `expand` and `names` follow from how it is skipped. */
export function plainField(
  label: string,
  parse: (words: TokenReader, out: ByteWriter, label: string) => void,
  print: (data: ByteReader) => string,
  skip: (data: ByteReader) => void = print,
): Field {
  return {
    label,
    parse: (words, _origin, out) => parse(words, out, label),
    print,
    skip,
    expand(message, out) {
      const from = message.at;
      skip(message);
      out.bytes(message.data.subarray(from, message.at));
    },
    names(data) {
      skip(data);
      return [];
    },
  };
}

/** A whole number in decimal from 0 to `max`. */
export function readNumber(token: Token, label: string, max: number): number | string {
  if (token.quoted || !/^\d{1,10}$/.test(token.text)) return `${label} must be a number`;
  const value = Number(token.text);
  return value > max ? `${label} must be at most ${max}` : value;
}
