import { parseIpv4, parseIpv6, printIpv4, printIpv6 } from './address';

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

/** `10.1.0.0/16`, as `parsePrefix` reads it. */
export function printPrefix({ octets, length }: Prefix): string {
  return `${octets.length === 4 ? printIpv4(octets) : printIpv6(octets)}/${length}`;
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

/**
 * Whether an address, as octets, lies in any of some ranges. Those that its first octet rules out are not looked at: of thousands of addresses
 * hardly one comes near.
 */
export function inAny(prefixes: readonly Prefix[]): (address: Uint8Array) => boolean {
  const near = new Map<number, Prefix[]>();
  const placeOf = (octets: number, first: number): number => octets * 256 + first;
  for (const prefix of prefixes)
    for (let first = 0; first < 256; first++) {
      const place = placeOf(prefix.octets.length, first);
      if (inPrefix({ octets: prefix.octets.subarray(0, 1), length: Math.min(8, prefix.length) }, Uint8Array.of(first)))
        near.set(place, [...(near.get(place) ?? []), prefix]);
    }
  return (address) => near.get(placeOf(address.length, address[0]!))?.some((prefix) => inPrefix(prefix, address)) ?? false;
}

/** Ranges as parsePrefix takes them, with blanks between; of our own lists, which are right. */
export const ranges = (text: string): Prefix[] => text.split(/\s+/).map((one) => parsePrefix(one)!);

/**
 * Addresses that belong to one machine or network, to nobody, or to groups: what the IANA registries of special-purpose addresses (RFC 6890,
 * RFC 8190) have as not globally reachable, and multicast (RFC 5771, RFC 4291 §2.7). 192.88.99.0/24 once led to relays (RFC 7526).
 */
const isSpecial = inAny(
  ranges(`0.0.0.0/8 10.0.0.0/8 100.64.0.0/10 127.0.0.0/8 169.254.0.0/16 172.16.0.0/12 192.0.0.0/24 192.0.2.0/24 192.88.99.0/24
192.168.0.0/16 198.18.0.0/15 198.51.100.0/24 203.0.113.0/24 224.0.0.0/4 240.0.0.0/4 ::/128 ::1/128 64:ff9b:1::/48 100::/64 100:0:0:1::/64
2001::/23 2001:db8::/32 3fff::/20 5f00::/16 fc00::/7 fe80::/10 fec0::/10 ff00::/8`),
);
/** Parts of the above that the registries have as globally reachable. */
const isReachable = inAny(ranges(`192.0.0.9/32 192.0.0.10/32 2001:1::1/128 2001:1::2/128 2001:1::3/128 2001:3::/32 2001:4:112::/48 2001:20::/28 2001:30::/28`));

/** Ranges whose addresses carry an IPv4 address, and at which octet: that one counts as itself. Teredo's is the client's, turned over. */
const EMBEDDED: readonly { readonly prefix: Prefix; readonly at: number; readonly flipped?: true }[] = [
  // IPv4-mapped and the older IPv4-compatible ones (RFC 4291 §2.5.5), NAT64 (RFC 6052 §2.1), 6to4 (RFC 3056 §2), Teredo (RFC 4380 §4).
  { prefix: parsePrefix('::ffff:0:0/96')!, at: 12 },
  { prefix: parsePrefix('::/96')!, at: 12 },
  { prefix: parsePrefix('64:ff9b::/96')!, at: 12 },
  { prefix: parsePrefix('2002::/16')!, at: 2 },
  { prefix: parsePrefix('2001::/32')!, at: 12, flipped: true },
];

/** True if an address is one of the public internet; an IPv4 address inside an IPv6 one counts as itself. */
export function isPublicAddress(address: string): boolean {
  const octets = parseIpv4(address) ?? parseIpv6(address);
  if (!octets) return false;
  if (octets.length === 16) {
    const inner = EMBEDDED.find(({ prefix }) => inPrefix(prefix, octets));
    if (inner) return isPublicAddress([...octets.subarray(inner.at, inner.at + 4)].map((octet) => (inner.flipped ? octet ^ 0xff : octet)).join('.'));
    // ISATAP, below any prefix (RFC 5214 §6.1).
    const isIsatap = (octets[8]! & 0xfd) === 0 && octets[9] === 0 && octets[10] === 0x5e && octets[11] === 0xfe;
    if (isIsatap && !isPublicAddress(octets.subarray(12).join('.'))) return false;
  }
  return isReachable(octets) || !isSpecial(octets);
}
