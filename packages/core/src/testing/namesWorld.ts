import { LegPlan, setKey } from '../move/plan';
import { ParentSight, ZoneSight } from '../move/seen';
import { HOSTS_OWN } from '../rebuild/ruling';
import { ParentSlot, ZoneSlot } from './reachability';
import { Cast, Dice, KEY, Looked, NS_KEY, VALUES, World, approved, circumstances, nameOf, planOf, script } from './world';

/** A name of the zone, or one of the host's, for each server of either set. */
const INSIDE = ['ns0.zone.test.', 'ns1.zone.test.'];
const OUTSIDE = ['ns0.host.test.', 'ns1.host.test.'];

/**
 * A world in which the names of the nameservers stay and their addresses change. What leads is an address: glue at the parent and what
 * servers of the zone give, where the names stand inside of it; else what the authorities of the names give, who are seen beside the
 * parent. `ns` of a slot are those addresses, and `nsTtl` how long they are kept.
 */
export function namesWorldOf(seed: number, quiet: boolean): World {
  const dice = new Dice(seed);
  const inside = dice.chance(70);
  const names = inside ? INSIDE : OUTSIDE;
  // Sometimes one of the servers stays where it is.
  const fresh = !quiet && dice.chance(25) ? ['n0', 'o1'] : ['n0', 'n1'];
  const cast: Cast = { old: ['o0', 'o1'], fresh, third: ['t0'] };
  const { ttl, every, mood, P, T, C, lowerTo, lowering } = circumstances(dice, quiet);
  const switching = lowering + (quiet ? 4 + Math.max(T, C) : dice.below(45)) + dice.below(6);
  const looked = new Map<string, Looked>();
  const leads = (ns: readonly string[], nsTtl: number): ParentSlot => ({ ns, nsTtl, dsTtl: undefined });
  const told = (): ParentSlot[] => {
    const lag = dice.below(6);
    const [before, after] = [leads(cast.old, P), leads(fresh, P)];
    const made = script(
      dice,
      mood,
      every(),
      [
        { from: 0, state: before },
        { from: switching + lag, state: after },
      ],
      [before, after, leads(inside ? cast.third : cast.old, ttl(12))],
    );
    looked.set(`p${parents.length}`, made.looked);
    return made.slots;
  };
  const parents: ParentSlot[][] = [];
  // A parent that has no glue for them names the same names all along, and tells nothing.
  if (!inside) {
    const made = script(dice, 0, every(), [{ from: 0, state: leads([], P) }], []);
    looked.set('p0', made.looked);
    parents.push(made.slots);
  }
  for (let left = 1 + dice.below(2); left > 0; left--) parents.push(told());

  const zones = new Map<string, ZoneSlot[]>();
  for (const address of new Set([...cast.old, ...fresh, ...cast.third])) {
    const lag = dice.below(5);
    const as = (value: string, valueTtl: number, ns: readonly string[], nsTtl: number): ZoneSlot => ({ ns: inside ? ns : [], nsTtl, value, ttl: valueTtl });
    const Tx = Math.max(1, T - dice.below(3));
    const found = as(VALUES.old, Tx, cast.old, C);
    const lowered = as(VALUES.old, lowerTo, cast.old, C);
    const good = as(VALUES.new, lowerTo, fresh, ttl(8));
    const turned = as(dice.chance(60) ? VALUES.old : VALUES.new, lowerTo, fresh, lowerTo);
    const isOld = cast.old.includes(address);
    const stages = fresh.includes(address)
      ? isOld
        ? [
            { from: 0, state: found },
            { from: lowering + lag, state: lowered },
            { from: switching - dice.below(3), state: good },
          ]
        : [
            { from: 0, state: quiet || dice.chance(70) ? good : as('', lowerTo, fresh, C) },
            { from: lowering, state: good },
          ]
      : isOld
        ? [
            { from: 0, state: found },
            { from: lowering + lag, state: lowered },
            ...(quiet || dice.chance(80) ? [{ from: switching + dice.below(12), state: turned }] : []),
          ]
        : [{ from: 0, state: as(VALUES.third, ttl(10), cast.third, C) }];
    const strange = [found, lowered, as(VALUES.third, ttl(10), cast.old, lowerTo), as('', ttl(6), cast.old, C)];
    const made = script(dice, mood, every(), stages, strange);
    zones.set(address, made.slots);
    looked.set(address, made.looked);
  }
  return {
    ...{ cast, truth: { parents, zones }, looked, lowerTo },
    plan: planWith(cast, T, names),
    said: approved(lowerTo),
    describe: `names ${names.join()} P ${P} T ${T} C ${C} lowered to ${lowerTo} at ${lowering}, switched at ${switching}; old ${cast.old.join()} new ${fresh.join()}`,
    sights: {
      parent: (slot, server) => parentSight(slot, names, !inside && server !== 'p0'),
      zone: (slot) => zoneSight(slot, names, cast, inside),
    },
  };
}

function planWith(cast: Cast, T: number, names: readonly string[]): LegPlan {
  const plan = planOf(cast, T, undefined);
  const at = (addresses: readonly string[]): LegPlan['oldServers'] => addresses.map((address, index) => ({ server: names[index]!, address }));
  const own = names.map((owner, index) => {
    const found = { owner, type: 'A', ttl: T, data: [cast.old[index]!] };
    return { owner, type: 'A', ruling: 'drop' as const, found, planned: undefined, reason: HOSTS_OWN };
  });
  const apex = { ...plan.rulings[1]!, found: { ...plan.rulings[1]!.found!, data: [...names] } };
  return {
    ...plan,
    rulings: [plan.rulings[0]!, apex, ...(names === INSIDE ? own : [])],
    oldNameservers: names,
    newNameservers: names,
    oldServers: at(cast.old),
    newServers: at(cast.fresh),
  };
}

function parentSight(slot: ParentSlot, names: readonly string[], onlyAddresses: boolean): ParentSight {
  const strange = slot.ns.join() === 't0';
  const glue = strange ? [] : slot.ns.map((address, index) => ({ name: names[index]!, address, ttl: slot.nsTtl }));
  const nameservers = onlyAddresses ? [] : strange ? slot.ns.map(nameOf) : [...names];
  return { nameservers, ttl: slot.nsTtl, glue, ds: [], dsTtl: 0, ...(onlyAddresses && { onlyAddresses }) };
}

/** The NS set is the same everywhere but at the servers of a third set; what differs is the addresses of its names. */
function zoneSight(slot: ZoneSlot, names: readonly string[], cast: Cast, inside: boolean): ZoneSight {
  const isThird = slot.ns.join() === cast.third.join();
  const addresses = inside && !isThird ? slot.ns.map((address, index) => [setKey(names[index]!, 'A'), { ttl: slot.nsTtl, data: [address] }] as const) : [];
  const sets = {
    [KEY]: { ttl: slot.ttl, data: slot.value === '' ? [] : [slot.value] },
    [NS_KEY]: { ttl: slot.nsTtl, data: isThird ? slot.ns.map(nameOf) : [...names].sort() },
    ...Object.fromEntries(addresses),
  };
  return { serial: 1, refused: false, sets };
}
