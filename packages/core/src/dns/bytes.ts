/** Raised for anything on the wire that does not follow the RFC named in the message. */
export class WireError extends Error {
  override readonly name = 'WireError';
}

/** Appends octets; grows by doubling, so a message of n octets costs O(n). */
export class ByteWriter {
  private buffer = new Uint8Array(128);
  length = 0;

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
    this.room(source.length);
    this.buffer.set(source, this.length);
    this.length += source.length;
  }

  /** Overwrites two octets written earlier, for lengths known only afterwards. */
  patchU16(at: number, value: number): void {
    this.buffer[at] = value >>> 8;
    this.buffer[at + 1] = value;
  }

  done(): Uint8Array {
    return this.buffer.slice(0, this.length);
  }
}

/** Reads octets between `at` and `end`; every read past `end` is a WireError. */
export class ByteReader {
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
    const slice = this.data.slice(this.at, this.at + count);
    this.at += count;
    return slice;
  }

  skip(count: number): void {
    this.need(count);
    this.at += count;
  }

  rest(): Uint8Array {
    return this.bytes(this.left);
  }
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
  if (text.length % 2 !== 0 || /[^0-9a-fA-F]/.test(text)) throw new WireError('hexadecimal digits in pairs were expected');
  const bytes = new Uint8Array(text.length / 2);
  for (let i = 0; i < bytes.length; i++) bytes[i] = parseInt(text.substr(i * 2, 2), 16);
  return bytes;
}

const BASE64 = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';

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
  if (text.length % 4 !== 0 || !/^[A-Za-z0-9+/]*={0,2}$/.test(text)) throw new WireError('base64 was expected');
  const body = text.replace(/=+$/, '');
  const bytes = new Uint8Array(Math.floor((body.length * 3) / 4));
  let group = 0;
  let bits = 0;
  let at = 0;
  for (const digit of body) {
    group = ((group << 6) | BASE64.indexOf(digit)) & 0xffffff;
    bits += 6;
    if (bits >= 8) {
      bits -= 8;
      bytes[at++] = (group >> bits) & 0xff;
    }
  }
  return bytes;
}

/** Text as UTF-8 octets; lone surrogates become U+FFFD, as everywhere. */
export function utf8(text: string): Uint8Array {
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
