import { End, Name } from '@wanderon/core';
import { limited } from '@wanderon/net';
import { SurveyWalker } from './surveyWorld';

/** Names outside a zone whose addresses are asked for. */
const OUTSIDE = 60;

/** Addresses at the authorities, each name asked for once a survey: no cache tells us what was, and nobody is asked in vain. */
export function resolver(walker: SurveyWalker, inZone: (host: Name) => readonly string[] | undefined): (host: string) => Promise<readonly string[]> {
  const known = new Map<string, Promise<readonly string[]>>();
  return (host) => {
    const name = Name.parse(`${host}.`);
    const here = inZone(name);
    if (here) return Promise.resolve(here);
    const asked = known.get(host) ?? walker.addressesOf(name);
    known.set(host, asked);
    return asked;
  };
}

/** What names outside a zone end at, asked for at their authorities. */
export async function endsOutside(walker: SurveyWalker, targets: readonly Name[]): Promise<End[]> {
  return limited(targets.slice(0, OUTSIDE), 4, async (target) => ({ target, addresses: await walker.addressesOf(target) }));
}
