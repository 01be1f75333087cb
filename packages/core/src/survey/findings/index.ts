import { authorities } from './authorities';
import { Finder, Finding, Standing } from './finding';
import { livePanel } from './livePanel';
import { parent } from './parent';
import { registered } from './registered';
import { signing } from './signing';
import { zonesBelow } from './zonesBelow';

const FINDERS: readonly Finder[] = [parent, registered, authorities, signing, zonesBelow, livePanel];
const ORDER: Readonly<Record<Finding['weight'], number>> = { stop: 0, look: 1, note: 2 };

/** Everything worth saying about where a domain stands, the gravest first. */
export function findingsOf(standing: Standing): Finding[] {
  return FINDERS.flatMap((finder) => finder(standing)).sort((a, b) => ORDER[a.weight] - ORDER[b.weight]);
}
