import { BackWay, backPlan } from '../move/back';
import { LegPlan } from '../move/plan';
import { saidBy } from '../move/said';
import { ParentSlot, ZoneSlot } from './reachability';
import { Cast, Dice, Looked, VALUES, World, circumstances, planOf, script } from './world';

const FORMS = ['nameservers', 'records where the zone is now', 'records in place'] as const;

/**
 * A world in which a change was made, at any stage of it, and is taken back: by the nameservers, by the records at the new host, or by
 * records that had changed where they are. Claims are held against the leg that goes back, from when it begins.
 */
export function backWorldOf(seed: number, quiet: boolean): World {
  const dice = new Dice(seed);
  const form = dice.pick(FORMS);
  const how: BackWay = form === 'nameservers' ? 'nameservers' : 'records';
  const inPlace = form === 'records in place';
  const old = dice.chance(70) ? ['o0', 'o1'] : ['o0'];
  const fresh = inPlace ? old : dice.chance(50) ? ['n0', 'n1'] : ['n0'];
  const third = ['t0'];
  const { ttl, every, mood, P, T, C, lowerTo, lowering } = circumstances(dice, quiet);
  const switching = lowering + dice.below(20);
  // Often before everybody has seen the change; what was raised already by then is remembered for long.
  const begun = switching + (quiet ? 8 : dice.below(12)) + dice.below(15);
  const raised = dice.chance(30);
  const back = begun + 4 + dice.below(6);
  const looked = new Map<string, Looked>();
  const parents = Array.from({ length: 1 + dice.below(2) }, (_, index) => {
    const lag = dice.below(6);
    const slot = (ns: readonly string[]): ParentSlot => ({ ns, nsTtl: P, dsTtl: undefined });
    const [before, after] = [slot(old), slot(fresh)];
    const stages = [
      { from: 0, state: before },
      ...(inPlace ? [] : [{ from: switching + lag, state: after }]),
      ...(how === 'nameservers' ? [{ from: back + lag, state: before }] : []),
    ];
    const made = script(dice, mood, every(), stages, [slot(third), before, after]);
    looked.set(`p${index}`, made.looked);
    return made.slots;
  });
  const zones = new Map<string, ZoneSlot[]>();
  for (const address of new Set([...old, ...fresh, ...third])) {
    const lag = dice.below(4);
    const as = (value: string, valueTtl: number, ns: readonly string[], nsTtl: number): ZoneSlot => ({ ns, nsTtl, value, ttl: valueTtl });
    const found = as(VALUES.old, T, old, C);
    const turned = as(VALUES.old, lowerTo, fresh, lowerTo);
    const changed = as(VALUES.new, raised ? T : lowerTo, fresh, C);
    const setBack = as(VALUES.old, lowerTo, fresh, C);
    const turnedBack = as(dice.pick([VALUES.new, VALUES.old]), lowerTo, old, lowerTo);
    const early = Math.max(begun + 1, back - lag);
    const stages = third.includes(address)
      ? [{ from: 0, state: as(VALUES.third, ttl(10), third, C) }]
      : inPlace
        ? [
            { from: 0, state: found },
            { from: switching + lag, state: changed },
            { from: back + lag, state: as(VALUES.old, lowerTo, old, C) },
          ]
        : old.includes(address)
          ? [
              { from: 0, state: found },
              ...(quiet || dice.chance(70) ? [{ from: switching + lag, state: turned }] : []),
              // Made ready before the parent leads there again.
              ...(how === 'nameservers' ? [{ from: early, state: as(VALUES.old, lowerTo, old, C) }] : []),
            ]
          : how === 'nameservers'
            ? [{ from: 0, state: changed }, ...(quiet || dice.chance(80) ? [{ from: back + 4 + dice.below(8), state: turnedBack }] : [])]
            : [
                { from: 0, state: changed },
                { from: back + lag, state: setBack },
              ];
    const strange = [found, as(VALUES.third, ttl(10), old, lowerTo), as(VALUES.denied, ttl(6), old, C), changed];
    const made = script(dice, mood, every(), stages, strange);
    zones.set(address, made.slots);
    looked.set(address, made.looked);
  }
  const cast: Cast = how === 'nameservers' ? { old: fresh, fresh: old, third } : { old: fresh, fresh, third };
  const there = planOf({ old, fresh, third }, T, undefined);
  const plan: LegPlan = backPlan(inPlace ? { ...there, kind: 'repoint' } : there, how, begun, raised);
  const said = saidBy([
    { id: 1, kind: 'approve', subject: '', value: { lowerTo, lowerAt: null, plannedSwitch: null }, person: null, at: begun, undoes: null },
    ...(how === 'records' ? [{ id: 2, kind: 'submitted', subject: '', value: null, person: null, at: begun, undoes: null } as const] : []),
  ]);
  return {
    cast,
    truth: { parents, zones },
    looked,
    plan,
    said,
    lowerTo,
    from: begun,
    goal: VALUES.old,
    describe: `${form}: P ${P} T ${T} C ${C}, changed at ${switching}, back begun at ${begun}, done at ${back}; old ${old.join()} new ${fresh.join()}`,
  };
}
