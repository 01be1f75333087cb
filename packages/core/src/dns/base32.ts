const BASE32HEX = '0123456789ABCDEFGHIJKLMNOPQRSTUV';

/** Base32 with the extended hex alphabet, without padding (RFC 4648 §7). */
export function toBase32Hex(octets: Uint8Array): string {
  let text = '';
  let bits = 0;
  let held = 0;
  for (const octet of octets) {
    held = ((held << 8) | octet) & 0x1fff;
    bits += 8;
    while (bits >= 5) {
      bits -= 5;
      text += BASE32HEX[(held >> bits) & 31]!;
    }
  }
  return bits > 0 ? text + BASE32HEX[(held << (5 - bits)) & 31]! : text;
}

/** The reverse of toBase32Hex; undefined for what it never gives. */
export function fromBase32Hex(text: string): Uint8Array | undefined {
  const octets: number[] = [];
  let bits = 0;
  let held = 0;
  for (const digit of text.toUpperCase()) {
    const value = BASE32HEX.indexOf(digit);
    if (value < 0) return undefined;
    held = ((held << 5) | value) & 0xfff;
    bits += 5;
    if (bits >= 8) {
      bits -= 8;
      octets.push((held >> bits) & 0xff);
    }
  }
  return bits >= 5 || (held & ((1 << bits) - 1)) !== 0 ? undefined : Uint8Array.from(octets);
}
