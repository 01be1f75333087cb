import { End, Name, NameError, NameMap } from '@wanderon/core';
import { limited } from '@wanderon/net';
import { SurveyWalker } from './surveyWorld';

/** Names outside a zone whose addresses are asked for. */
const OUTSIDE = 60;

/**
 * How hosts of pages are resolved: `lead` gives the addresses of one, or the name to ask for at its authorities, each once:
 * no cache tells us what was, and nobody is asked in vain. What is no name of the DNS, as a redirect may have it, has none.
 */
export function resolver(walker: SurveyWalker, lead: (host: Name) => readonly string[] | Name): (host: string) => Promise<readonly string[]> {
  const known = new NameMap<Promise<readonly string[]>>();
  return async (host) => {
    const name = nameOf(host);
    const led = name ? lead(name) : [];
    return led instanceof Name ? known.getOr(led, () => walker.addressesOf(led)) : led;
  };
}

function nameOf(host: string): Name | undefined {
  try {
    return Name.parse(host.endsWith('.') ? host : `${host}.`);
  } catch (error) {
    if (error instanceof NameError) return undefined;
    throw error;
  }
}

/** What names outside a zone end at, asked for at their authorities. */
export async function endsOutside(walker: SurveyWalker, targets: readonly Name[]): Promise<End[]> {
  const ends = await limited(targets.slice(0, OUTSIDE), 4, async (target) => ({ target, addresses: await walker.addressesOf(target) }));
  // That the way was too long says nothing of whether there is an address.
  return ends.filter(({ target }) => !walker.givenUp.has(target.key));
}
