import { parseIpv4, parseIpv6 } from './address';

/** A range of addresses. */
export interface Prefix {
  readonly octets: Uint8Array;
  /** Bits that count. */
  readonly length: number;
}

/** `192.0.2.0/24`, `2001:db8::/32`, or one address; undefined for what is none. Bits behind the length have to be 0. */
export function parsePrefix(text: string): Prefix | undefined {
  const [address, bits, ...rest] = text.split('/') as [string, string?, ...string[]];
  const octets = parseIpv4(address) ?? parseIpv6(address);
  if (!octets || rest.length > 0 || (bits !== undefined && !/^\d{1,3}$/.test(bits))) return undefined;
  const length = bits === undefined ? octets.length * 8 : Number(bits);
  if (length > octets.length * 8) return undefined;
  for (let bit = length; bit < octets.length * 8; bit++) if (octets[bit >> 3]! & (0x80 >> (bit & 7))) return undefined;
  return { octets, length };
}

/** True if the address, as text or as octets, lies in the range. */
export function inPrefix({ octets, length }: Prefix, address: string | Uint8Array): boolean {
  const other = typeof address === 'string' ? (parseIpv4(address) ?? parseIpv6(address)) : address;
  if (!other || other.length !== octets.length) return false;
  for (let at = 0; at * 8 < length; at++) {
    const mask = length - at * 8 >= 8 ? 0xff : 0xff << (8 - (length - at * 8));
    if ((octets[at]! ^ other[at]!) & mask) return false;
  }
  return true;
}

/** Addresses that belong to one machine or network, or to nobody (RFC 6890, RFC 4193, RFC 4291, RFC 5771). */
const NOT_PUBLIC = `0.0.0.0/8 10.0.0.0/8 100.64.0.0/10 127.0.0.0/8 169.254.0.0/16 172.16.0.0/12 192.0.0.0/24 192.0.2.0/24 192.168.0.0/16 198.18.0.0/15
198.51.100.0/24 203.0.113.0/24 224.0.0.0/4 240.0.0.0/4 ::/128 ::1/128 64:ff9b:1::/48 100::/64 2001:db8::/32 fc00::/7 fe80::/10 fec0::/10 ff00::/8`
  .split(/\s+/)
  .map((text) => parsePrefix(text)!);
const EMBEDDED = [parsePrefix('::ffff:0:0/96')!, parsePrefix('64:ff9b::/96')!, parsePrefix('::/96')!];

/** True if an address is one of the public internet; an IPv4 address inside an IPv6 one counts as itself. */
export function isPublicAddress(address: string): boolean {
  const octets = parseIpv4(address) ?? parseIpv6(address);
  if (!octets) return false;
  if (octets.length === 16 && EMBEDDED.some((prefix) => inPrefix(prefix, octets))) return isPublicAddress(octets.subarray(12).join('.'));
  // 6to4 carries an IPv4 address as well (RFC 3056 §2).
  if (octets.length === 16 && octets[0] === 0x20 && octets[1] === 0x02) return isPublicAddress(octets.subarray(2, 6).join('.'));
  return !NOT_PUBLIC.some((prefix) => inPrefix(prefix, octets));
}
