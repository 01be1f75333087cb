import { Name } from '../dns/name';
import { printRdata } from '../dns/rdata';
import { RRset, RRsetText } from '../dns/record';
import { TYPE_CODES } from '../dns/typeNames';
import { Follower } from '../survey/ends';
import { HostKnowledge } from './host';

/** What a web host that nobody described is called in sentences. */
export const PRESENT_WEB = 'the present web host';

/**
 * Where the website is today: what the domain itself and `www` lead to, whether or not somebody described that host. What is at the new
 * web host already, or at one of those described, is left out; so is what a DNS host answers in the place of what it stores (`fronted`),
 * which hides where the website is. Undefined where nothing is left.
 *
 *     www CNAME @, @ A 198.51.100.80  // at 198.51.100.80
 */
export function presentWeb(
  zone: Name,
  found: readonly RRset[],
  others: readonly (HostKnowledge | undefined)[],
  fronted: readonly RRsetText[] = [],
): HostKnowledge | undefined {
  const spellings = [zone, zone.child('www')];
  // Of sixty thousand sets only what leads from the two spellings is followed.
  const follower = new Follower(
    found.filter(({ owner, type }) => type === TYPE_CODES.CNAME || owner.isWildcard || spellings.some((name) => name.equals(owner))),
    [],
  );
  const known = new Set([...others.flatMap((host) => host?.addresses ?? []), ...fronted.flatMap((set) => set.data)]);
  const aliases = others.flatMap((host) => (host?.aliasTarget ? [Name.parse(host.aliasTarget)] : []));
  const addresses = new Set<string>();
  let aliasTarget: string | undefined;
  for (const name of spellings) {
    const last = follower.lastOf(name);
    if (!last.isAtOrBelow(zone)) {
      if (!aliases.some((alias) => last.isAtOrBelow(alias))) aliasTarget ??= last.toString();
      continue;
    }
    for (const set of found)
      if ((set.type === TYPE_CODES.A || set.type === TYPE_CODES.AAAA) && set.owner.equals(last))
        for (const data of set.data) addresses.add(printRdata(set.type, data));
  }
  const own = [...addresses].filter((address) => !known.has(address));
  if (own.length === 0 && aliasTarget === undefined) return undefined;
  return { name: PRESENT_WEB, nameservers: [], addresses: own, aliasTarget, requires: [] };
}
