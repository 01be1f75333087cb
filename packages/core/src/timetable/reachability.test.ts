import fc from 'fast-check';
import { Reach } from '../testing/reachability';
import { END, repointWorldOf, worldOf } from '../testing/world';
import { backWorldOf } from '../testing/backWorld';
import { ServerSeen } from '../move/seen';
import { legTimes } from './legTimes';
import { namesWorldOf } from '../testing/namesWorld';
import { Claims, claimsOf, earlyClaims, lateSettled } from '../testing/claims';

const seed = Number(process.env['SEED'] ?? Math.floor(Math.random() * 2 ** 31));
const runs = Number(process.env['WORLDS'] ?? 800);

/** The claims of the real rules and folds against what caches can hold, in worlds that know nothing of the formulas. */
describe(`claims against reachability (SEED=${seed})`, () => {
  describe.each([
    ['where the nameservers change', worldOf, 1],
    ['where records change in place', repointWorldOf, 0.4],
    ['where the names of the nameservers stay', namesWorldOf, 0.4],
    ['where a change is taken back', backWorldOf, 0.4],
  ])('%s', (_what, make, share) => {
    it('are never early, whatever the servers do and whoever looks away', () => {
      const numRuns = Math.ceil(runs * share);
      let settled = 0;
      let opened = 0;
      fc.assert(
        fc.property(fc.nat(), (number) => {
          const world = make(number, false);
          const found = earlyClaims(world, claimsOf());
          settled += found.settled;
          opened += found.opened;
          if (found.early.length > 0) throw new Error(`${found.early[0]}\n${world.describe}`);
        }),
        { seed, numRuns },
      );
      // The worlds are worth their while: many come to an end, and many gates open.
      expect(settled).toBeGreaterThan(numRuns / 10);
      if (make !== backWorldOf) expect(opened).toBeGreaterThan(numRuns / 10);
    });

    it('are not late in quiet worlds: settled within one look of the slowest server', () => {
      const numRuns = Math.ceil((runs * share) / 3);
      let settled = 0;
      fc.assert(
        fc.property(fc.nat(), (number) => {
          const world = make(number, true);
          const late = lateSettled(world, claimsOf());
          if (late !== undefined && late.problem !== undefined) throw new Error(`${late.problem}\n${world.describe}`);
          if (late) settled += 1;
        }),
        { seed, numRuns },
      );
      expect(settled).toBeGreaterThan(numRuns / 4);
    });
  });
});

describe('a leg that goes back', () => {
  it('is caught where it forgets what was served before it began', () => {
    const forgetful: Claims = {
      ...claimsOf(),
      legTimes: (input) => {
        const since = input.plan.backSince!;
        const later = <V>(servers: readonly ServerSeen<V>[]): ServerSeen<V>[] =>
          servers.map((one) => ({ ...one, sightings: one.sightings.filter((sight) => sight.last >= since) }));
        return legTimes({ ...input, seen: { parent: later(input.seen.parent), zones: later(input.seen.zones) } });
      },
    };
    const early = Array.from({ length: 300 }, (_, number) => earlyClaims(backWorldOf(number, false), forgetful).early.length);
    expect(early.some((count) => count > 0)).toBe(true);
  });
});

describe('reachability itself', () => {
  it('finds what a cache holds of one server that never changes', () => {
    const slot = { ns: ['o'], nsTtl: 5, value: 'a', ttl: 3 };
    const slots = Array.from({ length: END + 1 }, () => slot);
    const truth = { parents: [slots.map(() => ({ ns: ['o'], nsTtl: 7, dsTtl: undefined }))], zones: new Map([['o', slots]]) };
    const held = new Reach(truth, 'ordinary').until(10);
    expect([held.leads.get('o'), held.values.get('a')]).toEqual([17, 13]);
  });

  it('lets extending caches alone go on where a server names itself', () => {
    const named = { ns: ['o'], nsTtl: 5, value: 'a', ttl: 3 };
    const parent = Array.from({ length: END + 1 }, (_, at) => ({ ns: at < 10 ? ['o'] : ['n'], nsTtl: 4, dsTtl: undefined }));
    const slots = Array.from({ length: END + 1 }, () => named);
    const truth = { parents: [parent], zones: new Map([['o', slots]]) };
    expect(new Reach(truth, 'ordinary').until(60).leads.get('o')).toBe(19);
    expect(new Reach(truth, 'extending').until(60).leads.get('o')).toBe(65);
  });
});
