import { Name } from './name';
import { Prefix } from './prefix';

const OCTETS: readonly string[] = Array.from({ length: 256 }, (_, octet) => String(octet));
const DIGITS: readonly string[] = [...'0123456789abcdef'];

/** Where the names of addresses stand (RFC 1035 §3.5, RFC 3596 §2.5), by what they go on, and by how much of it an address has. */
const TREES = [
  { top: Name.parse('in-addr.arpa.'), labels: OCTETS, depth: 4 },
  { top: Name.parse('ip6.arpa.'), labels: DIGITS, depth: 32 },
] as const;

/** True for names of addresses, or of ranges of them. */
export function isReverse(name: Name): boolean {
  return TREES.some(({ top }) => name.isBelow(top));
}

/**
 * The labels by which the names of a range's addresses go on below it; none below a whole address, and elsewhere. A label that is no part of an
 * address is that of a smaller range (RFC 2317).
 *
 *     addressLabels(Name.parse('2.0.192.in-addr.arpa.'))       // 0 to 255
 *     addressLabels(Name.parse('64-127.2.0.192.in-addr.arpa.'))  // 0 to 255
 */
export function addressLabels(range: Name): readonly string[] {
  const tree = TREES.find(({ top }) => range.isBelow(top));
  if (!tree) return [];
  const parts = range.relativeTo(tree.top).toLowerCase().split('.');
  return parts.filter((one) => tree.labels.includes(one)).length < tree.depth ? tree.labels : [];
}

/**
 * The zone of a range of addresses, without final dot; undefined where it is none of its own: less than the whole internet by octets, or
 * digits, and more than one address. Smaller ranges are cut out by names that nobody can guess (RFC 2317).
 *
 *     reverseZone(parsePrefix('192.0.2.0/24')!)   // 2.0.192.in-addr.arpa
 *     reverseZone(parsePrefix('192.0.2.0/26')!)   // undefined
 */
export function reverseZone({ octets, length }: Prefix): string | undefined {
  const isV4 = octets.length === 4;
  const step = isV4 ? 8 : 4;
  if (length % step !== 0 || length === 0 || length === octets.length * 8) return undefined;
  const labels = isV4 ? [...octets].map(String) : [...octets].flatMap((octet) => [octet >> 4, octet & 15]).map((digit) => digit.toString(16));
  return [...labels.slice(0, length / step).reverse(), isV4 ? 'in-addr.arpa' : 'ip6.arpa'].join('.');
}
