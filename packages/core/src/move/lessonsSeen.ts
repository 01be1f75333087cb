import { panelTtl } from '../hosts/enter';
import { KnownStyle, styleOf } from '../hosts/entryStyle';
import { STARTING_TTL } from '../rebuild/propose';
import { isHostsOwn } from '../rebuild/ruling';
import { Lesson, TypedSet, lessonsOf } from '../slips/lessons';
import { rebuildsZone } from './account';
import { isByHand } from './byHand';
import { Leg } from './leg';
import { keyOfRow } from './plan';
import { slipSeen } from './slipsSeen';

/** Sets that are gone over for one look at a move: a panel does with the next what it did with these. */
const MOST_SETS = 400;

/** What the servers of a panel say of how it takes what is typed into it, where a person types it; `known`: what is known of it already. */
export function lessonsSeen(leg: Leg, known: KnownStyle | null): Lesson[] {
  const { plan, seen } = leg;
  if (!plan.chosen || plan.isBack || !isByHand(leg)) return [];
  const style = styleOf(known);
  const servers = new Set(plan.newServers.map((one) => one.address));
  // One server is enough: the others have what it has, sooner or later.
  const server = seen.zones.find((one) => servers.has(one.address) && one.sightings.length > 0);
  if (!server) return [];
  const { address, sightings } = server;
  const typed = plan.rulings.filter((row) => !isHostsOwn(row) && row.planned && (rebuildsZone(plan) || row.ruling !== 'carry')).slice(0, MOST_SETS);
  const sets = typed.flatMap((row): TypedSet[] => {
    const key = keyOfRow(row);
    const served = sightings.at(-1)!.value.sets[key];
    if (!served) return [];
    // Its lasting TTL may have been typed at once, or have been raised since.
    const ttl = served.ttl === row.planned!.ttl ? undefined : panelTtl(style, Math.min(row.planned!.ttl, STARTING_TTL));
    const slip = leg.wanted.is(key, served) === false ? slipSeen(leg, address, key, served) : undefined;
    // What is not as planned and not explained says nothing.
    if (!slip && leg.wanted.is(key, served) !== true) return [];
    return [{ type: row.type, ttl, served, codes: slip?.codes ?? [] }];
  });
  return lessonsOf(known, sets);
}
