import { isIpv4, isIpv6 } from '../dns/address';
import { Name } from '../dns/name';
import { RRsetText, sameSet } from '../dns/record';
import { HostKnowledge } from './host';
import { addRequired } from './propose';
import { Ruling, isHostsOwn } from './ruling';

/** TTL in seconds of a record set that nobody asked for before, once the move is settled. */
const FRESH_TTL = 3600;

/**
 * A plan whose zone starts from nothing: of what was found, a registrar's parking or a host's starter records at the most, nothing is kept;
 * the website leads to its host, and mail is declined where that is wanted, by a null MX and an SPF record that lets nobody send
 * (RFC 7505, RFC 7208 §5.1). `proposed`: what the way would do with each row otherwise; rows of the DNS host itself stay as they are there.
 */
export function proposeFresh(
  zone: Name,
  proposed: readonly Ruling[],
  { newWeb, apexAlias = false, declineMail }: { readonly newWeb: HostKnowledge | undefined; readonly apexAlias?: boolean; readonly declineMail: boolean },
): Ruling[] {
  const rulings = proposed
    .filter((row) => row.found || isHostsOwn(row))
    .map((row): Ruling => (isHostsOwn(row) ? row : { ...row, ruling: 'drop', planned: undefined, reason: 'the zone starts from nothing' }));
  const apex = zone.toString();
  const put = (owner: string, type: string, data: readonly string[], reason: string): void => {
    if (data.length === 0) return;
    const planned: RRsetText = { owner, type, ttl: FRESH_TTL, data: [...data] };
    const at = rulings.findIndex((row) => row.owner.toLowerCase() === owner.toLowerCase() && row.type === type);
    const found = rulings[at]?.found;
    const row: Ruling = !found
      ? { owner, type, ruling: 'new', found, planned, reason }
      : sameSet(found, planned)
        ? { owner, type, ruling: 'carry', found, planned: found, reason }
        : { owner, type, ruling: 'repoint', found, planned, reason };
    if (at < 0) rulings.push(row);
    else rulings[at] = row;
  };
  if (newWeb) {
    const [v4, v6] = [newWeb.addresses.filter(isIpv4), newWeb.addresses.filter(isIpv6)];
    const reason = `${newWeb.name} answers there`;
    put(apex, 'A', v4, reason);
    put(apex, 'AAAA', v6, reason);
    if (newWeb.aliasTarget && newWeb.addresses.length === 0 && apexAlias) put(apex, 'CNAME', [newWeb.aliasTarget], reason);
    if (newWeb.aliasTarget) put(`www.${apex}`, 'CNAME', [newWeb.aliasTarget], reason);
    else {
      put(`www.${apex}`, 'A', v4, reason);
      put(`www.${apex}`, 'AAAA', v6, reason);
    }
  }
  if (declineMail) {
    put(apex, 'MX', ['0 .'], 'mail is declined');
    put(apex, 'TXT', ['"v=spf1 -all"'], 'nobody sends mail from it');
  }
  if (newWeb) addRequired(rulings, zone, newWeb);
  return rulings;
}
