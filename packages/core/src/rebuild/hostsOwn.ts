import { Name } from '../dns/name';
import { RRset } from '../dns/record';
import { TYPE_CODES } from '../dns/typeNames';

/** Types that a DNS host makes itself when it signs or digests a zone. */
export const MADE_BY_SIGNING: ReadonlySet<number> = new Set([
  TYPE_CODES.RRSIG,
  TYPE_CODES.NSEC,
  TYPE_CODES.NSEC3,
  TYPE_CODES.NSEC3PARAM,
  TYPE_CODES.DNSKEY,
  TYPE_CODES.CDS,
  TYPE_CODES.CDNSKEY,
  TYPE_CODES.ZONEMD,
  TYPE_CODES.CSYNC,
]);

/**
 * Says of a set whether it is the DNS host's own and never ours to push: apex SOA and NS, what signing makes, and where its
 * nameservers have names inside the zone, their addresses.
 */
export function hostsOwnSet(zone: Name, nameservers: readonly string[] = []): (set: Pick<RRset, 'owner' | 'type'>) => boolean {
  const names = nameservers.map((name) => Name.parse(name)).filter((name) => name.isAtOrBelow(zone));
  const isAddress = (type: number): boolean => type === TYPE_CODES.A || type === TYPE_CODES.AAAA;
  return (set) =>
    MADE_BY_SIGNING.has(set.type) ||
    (set.owner.equals(zone) && (set.type === TYPE_CODES.SOA || set.type === TYPE_CODES.NS)) ||
    (isAddress(set.type) && names.some((name) => name.equals(set.owner)));
}
