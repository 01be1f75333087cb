import { ByteReader, ByteWriter, WireError, decodeBase64, decodeHex, toBase64, toHex } from './bytes';
import { fromBase32Hex, toBase32Hex } from './base32';
import { readIpv4, readIpv6, writeIpv4, writeIpv6 } from './address';
import { KEY_FLAGS, Mnemonics, numberOf } from './mnemonics';
import { Name, NameError, expandName, printNameAt, unescape, writeParsed } from './name';
import { Field, decimalOf, plainField, readNumber } from './recordType';
import { Token, fail } from './token';
import { ttlOf } from './ttl';
import { typeCode, typeMnemonic } from './typeNames';

const skip =
  (count: number) =>
  (data: ByteReader): void =>
    data.skip(count);

export const u8 = (label: string, max = 0xff): Field =>
  plainField(
    label,
    (words, out) => out.u8(readNumber(words.take(label), label, max)),
    (data, out) => out.decimal(data.u8()),
    skip(1),
  );

export const u16 = (label: string): Field =>
  plainField(
    label,
    (words, out) => out.u16(readNumber(words.take(label), label, 0xffff)),
    (data, out) => out.decimal(data.u16()),
    skip(2),
  );

export const u32 = (label: string): Field =>
  plainField(
    label,
    (words, out) => out.u32(readNumber(words.take(label), label, 0xffffffff)),
    (data, out) => out.decimal(data.u32()),
    skip(4),
  );

/** A duration in seconds, typed with or without units (`1h30m`). */
export const seconds = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.bare(label);
      out.u32(ttlOf(token) ?? fail(token, `${label} must be a number of seconds, or like 1h30m`));
    },
    (data, out) => out.decimal(data.u32()),
    skip(4),
  );

/** Writes the name that a word stands for. Throws a TextError. */
export function writeName(token: Token, origin: Name, out: ByteWriter): void {
  named(token, () => writeParsed(token.source, token.start, token.end, origin, out));
}

/** The name that a word stands for. Throws a TextError. */
export function readName(token: Token, origin: Name): Name {
  return named(token, () => Name.parseOctets(token.source, token.start, token.end, origin));
}

function named<T>(token: Token, read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (error instanceof NameError) fail(token, `${error.message} in ${token.text}`);
    throw error;
  }
}

export const domain = (label: string): Field => ({
  label,
  parse: (words, origin, out) => writeName(words.bare(label), origin, out),
  print: printNameAt,
  expand: expandName,
  names: (data) => [Name.read(data)],
});

export const ipv4 = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.bare(label);
      out.bytes(readIpv4(token.source, token.start, token.end) ?? fail(token, `${token.text} is not an IPv4 address`));
    },
    (data, out) => {
      data.skip(4);
      writeIpv4(data.data, data.at - 4, out);
    },
    skip(4),
  );

export const ipv6 = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.bare(label);
      out.bytes(readIpv6(token.source, token.start, token.end) ?? fail(token, `${token.text} is not an IPv6 address`));
    },
    (data, out) => {
      data.skip(16);
      writeIpv6(data.data, data.at - 16, out);
    },
    skip(16),
  );

/** Writes the octets of a character string, escapes resolved (RFC 1035 §5.1). Throws a TextError. */
export function writeOctets(token: Token, out: ByteWriter): void {
  const { source, end } = token;
  for (let i = token.start; i < end; i++) {
    if (source[i] !== 92) {
      const from = i;
      while (i + 1 < end && source[i + 1] !== 92) i += 1;
      out.slice(source, from, i + 1);
    } else {
      const read = named(token, () => unescape(source, i, end));
      out.u8(read.octet);
      i = read.last;
    }
  }
}

/** Octets that stand in quotes as they are. */
const PLAIN = Uint8Array.from({ length: 256 }, (_, octet) => (octet >= 32 && octet < 127 && octet !== 34 && octet !== 92 ? 1 : 0));

/** In quotes, with escapes for quote, backslash and all that is not printable ASCII. */
export function printQuoted(octets: Uint8Array, start: number, end: number, out: ByteWriter): void {
  out.u8(34);
  for (let i = start; i < end; i++) {
    const from = i;
    while (i < end && PLAIN[octets[i]!] === 1) i += 1;
    out.slice(octets, from, i);
    if (i === end) break;
    const octet = octets[i]!;
    if (octet < 32 || octet >= 127) out.escaped(octet);
    else {
      out.u8(92);
      out.u8(octet);
    }
  }
  out.u8(34);
}

function parseString(token: Token, out: ByteWriter): void {
  const from = out.length;
  out.u8(0);
  writeOctets(token, out);
  const length = out.length - from - 1;
  if (length > 255) fail(token, `a string is at most 255 octets, this one has ${length}`);
  out.patchU8(from, length);
}

function printString(data: ByteReader, out: ByteWriter): void {
  const length = data.u8();
  data.skip(length);
  printQuoted(data.data, data.at - length, data.at, out);
}

const skipString = (data: ByteReader): void => data.skip(data.u8());

export const string = (label: string): Field => plainField(label, (words, out) => parseString(words.take(label), out), printString, skipString);

/** One or more character strings to the end of the record. */
export const strings = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      do parseString(words.take(label), out);
      while (words.left > 0);
    },
    (data, out) => {
      printString(data, out);
      while (data.left > 0) {
        out.u8(32);
        printString(data, out);
      }
    },
    (data) => {
      do skipString(data);
      while (data.left > 0);
    },
  );

const skipRest = (data: ByteReader): void => data.skip(data.left);

/** One string to the end of the record, without a length octet (CAA, URI). */
export const text = (label: string, options: { quoted: boolean }): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.take(label);
      if (options.quoted && !token.quoted) fail(token, `${label} stands in quotes`);
      writeOctets(token, out);
    },
    (data, out) => {
      const from = data.at;
      skipRest(data);
      printQuoted(data.data, from, data.at, out);
    },
    skipRest,
  );

/** What a word or words of digits stand for; a WireError of the decoder becomes a TextError at the first. */
export function decoded(first: Token, label: string, decode: () => Uint8Array): Uint8Array {
  try {
    return decode();
  } catch (error) {
    if (error instanceof WireError) fail(first, `${label}: ${error.message}`);
    throw error;
  }
}

/** Octets of a single word. */
export function wordOctets(token: Token): Uint8Array {
  return token.source.subarray(token.start, token.end);
}

/** Hexadecimal to the end of the record. */
export const hex = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const { first, octets } = words.joined(label);
      out.bytes(decoded(first, label, () => decodeHex(octets)));
    },
    (data, out) => {
      if (data.left === 0) throw new WireError(`${label} is missing`);
      out.ascii(toHex(data.rest()).toUpperCase());
    },
    skipRest,
  );

/** Base64 to the end of the record. */
export const base64 = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const { first, octets } = words.joined(label);
      out.bytes(decoded(first, label, () => decodeBase64(octets)));
    },
    (data, out) => {
      if (data.left === 0) throw new WireError(`${label} is missing`);
      out.ascii(toBase64(data.rest()));
    },
    skipRest,
  );

/** Base64 that may be left out at the end (IPSECKEY without a key). */
export const optionalBase64 = (label: string): Field => {
  const one = base64(label);
  return plainField(
    label,
    (words, out) => {
      if (words.left > 0) one.parse(words, Name.root, out);
    },
    (data, out) => {
      if (data.left > 0) one.print(data, out);
    },
    skipRest,
  );
};

/** The key itself; a key that its flags say is none has no octets (RFC 2535 §3.1.2). */
export const keyOctets = (label: string): Field => {
  const some = base64(label);
  const none = (flags: number): boolean => (flags & 0xc0) === 0xc0;
  return {
    ...some,
    parse: (words, origin, out) => {
      // Flags, protocol and algorithm stand right before.
      if (none(out.at(out.length - 4))) return;
      some.parse(words, origin, out);
    },
    print: (data, out) => {
      if (none(data.data[data.at - 4]!)) return;
      some.print(data, out);
    },
  };
};

/** The type that a signature covers, by mnemonic or number (RFC 4034 §3.2). */
export const type = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.bare(label);
      const code = typeCode(token.text) ?? decimalOf(token);
      out.u16(code !== undefined && code <= 0xffff ? code : fail(token, `${token.text} is not a record type`));
    },
    (data, out) => out.ascii(typeMnemonic(data.u16())),
    skip(2),
  );

/** Instant of a signature: YYYYMMDDHHmmSS or seconds since 1970 (RFC 4034 §3.2). */
export const instant = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.bare(label);
      if (token.length <= 10) return out.u32(readNumber(token, label, 0xffffffff));
      const parts = /^(\d{4})(\d\d)(\d\d)(\d\d)(\d\d)(\d\d)$/.exec(token.text);
      if (!parts) fail(token, `${label} is like 20300101120000`);
      const [year, month, day, hour, minute, second] = parts.slice(1).map(Number) as [number, number, number, number, number, number];
      // Date.UTC carries over what is too large; a 60th second may stand, other parts must come out as they went in.
      const seconds = Date.UTC(year, month - 1, day, hour, minute, second) / 1000;
      const back = new Date(Date.UTC(year, month - 1, day));
      if (back.getUTCMonth() !== month - 1 || back.getUTCDate() !== day || hour > 23 || minute > 59 || second > 60) fail(token, `${label} is no date and time`);
      // RFC 4034 §3.1.5: seconds are counted modulo 2^32.
      out.u32(seconds >>> 0);
    },
    (data, out) => out.ascii(new Date(data.u32() * 1000).toISOString().replace(/[-T:]|\.000Z/g, '')),
    skip(4),
  );

/** A CAA tag: 1 to 255 letters and digits, without quotes (RFC 8659 §4.1). */
export const caaTag = (label: string): Field => {
  const read = (data: ByteReader): string => {
    const tag = String.fromCharCode(...data.bytes(data.u8()));
    if (!/^[A-Za-z0-9]+$/.test(tag)) throw new WireError('a CAA tag must be letters and digits');
    return tag;
  };
  return plainField(
    label,
    (words, out) => {
      const token = words.bare(label);
      if (!/^[A-Za-z0-9]{1,255}$/.test(token.text)) fail(token, `${label} must be letters and digits`);
      out.u8(token.length);
      out.bytes(wordOctets(token));
    },
    (data, out) => out.ascii(read(data)),
    skipString,
  );
};

/** A character string that may be left out at the end (ISDN). */
export const optionalString = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      if (words.left > 0) parseString(words.take(label), out);
    },
    (data, out) => {
      if (data.left > 0) printString(data, out);
    },
    (data) => {
      if (data.left > 0) skipString(data);
    },
  );

/** A salt: a length octet and hexadecimal, or `-` for none (RFC 5155 §3.3). */
export const salt = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.bare(label);
      const octets = token.text === '-' ? new Uint8Array(0) : decoded(token, label, () => decodeHex(wordOctets(token)));
      if (octets.length > 255) fail(token, 'a salt is at most 255 octets');
      out.u8(octets.length);
      out.bytes(octets);
    },
    (data, out) => {
      const octets = data.bytes(data.u8());
      out.ascii(octets.length === 0 ? '-' : toHex(octets).toUpperCase());
    },
    skipString,
  );

/** A hashed owner name (RFC 5155 §3.3). */
export const hashedOwner = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.bare(label);
      const octets = fromBase32Hex(token.text) ?? fail(token, `${label} must be base32 with the extended hex alphabet`);
      if (octets.length < 1 || octets.length > 255) fail(token, `${label} has 1 to 255 octets`);
      out.u8(octets.length);
      out.bytes(octets);
    },
    (data, out) => {
      const length = data.u8();
      if (length === 0) throw new WireError('a hashed owner name is empty');
      out.ascii(toBase32Hex(data.bytes(length)));
    },
    (data) => {
      const length = data.u8();
      if (length === 0) throw new WireError('a hashed owner name is empty');
      data.skip(length);
    },
  );

/** Sixty-four bits as four groups of hexadecimal digits (RFC 6742 §2.1.2). */
export const locator64 = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.bare(label);
      if (!/^[0-9a-f]{1,4}(:[0-9a-f]{1,4}){3}$/i.test(token.text)) fail(token, `${label} must be four groups of hexadecimal digits`);
      for (const group of token.text.split(':')) out.u16(parseInt(group, 16));
    },
    (data, out) => out.ascii([data.u16(), data.u16(), data.u16(), data.u16()].map((group) => group.toString(16)).join(':')),
    skip(8),
  );

/** Octets in hexadecimal with dashes (RFC 7043 §3.2). */
export const eui = (label: string, length: number): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.bare(label);
      const octets = token.text.split('-');
      if (octets.length !== length || octets.some((octet) => !/^[0-9a-f]{1,2}$/i.test(octet)))
        fail(token, `${label} must be ${length} octets like 00-00-5e-00-53-2a`);
      for (const octet of octets) out.u8(parseInt(octet, 16));
    },
    (data, out) => out.ascii(Array.from(data.bytes(length), (octet) => octet.toString(16).padStart(2, '0')).join('-')),
    skip(length),
  );

/** A number of one or two octets that may also be typed as a mnemonic; printed as a number unless `printed`. */
export const mnemonicNumber = (label: string, mnemonics: Mnemonics, octets: 1 | 2, options: { printed?: boolean } = {}): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.bare(label);
      const value = numberOf(mnemonics, token.text) ?? readNumber(token, label, octets === 1 ? 0xff : 0xffff);
      if (octets === 1) out.u8(value);
      else out.u16(value);
    },
    (data, out) => {
      const value = octets === 1 ? data.u8() : data.u16();
      const word = options.printed ? Object.entries(mnemonics).find(([, code]) => code === value)?.[0] : undefined;
      if (word === undefined) out.decimal(value);
      else out.ascii(word);
    },
    skip(octets),
  );

/** Flags of a key: a number, or mnemonics joined by `|`. */
export const keyFlags = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.bare(label);
      if (decimalOf(token) !== undefined) return out.u16(readNumber(token, label, 0xffff));
      if (/^0x[0-9a-f]{1,4}$/i.test(token.text)) return out.u16(parseInt(token.text, 16));
      let flags = 0;
      for (const word of token.text.split('|')) flags |= numberOf(KEY_FLAGS, word) ?? fail(token, `${label} must be a number`);
      out.u16(flags);
    },
    (data, out) => out.decimal(data.u16()),
    skip(2),
  );
