import type { NamesRead } from './namesRead';

/** Raised for anything on the wire that does not follow the RFC named in the message. */
export class WireError extends Error {
  override readonly name = 'WireError';
}

/** Octets that are well-formed as far as they can be understood, and hold a code that is not known here. */
export class UnknownCodeError extends WireError {}

/** Appends octets; grows by doubling, so a message of n octets costs O(n). Also writes the ASCII of presentation form. */
export class ByteWriter {
  private buffer: Uint8Array;
  length = 0;

  constructor(size = 128) {
    this.buffer = new Uint8Array(size);
  }

  private room(count: number): void {
    if (this.length + count <= this.buffer.length) return;
    const bigger = new Uint8Array(Math.max(this.buffer.length * 2, this.length + count));
    bigger.set(this.buffer.subarray(0, this.length));
    this.buffer = bigger;
  }

  u8(value: number): void {
    this.room(1);
    this.buffer[this.length++] = value;
  }

  u16(value: number): void {
    this.room(2);
    this.buffer[this.length++] = value >>> 8;
    this.buffer[this.length++] = value;
  }

  u32(value: number): void {
    this.u16((value >>> 16) & 0xffff);
    this.u16(value & 0xffff);
  }

  u48(value: number): void {
    this.u16(Math.floor(value / 0x1_0000_0000) & 0xffff);
    this.u32((value % 0x1_0000_0000) >>> 0);
  }

  bytes(source: Uint8Array): void {
    this.slice(source, 0, source.length);
  }

  /** The octets of `source` from `start` to before `end`. */
  slice(source: Uint8Array, start: number, end: number): void {
    const count = end - start;
    this.room(count);
    // Short runs are copied faster one by one than by a call into the engine.
    if (count > 48) this.buffer.set(source.subarray(start, end), this.length);
    else for (let i = 0; i < count; i++) this.buffer[this.length + i] = source[start + i]!;
    this.length += count;
  }

  /** Text of ASCII characters only. */
  ascii(text: string): void {
    this.room(text.length);
    for (let i = 0; i < text.length; i++) this.buffer[this.length + i] = text.charCodeAt(i);
    this.length += text.length;
  }

  /** A whole number of up to 32 bits, in decimal. */
  decimal(value: number): void {
    if (value < 10) return this.u8(48 + value);
    this.room(10);
    let digits = 1;
    for (let power = 10; power <= value; power *= 10) digits += 1;
    let rest = value;
    for (let at = this.length + digits - 1; at >= this.length; at--) {
      const next = Math.floor(rest / 10);
      this.buffer[at] = 48 + rest - next * 10;
      rest = next;
    }
    this.length += digits;
  }

  /** A backslash and three digits (RFC 1035 §5.1). */
  escaped(octet: number): void {
    this.room(4);
    this.buffer[this.length] = 92;
    this.buffer[this.length + 1] = 48 + Math.floor(octet / 100);
    this.buffer[this.length + 2] = 48 + (Math.floor(octet / 10) % 10);
    this.buffer[this.length + 3] = 48 + (octet % 10);
    this.length += 4;
  }

  /** Takes back everything after `length`. */
  cut(length: number): void {
    this.length = length;
  }

  /** One octet that was written. */
  at(index: number): number {
    return this.buffer[index]!;
  }

  /** Copies what was written, up to a kilobyte, as `store` does. */
  store(): number {
    return store(this.buffer, 0, this.length);
  }

  /** What was written, as it stands until the next write. */
  view(): Uint8Array {
    return this.buffer.subarray(0, this.length);
  }

  /** What was written, as text; it must be ASCII. */
  text(): string {
    return asciiText(this.buffer, 0, this.length);
  }

  /** Overwrites two octets written earlier, for lengths known only afterwards. */
  patchU16(at: number, value: number): void {
    this.buffer[at] = value >>> 8;
    this.buffer[at + 1] = value;
  }

  patchU8(at: number, value: number): void {
    this.buffer[at] = value;
  }

  done(): Uint8Array {
    return copied(this.buffer, 0, this.length);
  }
}

/** Reads octets between `at` and `end`; every read past `end` is a WireError. */
export class ByteReader {
  /** Names of this message that were read already; absent where compression cannot occur. */
  names: NamesRead | undefined;

  constructor(
    readonly data: Uint8Array,
    public at = 0,
    public end = data.length,
  ) {}

  get left(): number {
    return this.end - this.at;
  }

  private need(count: number): void {
    if (this.at + count > this.end) throw new WireError(`needs ${count} more octets, ${this.end - this.at} are left`);
  }

  u8(): number {
    this.need(1);
    return this.data[this.at++]!;
  }

  u16(): number {
    this.need(2);
    const value = (this.data[this.at]! << 8) | this.data[this.at + 1]!;
    this.at += 2;
    return value;
  }

  u32(): number {
    return this.u16() * 0x1_0000 + this.u16();
  }

  u48(): number {
    return this.u16() * 0x1_0000_0000 + this.u32();
  }

  bytes(count: number): Uint8Array {
    this.need(count);
    const { data, at } = this;
    this.at = at + count;
    // A view: what was read lives as long as the message it came in.
    return new Uint8Array(data.buffer, data.byteOffset + at, count);
  }

  skip(count: number): void {
    this.need(count);
    this.at += count;
  }

  rest(): Uint8Array {
    return this.bytes(this.left);
  }
}

/** Short copies share a buffer: a million records would otherwise be a million buffers. */
const SHARED = 32_768;
const SHORT = 1024;
let shared = new Uint8Array(SHARED);
let used = 0;

/** A copy of part of `source`. Short copies stand in a buffer with others, so only the array itself is theirs, never its `buffer`. */
export function copied(source: Uint8Array, start: number, end: number): Uint8Array {
  const length = end - start;
  if (length > SHORT) return source.slice(start, end);
  const at = store(source, start, end);
  return new Uint8Array(shared.buffer, at, length);
}

/** Copies up to a kilobyte into the shared buffer, which `storage` gives, and says where it stands there. */
export function store(source: Uint8Array, start: number, end: number): number {
  const length = end - start;
  if (used + length > SHARED) {
    shared = new Uint8Array(SHARED);
    used = 0;
  }
  const at = used;
  used += length;
  for (let i = 0; i < length; i++) shared[at + i] = source[start + i]!;
  return at;
}

/** The shared buffer that the last `store` wrote to. */
export function storage(): Uint8Array {
  return shared;
}

/** Octets as characters of the same numbers. */
export function asciiText(octets: Uint8Array, start = 0, end = octets.length): string {
  if (end - start > 4096) {
    let text = '';
    for (let at = start; at < end; at += 4096) text += asciiText(octets, at, Math.min(end, at + 4096));
    return text;
  }
  return String.fromCharCode.apply(undefined, octets.subarray(start, end) as unknown as number[]);
}

export function equalBytes(a: Uint8Array, b: Uint8Array): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}

/** Order of RFC 4034 §6.3: octet by octet, the shorter first where one is the other's beginning. */
export function compareBytes(a: Uint8Array, b: Uint8Array): number {
  const shorter = Math.min(a.length, b.length);
  for (let i = 0; i < shorter; i++) if (a[i] !== b[i]) return a[i]! - b[i]!;
  return a.length - b.length;
}

const HEX = '0123456789abcdef';

export function toHex(bytes: Uint8Array): string {
  let text = '';
  for (const octet of bytes) text += HEX[octet >> 4]! + HEX[octet & 15]!;
  return text;
}

/** Throws a WireError unless `text` is an even number of hexadecimal digits. */
export function fromHex(text: string): Uint8Array {
  if (/[^0-9a-fA-F]/.test(text)) throw new WireError(HEX_EXPECTED);
  return decodeHex(utf8(text));
}

const HEX_EXPECTED = 'hexadecimal digits in pairs were expected';
const HEX_VALUES = digitTable('0123456789abcdef', 'ABCDEF', 10);

/** Hexadecimal digits, given as ASCII, to octets. Throws a WireError unless they are digits in pairs. */
export function decodeHex(digits: Uint8Array): Uint8Array {
  const bytes = new Uint8Array(digits.length >> 1);
  let bad = digits.length & 1;
  for (let i = 0; i < bytes.length; i++) {
    const value = (HEX_VALUES[digits[i * 2]!]! << 4) | HEX_VALUES[digits[i * 2 + 1]!]!;
    bad |= value >> 8;
    bytes[i] = value;
  }
  if (bad !== 0) throw new WireError(HEX_EXPECTED);
  return bytes;
}

const BASE64 = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
const BASE64_VALUES = digitTable(BASE64);

/** Value of each ASCII digit of an alphabet, 0x8000 for all that is no digit; `more` counts on from `from`. */
function digitTable(alphabet: string, more = '', from = 0): Uint16Array {
  const table = new Uint16Array(256).fill(0x8000);
  for (let i = 0; i < alphabet.length; i++) table[alphabet.charCodeAt(i)] = i;
  for (let i = 0; i < more.length; i++) table[more.charCodeAt(i)] = from + i;
  return table;
}

/** RFC 4648 §4. */
export function toBase64(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += 3) {
    const group = (bytes[i]! << 16) | ((bytes[i + 1] ?? 0) << 8) | (bytes[i + 2] ?? 0);
    text += BASE64[group >> 18]! + BASE64[(group >> 12) & 63]!;
    text += i + 1 < bytes.length ? BASE64[(group >> 6) & 63]! : '=';
    text += i + 2 < bytes.length ? BASE64[group & 63]! : '=';
  }
  return text;
}

/** RFC 4648 §4; throws a WireError for a character outside the alphabet or a wrong length. */
export function fromBase64(text: string): Uint8Array {
  return decodeBase64(utf8(text));
}

/** Base64 given as ASCII; bits behind the last octet must be 0 (RFC 4648 §3.5). Throws a WireError. */
export function decodeBase64(digits: Uint8Array): Uint8Array {
  let count = digits.length;
  while (count > 0 && digits.length - count < 2 && digits[count - 1] === 61) count -= 1;
  const bytes = new Uint8Array((count * 3) >> 2);
  let group = 0;
  let bits = 0;
  let bad = digits.length & 3;
  let at = 0;
  for (let i = 0; i < count; i++) {
    const value = BASE64_VALUES[digits[i]!]!;
    bad |= value & 0x8000;
    group = ((group << 6) | value) & 0xffffff;
    bits += 6;
    if (bits >= 8) {
      bits -= 8;
      bytes[at++] = group >> bits;
    }
  }
  if (bad !== 0 || (group & ((1 << bits) - 1)) !== 0) throw new WireError('base64 was expected');
  return bytes;
}

/** Nearly all text is ASCII, which is one octet a character. */
function ascii(text: string): Uint8Array | undefined {
  const octets = new Uint8Array(text.length);
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code >= 0x80) return undefined;
    octets[i] = code;
  }
  return octets;
}

/** Text as UTF-8 octets; lone surrogates become U+FFFD, as everywhere. */
export function utf8(text: string): Uint8Array {
  const plain = ascii(text);
  if (plain) return plain;
  const out = new ByteWriter();
  for (const character of text) {
    let code = character.codePointAt(0)!;
    if (code >= 0xd800 && code <= 0xdfff) code = 0xfffd;
    if (code < 0x80) out.u8(code);
    else if (code < 0x800) out.u16(((0xc0 | (code >> 6)) << 8) | 0x80 | (code & 63));
    else if (code < 0x10000) {
      out.u8(0xe0 | (code >> 12));
      out.u16(((0x80 | ((code >> 6) & 63)) << 8) | 0x80 | (code & 63));
    } else {
      out.u16(((0xf0 | (code >> 18)) << 8) | 0x80 | ((code >> 12) & 63));
      out.u16(((0x80 | ((code >> 6) & 63)) << 8) | 0x80 | (code & 63));
    }
  }
  return out.done();
}

/** UTF-8 octets as text for people; what is no UTF-8 shows as U+FFFD. */
export function fromUtf8(octets: Uint8Array): string {
  let text = '';
  for (let i = 0; i < octets.length; i++) {
    const first = octets[i]!;
    const more = first < 0x80 ? 0 : first >= 0xc2 && first < 0xe0 ? 1 : first >= 0xe0 && first < 0xf0 ? 2 : first >= 0xf0 && first < 0xf5 ? 3 : -1;
    let code = more === 0 ? first : first & (0x3f >> more);
    let good = more >= 0 && i + more < octets.length;
    for (let k = 1; good && k <= more; k++) {
      good = (octets[i + k]! & 0xc0) === 0x80;
      code = (code << 6) | (octets[i + k]! & 0x3f);
    }
    if (good && (code > 0x10ffff || (code >= 0xd800 && code < 0xe000) || (more === 2 && code < 0x800) || (more === 3 && code < 0x10000))) good = false;
    text += good ? String.fromCodePoint(code) : '\ufffd';
    if (good) i += more;
  }
  return text;
}
