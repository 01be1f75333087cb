import { Follower, Name, PageLook, rrsetFromText } from '@wanderon/core';
import { lookAtPages } from '@wanderon/net';
import { RulingRow } from '../moves/leg';
import { Network } from '../network/network';
import { resolver } from '../survey/whereNamesLead';

/** Milliseconds that a look at all pages may take. */
const LONGEST = 90_000;

/**
 * Looks at pages where the planned records lead, whatever is published yet: as visitors get them after the switch, and
 * before it as a rehearsal. Throws a NetError of kind `cancelled` where the pages take too long.
 */
export async function lookWherePlanLeads(network: Network, zone: Name, rulings: readonly RulingRow[], pages: readonly string[]): Promise<PageLook[]> {
  const signal = AbortSignal.timeout(LONGEST);
  const { walker: walkerFor, http } = network.surveyWorld;
  const walker = walkerFor(signal);
  const sets = rulings.flatMap((row) => (row.planned ? [rrsetFromText(row.planned)] : []));
  const follower = new Follower(sets, []);
  const outside = resolver(walker, () => undefined);
  const resolve = async (host: string): Promise<readonly string[]> => {
    const last = follower.lastOf(Name.parse(`${host}.`));
    return last.isAtOrBelow(zone) ? follower.addressesOf(last) : outside(last.toString().replace(/\.$/, ''));
  };
  return lookAtPages({ ...http, resolve }, pages, signal);
}

/** Host names with a path of what was looked at: each is asked for over HTTP and HTTPS. */
export function pagesLookedAt(looks: readonly PageLook[]): string[] {
  return [...new Set(looks.map((look) => look.start.replace(/^https?:\/\//, '')))];
}
