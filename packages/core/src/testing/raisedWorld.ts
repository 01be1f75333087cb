import { ParentSlot, ZoneSlot } from './reachability';
import { Dice, END, Looked, VALUES, World, approved, circumstances, planOf } from './world';

/**
 * A world in which somebody raises a TTL at the primary shortly before it is lowered, or saves another value there, between two looks that
 * are far apart. Every server is looked at right before the lowering and at its answer; or a person lowers by hand, and one look at least
 * has seen what was saved at the primary. A secondary fetches what the primary holds then, now and then: it may have answered the raised TTL
 * and have dropped it with no look in between.
 */
export function raisedWorldOf(seed: number, quiet: boolean, looksAtLowering = true): World {
  const dice = new Dice(seed);
  const inPlace = dice.chance(40);
  const old = ['o0', 'o1', 'o2'].slice(0, 1 + dice.below(3));
  const fresh = inPlace ? old : ['n0'];
  const { P, T, C, lowerTo } = circumstances(dice, quiet);
  const every = 2 + dice.below(6);
  const lowering = every + 1 + dice.below(12);
  const byHand = looksAtLowering && dice.chance(50);
  const lastLook = Math.floor((lowering - 1) / every) * every;
  // What somebody saves meanwhile is there when it is lowered, at the latest.
  const raising = quiet ? lowering : (byHand ? lastLook : lowering - 1) - dice.below(every);
  const raised = T + 4 + dice.below(30);
  const switching = lowering + raised + dice.below(25);
  const as = (value: string, ttl: number, nsTtl: number, ns: readonly string[] = old): ZoneSlot => ({ value, ttl, nsTtl, ns });
  const good = as(VALUES.new, lowerTo, lowerTo, fresh);
  const saved = as(dice.chance(70) ? VALUES.old : VALUES.third, raised, dice.chance(50) ? C : raised);
  const primary = stagesOf([
    { from: 0, state: as(VALUES.old, T, C) },
    ...(quiet ? [] : [{ from: raising, state: saved }]),
    { from: lowering, state: as(VALUES.old, lowerTo, lowerTo) },
    { from: switching, state: inPlace ? good : as(VALUES.old, lowerTo, lowerTo, fresh) },
  ]);
  const zones = new Map<string, readonly ZoneSlot[]>([[old[0]!, primary]]);
  for (const address of old.slice(1)) zones.set(address, fetchedFrom(primary, dice));
  if (!inPlace) zones.set('n0', stagesOf([{ from: 0, state: good }]));
  const parent = stagesOf<ParentSlot>([
    { from: 0, state: { ns: old, nsTtl: P, dsTtl: undefined } },
    ...(inPlace ? [] : [{ from: switching, state: { ns: fresh, nsTtl: P, dsTtl: undefined } }]),
  ]);
  const looked = new Map<string, Looked>(
    ['p0', ...zones.keys()].map((server) => [server, looksOf(every, looksAtLowering && !byHand ? [lowering - 1, lowering] : [])]),
  );
  const plan = planOf({ old, fresh, third: [] }, T, undefined);
  return {
    cast: { old, fresh, third: [] },
    truth: { parents: [parent], zones },
    looked,
    plan: inPlace ? { ...plan, kind: 'repoint' } : plan,
    said: approved(lowerTo),
    lowerTo,
    describe: `P ${P} T ${T} C ${C} raised to ${raised} at ${raising}, lowered to ${lowerTo} at ${lowering}, switched at ${switching}, looks every ${every}, ${byHand ? 'by hand, ' : ''}${inPlace ? 'in place' : 'other nameservers'}, old ${old.join()}`,
  };
}

function stagesOf<S>(stages: readonly { readonly from: number; readonly state: S }[]): S[] {
  return Array.from({ length: END + 1 }, (_, slot) => stages.findLast(({ from }) => from <= slot)!.state);
}

/** A secondary: it fetches what the primary holds then, after pauses of its own. */
function fetchedFrom(primary: readonly ZoneSlot[], dice: Dice): ZoneSlot[] {
  const slots: ZoneSlot[] = [];
  let [held, next] = [primary[0]!, 0];
  for (const state of primary) {
    if (slots.length >= next) {
      held = state;
      next = slots.length + 1 + dice.below(5);
    }
    slots.push(held);
  }
  return slots;
}

function looksOf(every: number, extra: readonly number[]): Looked {
  const times = new Set(extra);
  for (let at = 0; at <= END; at += every) times.add(at);
  return { looks: [...times].sort((a, b) => a - b).map((at) => ({ at, answered: true })), every };
}
