import { Name } from '../dns/name';
import { isIpv4, isIpv6 } from '../dns/address';
import { RRset, RRsetText } from '../dns/record';
import { SetKey, setKey } from '../move/plan';
import { Scope, chosenNames, inScope } from '../move/scope';
import { HostKnowledge } from './host';
import { addRequired, proposeRulings } from './propose';
import { isLead } from './leads';
import { Ruling, isHostsOwn } from './ruling';

/** TTL in seconds of a record set that was not there before, once the move is settled. */
const NEW_TTL = 3600;

/**
 * Proposes what changes where the zone stays at its DNS host: for the whole website what leads to the old web host; for names, what
 * leads anywhere from them. Everything else is left as it is.
 */
export function proposeRepoint(
  zone: Name,
  found: readonly RRset[],
  hosts: {
    readonly scope: Scope;
    readonly oldWeb: readonly HostKnowledge[];
    readonly dns: HostKnowledge;
    readonly newWeb: HostKnowledge;
    readonly fronted?: readonly RRsetText[];
  },
): Ruling[] {
  const { scope, oldWeb, dns, newWeb, fronted = [] } = hosts;
  // The zone stays, and so does what the DNS host has in it of its own.
  const stays = (ruling: Ruling): Ruling => (isHostsOwn(ruling) ? { ...ruling, ruling: 'carry', planned: ruling.found } : ruling);
  if (scope.kind === 'whole') return proposeRulings(zone, found, { oldWeb, newDns: dns, newWeb, fronted }).map(stays);
  const rulings = proposeRulings(zone, found, { oldWeb: [], newDns: dns, newWeb: undefined }).map((ruling): Ruling =>
    isHostsOwn(ruling)
      ? stays(ruling)
      : { ...ruling, reason: inScope(scope, ruling.owner, ruling.type) ? 'is not about where the name leads' : 'is not in this move' },
  );
  const chosen = new Set(chosenNames(scope.names));
  const names = scope.names.filter(
    (name) => chosen.has(name) || rulings.some((ruling) => inScope({ kind: 'names', names: [name] }, ruling.owner, ruling.type)),
  );
  for (const name of names) repointName(rulings, zone, `${name}.`, newWeb);
  // What the host asks for at the domain itself, or elsewhere, it needs for this name as well.
  addRequired(rulings, zone, newWeb);
  return rulings;
}

/** Keys of the sets that a web host asks for, whether it gives their value to every site or to each. */
export function askedKeys(zone: Name, newWeb: HostKnowledge): SetKey[] {
  return [...new Set(newWeb.requires.map((need) => setKey(Name.parse(need.owner, zone).toString(), need.type)))];
}

/** One name's rows as they lead to the new web host, in place. */
export function repointName(rulings: Ruling[], zone: Name, owner: string, newWeb: HostKnowledge): void {
  const isOwn = (ruling: Ruling): boolean => ruling.owner.toLowerCase() === owner.toLowerCase();
  const rows = rulings.filter(isOwn);
  const wanted = new Map(wantedAt(zone, owner, rows, newWeb));
  const byAlias = wanted.has('CNAME');
  const found = rows.find((row) => row.found && isLead(row.type))?.found;
  for (const [index, row] of rulings.entries()) {
    if (!isOwn(row) || !isLead(row.type) || isHostsOwn(row)) continue;
    const data = wanted.get(row.type);
    wanted.delete(row.type);
    rulings[index] = data
      ? { ...row, ...leadsThere(row, data, newWeb) }
      : { ...row, ruling: 'drop', planned: undefined, reason: goneWords(row.type, byAlias, newWeb) };
  }
  for (const [type, data] of wanted) {
    const planned: RRsetText = { owner, type, ttl: found?.ttl ?? NEW_TTL, data: [...data] };
    rulings.push({ owner, type, ruling: 'new', found: undefined, planned, reason: `${newWeb.name} answers there` });
  }
}

function leadsThere(row: Ruling, data: readonly string[], newWeb: HostKnowledge): Pick<Ruling, 'ruling' | 'planned' | 'reason'> {
  const { found } = row;
  const same = found!.data.length === data.length && found!.data.every((text) => data.some((one) => one.toLowerCase() === text.toLowerCase()));
  if (same) return { ruling: 'carry', planned: found, reason: `leads to ${newWeb.name} already` };
  return { ruling: 'repoint', planned: { ...found!, data: [...data] }, reason: `${newWeb.name} answers there` };
}

function goneWords(type: string, byAlias: boolean, newWeb: HostKnowledge): string {
  if (byAlias) return `gives way to an alias of ${newWeb.name}`;
  return type === 'CNAME' ? `gives way to addresses of ${newWeb.name}` : `${newWeb.name} has no ${type === 'A' ? 'IPv4' : 'IPv6'} address`;
}

/** An alias where one stands already or no address is known, and nothing stands beside it; else addresses. */
function wantedAt(zone: Name, owner: string, rows: readonly Ruling[], { aliasTarget, addresses }: HostKnowledge): [string, readonly string[]][] {
  const beside = rows.some((row) => !isLead(row.type) && !isHostsOwn(row)) || Name.parse(owner).equals(zone);
  const alias = aliasTarget !== undefined && !beside && (addresses.length === 0 || rows.some((row) => row.type === 'CNAME'));
  if (alias) return [['CNAME', [aliasTarget]]];
  const [v4, v6] = [addresses.filter(isIpv4), addresses.filter(isIpv6)];
  return [...(v4.length > 0 ? [['A', v4] as [string, string[]]] : []), ...(v6.length > 0 ? [['AAAA', v6] as [string, string[]]] : [])];
}
