import { isIpv4, isIpv6 } from '../dns/address';
import { Fix, FixedRow, fixedAway, fixedTo } from './fix';
import { CheckedWeb } from './host';
import { Ruling } from './ruling';

/** Addresses of a host that a set of this type can hold. */
export function addressesFor({ addresses }: CheckedWeb, type: 'A' | 'AAAA'): readonly string[] {
  return addresses.filter(type === 'A' ? isIpv4 : isIpv6);
}

/**
 * Leads a row to the new web host: of its values only those go that lead to the old one. Where the new host has no address of that
 * family, the old ones are left behind.
 */
export function toNewWeb(rulings: readonly Ruling[], row: Ruling, isOld: (data: string) => boolean, newWeb: CheckedWeb): Fix | undefined {
  const { owner, type } = row;
  const led = (rows: readonly FixedRow[], text: string): Fix => ({ text, rows });
  const set = row.planned ?? row.found;
  if (!set) return undefined;
  if (type === 'A' || type === 'AAAA') {
    const kept = set.data.filter((data) => !isOld(data));
    const fresh = addressesFor(newWeb, type);
    if (fresh.length > 0) return led([fixedTo(rulings, owner, type, [...fresh, ...kept])], `Lead it to ${newWeb.name}.`);
    if (kept.length > 0) return led([fixedTo(rulings, owner, type, kept)], `Take out what leads to the old host: ${newWeb.name} has no such address.`);
    return led([fixedAway(row)], `Take it out: ${newWeb.name} has no ${type === 'A' ? 'IPv4' : 'IPv6'} address.`);
  }
  if (type === 'CNAME') {
    if (newWeb.aliasTarget) return led([fixedTo(rulings, owner, type, [newWeb.aliasTarget])], `Lead it to ${newWeb.name}.`);
    return addressesInstead(rulings, row, newWeb);
  }
  return undefined;
}

/** Addresses of the new web host in the place of an alias; undefined where it names none. */
export function addressesInstead(rulings: readonly Ruling[], alias: Ruling, newWeb: CheckedWeb): Fix | undefined {
  const rows = (['A', 'AAAA'] as const).flatMap((type) => {
    const fresh = addressesFor(newWeb, type);
    return fresh.length > 0 ? [fixedTo(rulings, alias.owner, type, fresh)] : [];
  });
  return rows.length > 0 ? { text: `Take the addresses of ${newWeb.name} instead of the alias.`, rows: [fixedAway(alias), ...rows] } : undefined;
}
