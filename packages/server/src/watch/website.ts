import { Follower, Name, PageLook, Ruling, rrsetFromText } from '@wanderon/core';
import { NetError, limited, lookAtPages } from '@wanderon/net';
import { Network } from '../network/network';
import { resolver } from '../survey/whereNamesLead';

/** Seconds that a look at all pages may take. */
const LONGEST = 90;

/**
 * Looks at pages where the planned records lead, whatever is published yet: as visitors get them after the switch, and
 * before it as a rehearsal. Pages whose turn did not come in time are left out.
 */
export async function lookWherePlanLeads(network: Network, zone: Name, rulings: readonly Ruling[], pages: readonly string[]): Promise<PageLook[]> {
  const signal = AbortSignal.timeout(LONGEST * 1000);
  const { walker, http } = network.surveyWorld;
  const follower = new Follower(
    rulings.flatMap((row) => (row.planned ? [rrsetFromText(row.planned)] : [])),
    [],
  );
  const resolve = resolver(walker(signal), (host) => {
    const last = follower.lastOf(host);
    return last.isAtOrBelow(zone) ? follower.addressesOf(last) : last;
  });
  const looks = await limited(pages, 4, async (page): Promise<PageLook[]> => {
    if (signal.aborted) return [];
    try {
      return await lookAtPages({ ...http, resolve }, [page], signal);
    } catch (error) {
      if (!(error instanceof NetError)) throw error;
      const slow = { hops: [], problem: `it was not through after ${LONGEST} s`, keepsPath: null, page: null };
      return ['http', 'https'].map((scheme) => ({ start: `${scheme}://${page}`, ...slow }));
    }
  });
  return looks.flat();
}

/** Host names with a path of what was looked at: each is asked for over HTTP and HTTPS. */
export function pagesLookedAt(looks: readonly PageLook[]): string[] {
  return [...new Set(looks.map((look) => look.start.replace(/^https?:\/\//, '')))];
}
