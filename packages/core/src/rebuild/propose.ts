import { Name } from '../dns/name';
import { isIpv4, isIpv6 } from '../dns/address';
import { namesIn } from '../dns/rdata';
import { RRset, RRsetText, rrsetFromText, rrsetToText } from '../dns/record';
import { TYPE_CODES } from '../dns/typeNames';
import { proposed, required, rowWith } from '../hosts/needs';
import { HostKnowledge } from './host';
import { MADE_BY_SIGNING } from './hostsOwn';
import { otherUses, usesWords } from './otherUses';
import { presentWeb } from './presentWeb';
import { ASKED_FOR, HOSTS_OWN, Ruling } from './ruling';

/** TTL in seconds of repointed and new sets from the push until the move is finished everywhere. */
export const STARTING_TTL = 300;

/**
 * Proposes a ruling for every record set found, and the new ones that the web host demands.
 * Mail and third-party records are carried; what leads to where the website is today is repointed, unless something else uses the name; a
 * host's own records stay behind.
 */
export function proposeRulings(
  zone: Name,
  found: readonly RRset[],
  hosts: {
    readonly oldWeb: readonly HostKnowledge[];
    readonly newDns: HostKnowledge;
    readonly newWeb: HostKnowledge | undefined;
    /** Sets as the old host's front answered them. */
    readonly fronted?: readonly RRsetText[];
  },
): Ruling[] {
  const { newDns, newWeb } = hosts;
  const present = newWeb && presentWeb(zone, found, [...hosts.oldWeb, newWeb], hosts.fronted);
  const oldWeb = present ? [...hosts.oldWeb, present] : hosts.oldWeb;
  const oldAddresses = new Set(oldWeb.flatMap((host) => host.addresses));
  const oldAliases = oldWeb.flatMap((host) => (host.aliasTarget ? [Name.parse(host.aliasTarget)] : []));
  const uses = otherUses(zone, found);
  /** Addresses in the place of which the new web host has none. */
  const lost = new Set<Ruling>();
  const rulings: Ruling[] = found.map((set) => {
    const text = rrsetToText(set);
    const base = { owner: text.owner, type: text.type, found: text };
    const atApex = set.owner.equals(zone);
    const drop = (reason: string): Ruling => ({ ...base, ruling: 'drop', planned: undefined, reason });
    const carry = (reason: string): Ruling => ({ ...base, ruling: 'carry', planned: text, reason });
    const repoint = (data: readonly string[], reason: string): Ruling => ({
      ...base,
      ruling: 'repoint',
      planned: { ...text, ttl: text.ttl, data: [...data] },
      reason,
    });
    if (set.type === TYPE_CODES.SOA) return drop(`${HOSTS_OWN}: ${newDns.name} writes it`);
    if (set.type === TYPE_CODES.NS && atApex) return drop(`${HOSTS_OWN}: ${newDns.name} serves its own set`);
    if (MADE_BY_SIGNING.has(set.type)) return drop(`${HOSTS_OWN}: made by signing`);
    if ((set.type === TYPE_CODES.A || set.type === TYPE_CODES.AAAA) && newDns.nameservers.some((name) => Name.parse(name).equals(set.owner)))
      return drop(`${HOSTS_OWN}: where ${newDns.name}'s own nameserver has its address`);
    if (!newWeb) return carry('no new web host is chosen');
    if (set.type === TYPE_CODES.A || set.type === TYPE_CODES.AAAA) {
      const leadsToOld = text.data.some((address) => oldAddresses.has(address));
      if (!leadsToOld)
        return carry(newWeb.addresses.some((address) => text.data.includes(address)) ? `leads to ${newWeb.name} already` : 'leads elsewhere than the website');
      const other = uses(set.owner);
      if (other.length > 0) return carry(`stays for another use: ${usesWords(other)}`);
      const fits = newWeb.addresses.filter(set.type === TYPE_CODES.A ? isIpv4 : isIpv6);
      if (fits.length === 0) {
        const gone = drop(`${newWeb.name} has no ${set.type === TYPE_CODES.A ? 'IPv4' : 'IPv6'} address`);
        lost.add(gone);
        return gone;
      }
      return repoint(fits, `leads to the old web host; ${newWeb.name} answers there`);
    }
    if (set.type === TYPE_CODES.CNAME) {
      const target = namesIn(set.type, set.data[0]!)[0];
      if (target && oldAliases.some((alias) => target.isAtOrBelow(alias))) {
        const other = uses(set.owner);
        if (other.length > 0) return carry(`stays for another use: ${usesWords(other)}`);
        if (newWeb.aliasTarget) return repoint([newWeb.aliasTarget], `aliases the old web host; ${newWeb.name} answers there`);
        return carry(`aliases the old web host, and ${newWeb.name} names no alias target`);
      }
    }
    return carry('is not about the website');
  });
  if (newWeb?.aliasTarget && newWeb.addresses.length === 0)
    aliasInstead(rulings, lost, { zone, host: newWeb.name, target: newWeb.aliasTarget, atApex: newDns.apexAlias ?? false });
  if (newWeb) addRequired(rulings, zone, newWeb);
  return rulings;
}

/** A web host that has an alias target and no address: names that lost theirs become aliases, where nothing else stands at them (RFC 1034 §3.6.2). */
function aliasInstead(
  rulings: Ruling[],
  lost: ReadonlySet<Ruling>,
  { zone, host, target, atApex }: { readonly zone: Name; readonly host: string; readonly target: string; readonly atApex: boolean },
): void {
  const names = new Map<string, Ruling[]>();
  for (const row of lost) names.set(row.owner.toLowerCase(), [...(names.get(row.owner.toLowerCase()) ?? []), row]);
  for (const [owner, rows] of names) {
    const isApex = owner === zone.toString().toLowerCase();
    const beside = rulings.some((row) => row.planned && row.owner.toLowerCase() === owner && (!isApex || row.type === 'A' || row.type === 'AAAA'));
    if (beside || (isApex && !atApex)) continue;
    for (const row of rows) rulings[rulings.indexOf(row)] = { ...row, reason: `gives way to an alias of ${host}` };
    const { owner: shown, ttl } = rows[0]!.found!;
    const planned = { owner: shown, type: 'CNAME', ttl, data: [target] };
    rulings.push({ owner: shown, type: 'CNAME', ruling: 'new', found: undefined, planned, reason: `${host} answers there` });
  }
}

/** The sets that the new DNS host is to serve while the move is under way: TTLs low where a value changes. */
export function plannedSets(rulings: readonly Ruling[], phase: 'starting' | 'settled'): RRset[] {
  return rulings.flatMap((ruling) => {
    if (!ruling.planned) return [];
    const set = rrsetFromText(ruling.planned);
    return [phase === 'starting' ? { ...set, ttl: Math.min(set.ttl, STARTING_TTL) } : set];
  });
}

/** Adds what a web host asks for of every site to the rows. */
export function addRequired(rulings: Ruling[], zone: Name, newWeb: HostKnowledge): void {
  for (const need of proposed(newWeb)) {
    const set = required(zone, need);
    const made = set ? rowWith(rulings, set, `${newWeb.name} ${ASKED_FOR}`) : undefined;
    if (made?.instead) rulings[rulings.indexOf(made.instead)] = made.row;
    else if (made) rulings.push(made.row);
  }
}
