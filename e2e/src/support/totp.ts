import { createHmac } from 'node:crypto';

/** A secret in base 32 (RFC 4648 §6) as octets. */
export function octetsOf(secret: string): Buffer {
  const bits = [...secret].map((letter) => 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567'.indexOf(letter).toString(2).padStart(5, '0')).join('');
  return Buffer.from(bits.match(/.{8}/g)!.map((octet) => parseInt(octet, 2)));
}

/** RFC 6238 §4 with RFC 4226 §5.3, from its text: what an app shows at a moment, in seconds, for a secret in base 32. */
export function codeAt(secret: string, seconds: number): string {
  const counter = Buffer.alloc(8);
  counter.writeBigUInt64BE(BigInt(Math.floor(seconds / 30)));
  const mac = createHmac('sha1', octetsOf(secret)).update(counter).digest();
  const offset = mac[19]! & 15;
  return String((mac.readUInt32BE(offset) & 0x7fffffff) % 1_000_000).padStart(6, '0');
}
