import { claimsOf, earlyClaims } from '../testing/claims';
import { neverEarly, notLate } from '../testing/claimsHold';
import { raisedWorldOf } from '../testing/raisedWorld';

const seed = Number(process.env['SEED'] ?? Math.floor(Math.random() * 2 ** 31));
const numRuns = Math.ceil(Number(process.env['WORLDS'] ?? 800) * 0.4);

describe(`claims against reachability, where somebody raises a TTL just before it is lowered (SEED=${seed})`, () => {
  it('are never early, although nobody looks between the raising and the lowering but right before it', () => {
    const { settled, opened } = neverEarly(raisedWorldOf, { seed, numRuns });
    expect(Math.min(settled, opened)).toBeGreaterThan(numRuns / 10);
  });

  it('are early where nobody looks right before the lowering', () => {
    const worlds = Array.from({ length: 60 }, (_, number) => raisedWorldOf(number, false, false));
    expect(worlds.some((world) => earlyClaims(world, claimsOf()).early.length > 0)).toBe(true);
  });

  it('are not late where nobody raises anything', () => {
    const worlds = Math.ceil(numRuns / 3);
    expect(notLate(raisedWorldOf, { seed, numRuns: worlds })).toBeGreaterThan(worlds / 4);
  });
});
