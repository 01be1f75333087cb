import { isIpv4 } from '../dns/address';
import { LegPlan } from './plan';
import { AnsweredRow, Front } from './fronted';

type DnsHost = Pick<NonNullable<LegPlan['newHost']>, 'keyed' | 'habits'>;

/**
 * The DNS host takes an alias at the apex and answers with the addresses that it leads to then. By update none can be set: the apex has
 * SOA and NS, and servers leave out an alias beside them (RFC 2136 §3.4.2.2).
 */
export function takesApexAlias(host: DnsHost | undefined): boolean {
  return host !== undefined && !host.keyed && host.habits?.apexAlias === 'addresses';
}

/** TTL in seconds that most hosts give such an answer. */
const ANSWERED_TTL = 300;

/** The rows as servers answer them: addresses in the place of an alias at the apex, which nobody is told of. */
export function withApexAlias(plan: Pick<LegPlan, 'zone' | 'newHost' | 'newWeb'>, rows: readonly AnsweredRow[]): readonly AnsweredRow[] {
  if (!takesApexAlias(plan.newHost)) return rows;
  const apex = plan.zone.toString().toLowerCase();
  const alias = rows.find((row) => row.type === 'CNAME' && row.planned && row.owner.toLowerCase() === apex);
  if (!alias) return rows;
  const isOwn = (row: AnsweredRow): boolean => row.owner.toLowerCase() === apex && (row.type === 'A' || row.type === 'AAAA' || row === alias);
  const asAddresses = (['A', 'AAAA'] as const).map((type): AnsweredRow => {
    const found = rows.find((row) => isOwn(row) && row.type === type)?.found;
    const planned = { owner: alias.owner, type, ttl: ANSWERED_TTL, data: [] };
    const base = { owner: alias.owner, type, found, planned, reason: alias.reason };
    return { ...base, ruling: found ? 'repoint' : 'new', front: frontOf(plan, alias, type, found?.data ?? []) };
  });
  return [...rows.filter((row) => !isOwn(row)), ...asAddresses];
}

/** The addresses of the new web host, where it is to its alias and they are known; else whatever stood there not before. */
function frontOf({ newWeb }: Pick<LegPlan, 'newWeb'>, { planned }: AnsweredRow, type: 'A' | 'AAAA', before: readonly string[]): Front {
  const isTheirs = newWeb?.aliasTarget?.toLowerCase() === planned!.data[0]?.toLowerCase();
  const known = isTheirs ? newWeb!.addresses.filter((one) => isIpv4(one) === (type === 'A')) : [];
  const ranges = known.map((one) => `${one}/${type === 'A' ? 32 : 128}`);
  return { ranges, stored: undefined, alias: true, ...(known.length === 0 && { unlike: before, mayLack: type === 'AAAA' }) };
}
