import { End, Name, NameMap } from '@wanderon/core';
import { limited } from '@wanderon/net';
import { SurveyWalker } from './surveyWorld';

type Ways = Pick<SurveyWalker, 'addressesOf' | 'givenUp'>;

/** Names outside a zone whose addresses are asked for. */
const OUTSIDE = 60;

/**
 * How hosts of pages are resolved: `lead` gives the addresses of one, or the name to ask for at its authorities, each once:
 * no cache tells us what was, and nobody is asked in vain. What is no name of the DNS, as a redirect may have it, has none.
 */
export function resolver(walker: Ways, lead: (host: Name) => readonly string[] | Name): (host: string) => Promise<readonly string[]> {
  const known = new NameMap<Promise<readonly string[]>>();
  return async (host) => {
    const name = Name.tryParse(host.endsWith('.') ? host : `${host}.`);
    const led = name ? lead(name) : [];
    return led instanceof Name ? known.getOr(led, () => walker.addressesOf(led)) : led;
  };
}

/** What names outside a zone end at, asked for at their authorities. */
export async function endsOutside(walker: Ways, targets: readonly Name[]): Promise<End[]> {
  const ends = await limited(targets.slice(0, OUTSIDE), 4, async (target) => ({ target, addresses: await walker.addressesOf(target) }));
  // That the way was too long says nothing of whether there is an address.
  return ends.filter(({ target }) => !walker.givenUp.has(target.key));
}
