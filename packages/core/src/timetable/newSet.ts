import { Name } from '../dns/name';
import { TYPE_CODES } from '../dns/typeNames';
import { LegPlan, keyOf, setKey } from '../move/plan';
import { Said } from '../move/said';
import { ParentSight, Seen, ZoneSight } from '../move/seen';
import { nameKey, sameNameSet } from '../watch/verdict';
import { Instant } from './instant';
import { Sight } from './runs';

/** Names that stand in both sets and have other addresses in the new one: there the new is told by address. */
export function sharedNames(plan: Pick<LegPlan, 'oldServers' | 'newServers'>): ReadonlyMap<string, readonly string[]> {
  let shared = made.get(plan);
  if (!shared) made.set(plan, (shared = findShared(plan)));
  return shared;
}
const made = new WeakMap<object, ReadonlyMap<string, readonly string[]>>();

function findShared(plan: Pick<LegPlan, 'oldServers' | 'newServers'>): ReadonlyMap<string, readonly string[]> {
  const shared = new Map<string, string[]>();
  const addresses = (servers: LegPlan['newServers'], name: string): string[] => servers.filter((one) => lower(one.server) === name).map((one) => one.address);
  for (const name of new Set(plan.newServers.map((one) => lower(one.server)))) {
    const [before, after] = [addresses(plan.oldServers, name), addresses(plan.newServers, name)];
    if (before.length > 0 && before.some((address) => !after.includes(address))) shared.set(name, after);
  }
  return shared;
}

/**
 * True where a server of the parent publishes the new set, by names, and by address where names stay; and where an authority for
 * names that stay gives their new addresses.
 */
export function publishesNew(plan: LegPlan, sight: ParentSight): boolean {
  if (!sight.onlyAddresses && !sameNameSet(sight.nameservers, plan.newNameservers)) return false;
  if (sight.onlyAddresses && sight.glue.length === 0) return false;
  for (const [name, addresses] of sharedNames(plan)) {
    const glue = sight.glue.filter((one) => lower(one.name) === name).map((one) => one.address);
    if (glue.some((address) => !addresses.includes(address))) return false;
  }
  return true;
}

/** Names that stay, stand outside of the zone, and move to another address: their own authorities say when (RFC 2181 §5.4.1). */
export function namesElsewhere(plan: LegPlan): string[] {
  return [...sharedNames(plan).keys()].filter((name) => !Name.parse(name).isAtOrBelow(plan.zone));
}

/** Whether what a server says can tell the new set from the old one: by its names, or by an address of a name that stays. */
function tells(plan: LegPlan, sight: ParentSight): boolean {
  if (!sight.onlyAddresses && !sameNameSet(plan.oldNameservers, plan.newNameservers)) return true;
  const shared = sharedNames(plan);
  return shared.size === 0 || sight.glue.some((one) => shared.has(lower(one.name)));
}

/** By what a person says that names of which no server tells are at their new addresses. */
export const NAMES_MOVED = 'names of the nameservers';

/** Names that stay and of which no server says where they are; nothing is switched while there is one, but by a person's word. */
export function untoldNames({ plan, seen }: Pick<SwitchInput, 'plan' | 'seen'>): string[] {
  const latest = seen.parent.flatMap((server) => server.sightings.at(-1)?.value ?? []);
  return [...sharedNames(plan).keys()].filter((name) => !latest.some((sight) => sight.glue.some((one) => lower(one.name) === name)));
}

/** True where an old authority has turned: it names the new set only, at the new addresses, or has refused for long. */
export function hasTurned(plan: LegPlan, sight: ZoneSight): boolean {
  if (sight.refused) return true;
  const ns = sight.sets[keyOf(plan.zone, TYPE_CODES.NS)];
  if (!ns || ns.data.length === 0) return false;
  const wanted = new Set(plan.newNameservers.map(nameKey));
  if (!ns.data.every((name) => wanted.has(nameKey(name)))) return false;
  for (const [name, addresses] of sharedNames(plan))
    for (const type of ['A', 'AAAA']) if ((sight.sets[setKey(name, type)]?.data ?? []).some((address) => !addresses.includes(address))) return false;
  return true;
}

export interface SwitchInput {
  readonly plan: LegPlan;
  readonly seen: Pick<Seen, 'parent'>;
  readonly said: Said;
}

/** What a server of the parent was seen to publish in this leg; where a leg goes back, the set that is wanted was there before it. */
export function sightsOfLeg({ backSince }: Pick<LegPlan, 'backSince'>, sightings: readonly Sight<ParentSight>[]): readonly Sight<ParentSight>[] {
  if (backSince === undefined) return sightings;
  return sightings.filter((one, index) => one.last >= backSince || index === sightings.length - 1);
}

/** ts: the earliest moment at which some parent server may have published the new set: as somebody said, or as it was seen. */
export function switchedSince({ plan, seen, said }: SwitchInput): Instant | undefined {
  const before = seen.parent.flatMap((server) => {
    const sightings = sightsOfLeg(plan, server.sightings);
    const index = sightings.findIndex((one) => tells(plan, one.value) && publishesNew(plan, one.value));
    return index < 0 ? [] : [Math.max(plan.backSince ?? -Infinity, sightings[index - 1]?.last ?? sightings[index]!.first)];
  });
  const all = [...before, ...(said.submittedAt === undefined ? [] : [said.submittedAt])];
  return all.length === 0 ? undefined : Math.min(...all);
}

const lower = (name: string): string => name.toLowerCase();
