import { Name } from '../dns/name';
import { LegPlan, setKey } from '../move/plan';
import { Said, saidBy } from '../move/said';
import { AnswerSight, ParentSight, Seen, SightRow, ZoneSight, seenServers } from '../move/seen';
import { ParentSlot, TrueWorld, ZoneSlot } from './reachability';

/**
 * Generated worlds: servers of the parent and of both NS sets that say this and that over time, and somebody who looks at
 * them now and then, with answers that get lost and with time during which nobody looks.
 */
export const END = 125;

export const ZONE = Name.parse('zone.test.');
export const KEY = setKey('www.zone.test.', 'A');
export const NS_KEY = setKey('zone.test.', 'NS');

/** Address of each server, and the name by which the NS sets call it; `third`: what the parent fell back to for a while. */
export interface Cast {
  readonly old: readonly string[];
  readonly fresh: readonly string[];
  readonly third: readonly string[];
}

export interface Looked {
  /** Moments of the looks, and whether each was answered. */
  readonly looks: readonly { readonly at: number; readonly answered: boolean }[];
  readonly every: number;
}

export interface World {
  readonly cast: Cast;
  readonly truth: TrueWorld;
  readonly looked: ReadonlyMap<string, Looked>;
  readonly plan: LegPlan;
  readonly said: Said;
  /** TTL to which things go down. */
  readonly lowerTo: number;
  readonly describe: string;
  /** From when on claims are made, where it is not from the beginning; and the value that is wanted, where it is not the new one. */
  readonly from?: number;
  readonly goal?: string;
  /** How what a server says is seen, where its name does not tell it. */
  readonly sights?: { readonly parent: (slot: ParentSlot, server: string) => ParentSight; readonly zone: (slot: ZoneSlot) => ZoneSight };
}

export const nameOf = (address: string): string => `ns-${address}.host.test.`;
const OLD_VALUE = '192.0.2.1';
const NEW_VALUE = '192.0.2.2';
const THIRD_VALUE = '192.0.2.3';
export const VALUES = { old: OLD_VALUE, new: NEW_VALUE, third: THIRD_VALUE, denied: '' } as const;

export function planOf(cast: Cast, T: number, keysTtl: number | undefined): LegPlan {
  const at = (addresses: readonly string[]): LegPlan['oldServers'] => addresses.map((address) => ({ server: nameOf(address), address }));
  const found = { owner: 'www.zone.test.', type: 'A', ttl: T, data: [OLD_VALUE] };
  const apex = { owner: 'zone.test.', type: 'NS', ttl: T, data: cast.old.map(nameOf) };
  return {
    kind: 'delegation',
    scope: { kind: 'whole' },
    zone: ZONE,
    surveyedAt: 0,
    chosen: true,
    rulings: [
      { owner: 'www.zone.test.', type: 'A', ruling: 'repoint', found, planned: { ...found, data: [NEW_VALUE] }, reason: '' },
      { owner: 'zone.test.', type: 'NS', ruling: 'drop', found: apex, planned: undefined, reason: "the DNS host's own" },
    ],
    oldNameservers: cast.old.map(nameOf),
    newNameservers: cast.fresh.map(nameOf),
    otherSets: [],
    oldServers: at(cast.old),
    newServers: at(cast.fresh),
    oldHost: undefined,
    newHost: undefined,
    oldWeb: [],
    newWeb: undefined,
    fronted: [],
    keysTtl,
  };
}

/** What was observed until `now`, as the engine keeps it: equal sights in one row, a new row after a gap. */
export function observe(world: World, now: number): Seen {
  let rows = kept.get(world);
  if (!rows) kept.set(world, (rows = rowsOfWorld(world)));
  const until = <V>(all: readonly LookedRow<V>[]): SightRow<V>[] =>
    all.flatMap((row) => (row.first <= now ? [{ ...row, last: row.last <= now ? row.last : row.times.findLast((time) => time <= now)! }] : []));
  return {
    parent: seenServers(until(rows.parent)),
    zones: seenServers(until(rows.zones)),
    lookouts: [],
    watchers: 0,
    drift: undefined,
    registration: undefined,
    website: undefined,
    looked: {},
    planned: {},
    lookoutsAgain: undefined,
  };
}

type LookedRow<V> = SightRow<V> & { readonly times: readonly number[] };
const kept = new WeakMap<World, { parent: LookedRow<ParentSight>[]; zones: LookedRow<ZoneSight>[] }>();

function rowsOfWorld(world: World): { parent: LookedRow<ParentSight>[]; zones: LookedRow<ZoneSight>[] } {
  const parent: LookedRow<ParentSight>[] = [];
  const zones: LookedRow<ZoneSight>[] = [];
  for (const [server, { looks, every }] of world.looked) {
    const times = looks.flatMap((look) => (look.answered ? [look.at] : []));
    const slots = server.startsWith('p') ? world.truth.parents[Number(server.slice(1))]! : undefined;
    if (slots)
      parent.push(
        ...rowsOf(
          server,
          times,
          (at) => slots[at]!,
          (slot) => (world.sights?.parent ?? parentSight)(slot, server),
          every,
        ),
      );
    else zones.push(...rowsOf(server, times, (at) => world.truth.zones.get(server)![at]!, world.sights?.zone ?? zoneSight, every));
  }
  return { parent, zones };
}

/** Equal slots of a world are one and the same object. */
function rowsOf<S, V>(address: string, times: readonly number[], slotAt: (at: number) => S, sight: (slot: S) => V, every: number): LookedRow<V>[] {
  const rows: (LookedRow<V> & { slot: S })[] = [];
  for (const at of times) {
    const last = rows.at(-1);
    const slot = slotAt(at);
    if (last && last.slot === slot && at - last.last <= 3 * every) rows[rows.length - 1] = { ...last, last: at, times: [...last.times, at] };
    else rows.push({ server: nameOf(address), address, value: sight(slot), slot, problem: undefined, refused: false, first: at, last: at, times: [at], every });
  }
  return rows;
}

function parentSight(slot: ParentSlot): ParentSight {
  return { nameservers: slot.ns.map(nameOf), ttl: slot.nsTtl, glue: [], ds: slot.dsTtl === undefined ? [] : ['1 8 2 00'], dsTtl: slot.dsTtl ?? 0 };
}

function zoneSight(slot: ZoneSlot): ZoneSight {
  const answer: AnswerSight = { ttl: slot.ttl, data: slot.value === '' ? [] : [slot.value] };
  return { serial: 1, refused: false, sets: { [KEY]: answer, [NS_KEY]: { ttl: slot.nsTtl, data: slot.ns.map(nameOf).sort() } } };
}

/** A timeline of states, one a slot, in which a state that was not there before is seen before it changes again. */
interface Script<S> {
  readonly slots: S[];
  readonly looked: Looked;
}

/** Draws from a seed, the same every time (mulberry32), so that one number stands for a world. */
export class Dice {
  constructor(private state: number) {}
  below(n: number): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) % n;
  }
  chance(percent: number): boolean {
    return this.below(100) < percent;
  }
  pick<T>(all: readonly T[]): T {
    return all[this.below(all.length)]!;
  }
}

/**
 * `mood`: how often something goes wrong, in percent a look.
 * `stages`: what the server is meant to say one after the other; `strange`: what it may say in between.
 */
export function script<S>(
  dice: Dice,
  mood: number,
  every: number,
  stages: readonly { readonly from: number; readonly state: S }[],
  strange: readonly S[],
): Script<S> {
  const looks: { at: number; answered: boolean }[] = [];
  let away = 0;
  for (let at = 0; at <= END; at += every) {
    if (away === 0 && at > 0 && dice.chance(mood)) away = 1 + dice.below(30);
    if (away > 0) away = Math.max(0, away - every);
    looks.push({ at, answered: at === 0 || (away === 0 && !dice.chance(mood * 2)) });
  }
  const meant = (at: number): S => stages.findLast((stage) => stage.from <= at)!.state;
  const slots: S[] = [];
  const seen: S[] = [];
  const heard = looks.filter((look) => look.answered).map((look) => look.at);
  let detour: { state: S; until: number } | undefined;
  for (const [index, at] of heard.entries()) {
    const before = heard[index - 1];
    if (!detour && dice.chance(mood * 2) && index > 0) detour = { state: dice.pick(strange), until: at + dice.below(25) };
    if (detour && at > detour.until) detour = undefined;
    const state = detour?.state ?? meant(at);
    if (before === undefined) slots.push(state);
    else {
      // Between two looks: one change, at any moment; once nobody has looked for three looks, anything that was seen before.
      const change = before + 1 + dice.below(at - before);
      for (let slot = before + 1; slot < at; slot++) {
        if (at - before <= 3 * every) slots.push(slot < change ? slots[before]! : state);
        else slots.push(slot < before + 3 * every ? slots[before]! : dice.pick([...seen, state]));
      }
      slots.push(state);
    }
    if (!seen.includes(state)) seen.push(state);
  }
  while (slots.length <= END) slots.push(slots.at(-1)!);
  return { slots, looked: { looks, every } };
}

/** Any world, or a quiet one: everything is lowered, waited for, switched and turned in order, and every look is answered. */
export function worldOf(seed: number, quiet: boolean): World {
  return build(new Dice(seed), quiet);
}

/** What every world is made of: TTLs, how often is looked, how much goes wrong, and when what is lowered. */
export function circumstances(
  dice: Dice,
  quiet: boolean,
): {
  readonly ttl: (most: number) => number;
  readonly every: () => number;
  readonly mood: number;
  readonly P: number;
  readonly T: number;
  readonly C: number;
  readonly lowerTo: number;
  readonly lowering: number;
} {
  const ttl = (most: number): number => 1 + dice.below(most);
  // Often everything is looked at together, as before the gate opens.
  const together = dice.chance(60) ? 1 + dice.below(4) : undefined;
  const every = (): number => together ?? 1 + dice.below(4);
  // In percent a look.
  const mood = quiet ? 0 : dice.pick([0, 0, 1, 1, 2, 4]);
  return { ttl, every, mood, P: ttl(20), T: 4 + dice.below(20), C: 4 + dice.below(20), lowerTo: 1 + dice.below(4), lowering: 5 + dice.below(10) };
}

/** A world in which the servers stay and what they answer changes; somebody may change a part of it early, or change it back. */
export function repointWorldOf(seed: number, quiet: boolean): World {
  const dice = new Dice(seed);
  const servers = quiet || dice.chance(70) ? ['o0', 'o1'] : ['o0'];
  const cast: Cast = { old: servers, fresh: servers, third: ['t0'] };
  const { ttl, every, mood, P, T, C, lowerTo, lowering } = circumstances(dice, quiet);
  const switching = lowering + (quiet ? 4 + T : dice.below(45)) + dice.below(6);
  const looked = new Map<string, Looked>();
  const parents = Array.from({ length: 1 + dice.below(2) }, (_, index) => {
    const names = (ns: readonly string[]): ParentSlot => ({ ns, nsTtl: P, dsTtl: undefined });
    const made = script(dice, quiet ? 0 : Math.min(mood, 1), every(), [{ from: 0, state: names(servers) }], [names(cast.third), names(servers)]);
    looked.set(`p${index}`, made.looked);
    return made.slots;
  });
  const zones = new Map<string, ZoneSlot[]>();
  for (const address of [...servers, ...cast.third]) {
    const lag = dice.below(5);
    const as = (value: string, valueTtl: number, ns: readonly string[] = servers): ZoneSlot => ({ ns, nsTtl: C, value, ttl: valueTtl });
    const Tx = Math.max(1, T - dice.below(3));
    // The new value may be remembered for long at once: that is nobody's loss.
    const good = as(NEW_VALUE, dice.chance(50) ? lowerTo : T);
    const stages = cast.third.includes(address)
      ? [{ from: 0, state: as(THIRD_VALUE, ttl(10), cast.third) }]
      : [
          { from: 0, state: as(OLD_VALUE, Tx) },
          { from: lowering + lag, state: as(OLD_VALUE, lowerTo) },
          { from: switching + (quiet ? 0 : dice.below(8)), state: good },
        ];
    const made = script(dice, mood, every(), stages, [as(OLD_VALUE, Tx), as(THIRD_VALUE, ttl(10)), as('', ttl(6)), good, as(NEW_VALUE, lowerTo, cast.third)]);
    zones.set(address, made.slots);
    looked.set(address, made.looked);
  }
  const said = saidBy([{ id: 1, kind: 'approve', subject: '', value: { lowerTo, lowerAt: null, plannedSwitch: null }, person: null, at: 0, undoes: null }]);
  const plan: LegPlan = { ...planOf(cast, T, undefined), kind: 'repoint' };
  return {
    cast,
    truth: { parents, zones },
    looked,
    plan,
    said,
    lowerTo,
    describe: `P ${P} T ${T} C ${C} lowered to ${lowerTo} at ${lowering}, changed at ${switching}`,
  };
}

function build(dice: Dice, quiet: boolean): World {
  const old = quiet || dice.chance(70) ? ['o0', 'o1'] : ['o0'];
  const both = !quiet && dice.chance(20);
  const fresh = both ? ['n0', 'o1'] : dice.chance(50) ? ['n0', 'n1'] : ['n0'];
  const cast: Cast = { old: both ? ['o0', 'o1'] : old, fresh, third: ['t0'] };
  const { ttl, every, mood, P, T, C, lowerTo, lowering } = circumstances(dice, quiet);
  const switching = lowering + (quiet ? 4 + Math.max(T, C) : dice.below(45)) + dice.below(6);
  const signed = !quiet && dice.chance(25);
  const dsGone = Math.max(1, switching - dice.below(25));
  const D = ttl(12);
  const describe = [`P ${P} T ${T} C ${C} lowered to ${lowerTo} at ${lowering}, switched at ${switching}`, `old ${cast.old.join()} new ${fresh.join()}`];
  const looked = new Map<string, Looked>();
  const parents = Array.from({ length: 1 + dice.below(2) }, (_, index) => {
    const lag = dice.below(6);
    const slot = (ns: readonly string[], ds: boolean): ParentSlot => ({ ns, nsTtl: P, dsTtl: signed && ds ? D : undefined });
    const oldSigned = slot(cast.old, true);
    const oldPlain = slot(cast.old, false);
    const made = script(
      dice,
      mood,
      every(),
      [
        { from: 0, state: signed ? oldSigned : oldPlain },
        ...(signed ? [{ from: dsGone + lag, state: oldPlain }] : []),
        { from: switching + lag + (signed && dsGone >= switching ? dsGone - switching + 1 : 0), state: slot(fresh, false) },
      ],
      [oldPlain, slot(cast.third, false), ...(signed ? [oldSigned] : [])],
    );
    looked.set(`p${index}`, made.looked);
    return made.slots;
  });
  const zones = new Map<string, ZoneSlot[]>();
  const oldAs = (value: string, sTtl: number, nsTtl: number): ZoneSlot => ({ ns: cast.old, nsTtl, value, ttl: sTtl });
  for (const address of new Set([...cast.old, ...fresh, ...cast.third])) {
    const lag = dice.below(5);
    const good: ZoneSlot = { ns: fresh, nsTtl: ttl(8), value: NEW_VALUE, ttl: lowerTo };
    const isOld = cast.old.includes(address);
    const isNew = fresh.includes(address);
    const Tx = Math.max(1, T - dice.below(3));
    const denied = oldAs('', ttl(6), C);
    const strange = [oldAs(OLD_VALUE, Tx, C), oldAs(THIRD_VALUE, ttl(10), lowerTo), oldAs(OLD_VALUE, lowerTo, lowerTo), denied];
    const stages = !isOld
      ? isNew
        ? [
            { from: 0, state: { ...good, value: quiet ? NEW_VALUE : dice.pick([NEW_VALUE, '']) } },
            { from: lowering, state: good },
          ]
        : [{ from: 0, state: oldAs(THIRD_VALUE, ttl(10), C) }]
      : isNew
        ? [
            { from: 0, state: oldAs(OLD_VALUE, Tx, C) },
            { from: lowering + lag, state: oldAs(OLD_VALUE, lowerTo, lowerTo) },
            { from: switching - dice.below(3), state: good },
          ]
        : [
            { from: 0, state: oldAs(OLD_VALUE, Tx, C) },
            { from: lowering + lag, state: oldAs(OLD_VALUE, lowerTo, lowerTo) },
            ...(quiet || dice.chance(80)
              ? [{ from: switching + dice.below(12), state: { ns: fresh, nsTtl: lowerTo, value: dice.chance(60) ? OLD_VALUE : NEW_VALUE, ttl: lowerTo } }]
              : []),
          ];
    const made = script(dice, mood, every(), stages, strange);
    zones.set(address, made.slots);
    looked.set(address, made.looked);
  }
  // Only what the parent or a server of the zone ever named is asked.
  const plan = planOf(cast, T, signed ? ttl(8) : undefined);
  return { cast, truth: { parents, zones }, looked, plan, said: approved(lowerTo), lowerTo, describe: describe.join('; ') };
}

/** A timetable that lowers to so many seconds, and the push, are decided. */
export function approved(lowerTo: number): Said {
  const value = { lowerTo, lowerAt: null, plannedSwitch: null };
  return saidBy([
    { id: 1, kind: 'approve', subject: '', value, person: null, at: 0, undoes: null },
    { id: 2, kind: 'push', subject: '', value: null, person: null, at: 0, undoes: null },
  ]);
}
