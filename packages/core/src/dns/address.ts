import { ByteWriter, utf8 } from './bytes';

/** Four octets, or undefined if the text is not a dotted quad without leading zeros. */
export function parseIpv4(text: string): Uint8Array | undefined {
  const source = utf8(text);
  return readIpv4(source, 0, source.length);
}

/** As parseIpv4, from ASCII from `start` to before `end`. */
export function readIpv4(source: Uint8Array, start: number, end: number): Uint8Array | undefined {
  const octets = new Uint8Array(4);
  let part = 0;
  let value = -1;
  for (let i = start; i <= end; i++) {
    const character = i < end ? source[i]! : DOT;
    if (character === DOT) {
      if (value < 0 || part > 3) return undefined;
      octets[part++] = value;
      value = -1;
    } else {
      if (character < 48 || character > 57 || value === 0) return undefined;
      value = value < 0 ? character - 48 : value * 10 + character - 48;
      if (value > 255) return undefined;
    }
  }
  return part === 4 ? octets : undefined;
}

const DOT = 46;
const COLON = 58;

export function printIpv4(octets: Uint8Array): string {
  return octets.join('.');
}

/** Sixteen octets (RFC 4291 §2.2, with an embedded IPv4 address if it ends in one), or undefined. */
export function parseIpv6(text: string): Uint8Array | undefined {
  const source = utf8(text);
  return readIpv6(source, 0, source.length);
}

/** As parseIpv6, from ASCII from `start` to before `end`. */
export function readIpv6(source: Uint8Array, start: number, end: number): Uint8Array | undefined {
  const octets = new Uint8Array(16);
  let used = 0;
  let gapAt = -1;
  let at = start;
  if (source[at] === COLON) {
    if (at + 1 >= end || source[at + 1] !== COLON) return undefined;
    gapAt = 0;
    at += 2;
  }
  while (at < end) {
    const groupAt = at;
    let value = 0;
    for (; at < end && at - groupAt < 5; at++) {
      const digit = hexDigit(source[at]!);
      if (digit < 0) break;
      value = value * 16 + digit;
    }
    if (at < end && source[at] === DOT) {
      const quad = used <= 12 ? readIpv4(source, groupAt, end) : undefined;
      if (!quad) return undefined;
      octets.set(quad, used);
      used += 4;
      break;
    }
    if (at === groupAt || at - groupAt > 4 || used > 14) return undefined;
    octets[used++] = value >> 8;
    octets[used++] = value;
    if (at === end) break;
    if (source[at] !== COLON || at + 1 === end) return undefined;
    at += 1;
    if (source[at] === COLON) {
      if (gapAt >= 0) return undefined;
      gapAt = used;
      at += 1;
    }
  }
  if (gapAt < 0) return used === 16 ? octets : undefined;
  if (used > 14) return undefined;
  octets.copyWithin(16 - (used - gapAt), gapAt, used);
  octets.fill(0, gapAt, 16 - (used - gapAt));
  return octets;
}

function hexDigit(character: number): number {
  if (character >= 48 && character <= 57) return character - 48;
  const letter = character | 32;
  return letter >= 97 && letter <= 102 ? letter - 87 : -1;
}

/** RFC 5952: lower case, the longest run of two or more zero groups as `::`. */
export function printIpv6(octets: Uint8Array): string {
  const out = new ByteWriter(48);
  writeIpv6(octets, 0, out);
  return out.text();
}

/** As printIpv6, for the sixteen octets from `start` on. */
export function writeIpv6(octets: Uint8Array, start: number, out: ByteWriter): void {
  const group = (i: number): number => (octets[start + i * 2]! << 8) | octets[start + i * 2 + 1]!;
  let from = -1;
  let longest = 1;
  for (let i = 0; i < 8; i++) {
    let run = 0;
    while (i + run < 8 && group(i + run) === 0) run += 1;
    if (run > longest) {
      longest = run;
      from = i;
    }
    i += run;
  }
  const embedded = from === 0 && (longest === 6 || (longest === 5 && group(5) === 0xffff));
  for (let i = 0; i < (embedded ? 6 : 8); i++) {
    if (i === from) {
      out.ascii(i + longest === 8 ? '::' : ':');
      i += longest - 1;
    } else {
      if (i > 0) out.u8(COLON);
      const value = group(i);
      if (value > 0xfff) out.u8(HEX.charCodeAt(value >> 12));
      if (value > 0xff) out.u8(HEX.charCodeAt((value >> 8) & 15));
      if (value > 0xf) out.u8(HEX.charCodeAt((value >> 4) & 15));
      out.u8(HEX.charCodeAt(value & 15));
    }
  }
  if (embedded) {
    out.u8(COLON);
    writeIpv4(octets, start + 12, out);
  }
}

const HEX = '0123456789abcdef';

/** The dotted quad of the four octets from `start` on. */
export function writeIpv4(octets: Uint8Array, start: number, out: ByteWriter): void {
  for (let i = 0; i < 4; i++) {
    if (i > 0) out.u8(DOT);
    out.decimal(octets[start + i]!);
  }
}

export function isIpv4(text: string): boolean {
  return parseIpv4(text) !== undefined;
}

export function isIpv6(text: string): boolean {
  return parseIpv6(text) !== undefined;
}
