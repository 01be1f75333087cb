import { ByteReader, ByteWriter, WireError, fromBase64, fromHex, toBase64, toHex, utf8 } from './bytes';
import { parseIpv4, parseIpv6, printIpv4, printIpv6 } from './address';
import { Name, NameError, unescape } from './name';
import { Field, plainField, readNumber } from './recordType';
import { Token, TokenReader, fail } from './token';
import { parseTtl } from './ttl';
import { typeCode, typeMnemonic } from './typeNames';

function number(words: TokenReader, label: string, max: number): number {
  const token = words.take(label);
  const value = readNumber(token, label, max);
  return typeof value === 'string' ? fail(token, value) : value;
}

export const u8 = (label: string): Field =>
  plainField(
    label,
    (words, out) => out.u8(number(words, label, 0xff)),
    (data) => String(data.u8()),
    (data) => data.skip(1),
  );

export const u16 = (label: string): Field =>
  plainField(
    label,
    (words, out) => out.u16(number(words, label, 0xffff)),
    (data) => String(data.u16()),
    (data) => data.skip(2),
  );

export const u32 = (label: string): Field =>
  plainField(
    label,
    (words, out) => out.u32(number(words, label, 0xffffffff)),
    (data) => String(data.u32()),
    (data) => data.skip(4),
  );

/** A duration in seconds, typed with or without units (`1h30m`). */
export const seconds = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.take(label);
      const value = parseTtl(token.text);
      out.u32(value ?? fail(token, `${label} must be a number of seconds, or like 1h30m`));
    },
    (data) => String(data.u32()),
    (data) => data.skip(4),
  );

export function readName(token: Token, origin: Name): Name {
  try {
    return Name.parse(token.text, origin);
  } catch (error) {
    if (error instanceof NameError) fail(token, `${error.message} in ${token.text}`);
    throw error;
  }
}

export const domain = (label: string): Field => ({
  label,
  parse: (words, origin, out) => readName(words.take(label), origin).write(out),
  print: (data) => Name.read(data).toString(),
  expand: (message, out) => Name.read(message).write(out),
  names: (data) => [Name.read(data)],
});

export const ipv4 = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.take(label);
      out.bytes(parseIpv4(token.text) ?? fail(token, `${token.text} is not an IPv4 address`));
    },
    (data) => printIpv4(data.bytes(4)),
    (data) => data.skip(4),
  );

export const ipv6 = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.take(label);
      out.bytes(parseIpv6(token.text) ?? fail(token, `${token.text} is not an IPv6 address`));
    },
    (data) => printIpv6(data.bytes(16)),
    (data) => data.skip(16),
  );

/** Octets of a character string, escapes resolved. */
export function readOctets(token: Token): Uint8Array {
  const source = utf8(token.text);
  const out = new ByteWriter();
  for (let i = 0; i < source.length; i++) {
    if (source[i] !== 92) {
      out.u8(source[i]!);
      continue;
    }
    try {
      const read = unescape(source, i);
      out.u8(read.octet);
      i = read.last;
    } catch (error) {
      if (error instanceof NameError) fail(token, error.message);
      throw error;
    }
  }
  return out.done();
}

export function printQuoted(octets: Uint8Array): string {
  let text = '"';
  for (const octet of octets) {
    if (octet === 34 || octet === 92) text += '\\' + String.fromCharCode(octet);
    else if (octet < 32 || octet >= 127) text += '\\' + String(octet).padStart(3, '0');
    else text += String.fromCharCode(octet);
  }
  return text + '"';
}

export const string = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.take(label);
      const octets = readOctets(token);
      if (octets.length > 255) fail(token, `a string is at most 255 octets, this one has ${octets.length}`);
      out.u8(octets.length);
      out.bytes(octets);
    },
    (data) => printQuoted(data.bytes(data.u8())),
    (data) => data.skip(data.u8()),
  );

/** One or more character strings to the end of the record. */
export const strings = (label: string): Field => {
  const one = string(label);
  return plainField(
    label,
    (words, out) => {
      do one.parse(words, Name.root, out);
      while (words.left > 0);
    },
    (data) => {
      const parts: string[] = [];
      do parts.push(one.print(data));
      while (data.left > 0);
      return parts.join(' ');
    },
    (data) => {
      do data.skip(data.u8());
      while (data.left > 0);
    },
  );
};

/** One string to the end of the record, without a length octet (CAA, URI). */
export const text = (label: string): Field =>
  plainField(
    label,
    (words, out) => out.bytes(readOctets(words.take(label))),
    (data) => printQuoted(data.rest()),
    (data) => data.skip(data.left),
  );

export const hex = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.takeJoined(label);
      try {
        out.bytes(fromHex(token.text));
      } catch (error) {
        if (error instanceof WireError) fail(token, `${label}: ${error.message}`);
        throw error;
      }
    },
    (data) => toHex(data.rest()).toUpperCase(),
    (data) => data.skip(data.left),
  );

export const base64 = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.takeJoined(label);
      try {
        out.bytes(fromBase64(token.text));
      } catch (error) {
        if (error instanceof WireError) fail(token, `${label}: ${error.message}`);
        throw error;
      }
    },
    (data) => toBase64(data.rest()),
    (data) => data.skip(data.left),
  );

export const type = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.take(label);
      out.u16(typeCode(token.text) ?? fail(token, `${token.text} is not a record type`));
    },
    (data) => typeMnemonic(data.u16()),
  );

/** Instant of a signature: YYYYMMDDHHmmSS or seconds since 1970 (RFC 4034 §3.2). */
export const instant = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.take(label);
      const parts = /^(\d{4})(\d\d)(\d\d)(\d\d)(\d\d)(\d\d)$/.exec(token.text);
      if (!parts) {
        const value = readNumber(token, label, 0xffffffff);
        return out.u32(typeof value === 'string' ? fail(token, value) : value);
      }
      const [year, month, day, hour, minute, second] = parts.slice(1).map(Number);
      out.u32((Date.UTC(year!, month! - 1, day!, hour!, minute!, second!) / 1000) % 0x1_0000_0000);
    },
    (data) => new Date(data.u32() * 1000).toISOString().replace(/[-T:]|\.000Z/g, ''),
  );

/** The type bit map of NSEC, NSEC3 and CSYNC (RFC 4034 §4.1.2). */
export const typeBits = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const codes = new Set<number>();
      while (words.left > 0) {
        const token = words.take(label);
        codes.add(typeCode(token.text) ?? fail(token, `${token.text} is not a record type`));
      }
      writeTypeBits([...codes], out);
    },
    (data) => readTypeBits(data).map(typeMnemonic).join(' '),
  );

function writeTypeBits(codes: readonly number[], out: ByteWriter): void {
  for (let window = 0; window < 256; window++) {
    const here = codes.filter((code) => code >> 8 === window);
    if (here.length === 0) continue;
    const octets = new Uint8Array((Math.max(...here.map((code) => code & 0xff)) >> 3) + 1);
    for (const code of here) octets[(code & 0xff) >> 3]! |= 0x80 >> (code & 7);
    out.u8(window);
    out.u8(octets.length);
    out.bytes(octets);
  }
}

export function readTypeBits(data: ByteReader): number[] {
  const codes: number[] = [];
  let before = -1;
  while (data.left > 0) {
    const window = data.u8();
    const length = data.u8();
    if (window <= before || length < 1 || length > 32) throw new WireError('a type bit map is out of order');
    before = window;
    const octets = data.bytes(length);
    for (let bit = 0; bit < length * 8; bit++) if (octets[bit >> 3]! & (0x80 >> (bit & 7))) codes.push(window * 256 + bit);
  }
  return codes;
}

/** A CAA tag: 1 to 255 letters and digits, without quotes (RFC 8659 §4.1). */
export const caaTag = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.take(label);
      if (!/^[A-Za-z0-9]{1,255}$/.test(token.text)) fail(token, `${label} must be letters and digits`);
      out.u8(token.text.length);
      out.bytes(utf8(token.text));
    },
    (data) => {
      const tag = String.fromCharCode(...data.bytes(data.u8()));
      if (!/^[A-Za-z0-9]+$/.test(tag)) throw new WireError('a CAA tag must be letters and digits');
      return tag;
    },
  );

/** A character string that may be left out at the end (ISDN). */
export const optionalString = (label: string): Field => {
  const one = string(label);
  return plainField(
    label,
    (words, out) => {
      if (words.left > 0) one.parse(words, Name.root, out);
    },
    (data) => (data.left > 0 ? one.print(data) : ''),
  );
};

/** Base64 that may be left out at the end (IPSECKEY without a key). */
export const optionalBase64 = (label: string): Field => {
  const one = base64(label);
  return plainField(
    label,
    (words, out) => {
      if (words.left > 0) one.parse(words, Name.root, out);
    },
    (data) => (data.left > 0 ? one.print(data) : ''),
  );
};

/** A salt: a length octet and hexadecimal, or `-` for none (RFC 5155 §3.3). */
export const salt = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.take(label);
      let octets: Uint8Array;
      try {
        octets = token.text === '-' ? new Uint8Array(0) : fromHex(token.text);
      } catch (error) {
        if (error instanceof WireError) fail(token, `${label}: ${error.message}`);
        throw error;
      }
      if (octets.length > 255) fail(token, 'a salt is at most 255 octets');
      out.u8(octets.length);
      out.bytes(octets);
    },
    (data) => {
      const octets = data.bytes(data.u8());
      return octets.length === 0 ? '-' : toHex(octets).toUpperCase();
    },
  );

const BASE32HEX = '0123456789ABCDEFGHIJKLMNOPQRSTUV';

/** A hashed owner name: base32 with extended hex alphabet, without padding (RFC 4648 §7, RFC 5155 §3.3). */
export const hashedOwner = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.take(label);
      if (!/^[0-9a-v]{2,408}$/i.test(token.text)) fail(token, `${label} must be base32 with the extended hex alphabet`);
      const octets: number[] = [];
      let bits = 0;
      let held = 0;
      for (const digit of token.text.toUpperCase()) {
        held = ((held << 5) | BASE32HEX.indexOf(digit)) & 0xfff;
        bits += 5;
        if (bits >= 8) {
          bits -= 8;
          octets.push((held >> bits) & 0xff);
        }
      }
      if (bits >= 5 || (held & ((1 << bits) - 1)) !== 0) fail(token, `${label} is cut off`);
      out.u8(octets.length);
      out.bytes(Uint8Array.from(octets));
    },
    (data) => {
      const length = data.u8();
      if (length === 0) throw new WireError('a hashed owner name is empty');
      let text = '';
      let bits = 0;
      let held = 0;
      for (const octet of data.bytes(length)) {
        held = ((held << 8) | octet) & 0x1fff;
        bits += 8;
        while (bits >= 5) {
          bits -= 5;
          text += BASE32HEX[(held >> bits) & 31]!;
        }
      }
      return bits > 0 ? text + BASE32HEX[(held << (5 - bits)) & 31]! : text;
    },
  );

/** Sixty-four bits as four groups of hexadecimal digits (RFC 6742 §2.1.2). */
export const locator64 = (label: string): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.take(label);
      if (!/^[0-9a-f]{1,4}(:[0-9a-f]{1,4}){3}$/i.test(token.text)) fail(token, `${label} must be four groups of hexadecimal digits`);
      for (const group of token.text.split(':')) out.u16(parseInt(group, 16));
    },
    (data) => [data.u16(), data.u16(), data.u16(), data.u16()].map((group) => group.toString(16)).join(':'),
  );

/** Octets in hexadecimal with dashes (RFC 7043 §3.2). */
export const eui = (label: string, length: number): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.take(label);
      const octets = token.text.split('-');
      if (octets.length !== length || octets.some((octet) => !/^[0-9a-f]{2}$/i.test(octet)))
        fail(token, `${label} must be ${length} octets like 00-00-5e-00-53-2a`);
      for (const octet of octets) out.u8(parseInt(octet, 16));
    },
    (data) => Array.from(data.bytes(length), (octet) => octet.toString(16).padStart(2, '0')).join('-'),
  );

/** A number of one or two octets that has mnemonics; both are read, the mnemonic is printed. */
export const mnemonicNumber = (label: string, mnemonics: Readonly<Record<string, number>>, octets: 1 | 2): Field =>
  plainField(
    label,
    (words, out) => {
      const token = words.take(label);
      const upper = token.text.toUpperCase();
      const value = Object.hasOwn(mnemonics, upper) ? mnemonics[upper]! : readNumber(token, label, octets === 1 ? 0xff : 0xffff);
      if (typeof value === 'string') fail(token, value);
      if (octets === 1) out.u8(value);
      else out.u16(value);
    },
    (data) => {
      const value = octets === 1 ? data.u8() : data.u16();
      return Object.entries(mnemonics).find(([, code]) => code === value)?.[0] ?? String(value);
    },
  );
