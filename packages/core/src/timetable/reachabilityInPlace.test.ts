import { ServerSeen } from '../move/seen';
import { backWorldOf } from '../testing/backWorld';
import { Claims, claimsOf, earlyClaims } from '../testing/claims';
import { neverEarly, notLate } from '../testing/claimsHold';
import { namesWorldOf } from '../testing/namesWorld';
import { repointWorldOf } from '../testing/world';
import { legTimes } from './legTimes';

const seed = Number(process.env['SEED'] ?? Math.floor(Math.random() * 2 ** 31));
const numRuns = Math.ceil(Number(process.env['WORLDS'] ?? 800) * 0.4);

describe.each([
  ['where records change in place', repointWorldOf],
  ['where the names of the nameservers stay', namesWorldOf],
  ['where a change is taken back', backWorldOf],
])(`claims against reachability, %s (SEED=${seed})`, (_what, make) => {
  it('are never early, whatever the servers do and whoever looks away', () => {
    const { settled, opened } = neverEarly(make, { seed, numRuns });
    expect(settled).toBeGreaterThan(numRuns / 10);
    // What goes back has no gate.
    if (make !== backWorldOf) expect(opened).toBeGreaterThan(numRuns / 10);
  });

  it('are not late in quiet worlds: settled within one look of the slowest server', () => {
    const worlds = Math.ceil(numRuns / 3);
    expect(notLate(make, { seed, numRuns: worlds })).toBeGreaterThan(worlds / 4);
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
    const worlds = Array.from({ length: 300 }, (_, number) => number);
    expect(worlds.some((number) => earlyClaims(backWorldOf(number, false), forgetful).early.length > 0)).toBe(true);
  });
});
