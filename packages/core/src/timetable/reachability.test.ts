import { neverEarly, notLate } from '../testing/claimsHold';
import { Reach } from '../testing/reachability';
import { END, worldOf } from '../testing/world';

const seed = Number(process.env['SEED'] ?? Math.floor(Math.random() * 2 ** 31));
const numRuns = Number(process.env['WORLDS'] ?? 800);

describe(`claims against reachability, where the nameservers change (SEED=${seed})`, () => {
  it('are never early, whatever the servers do and whoever looks away', () => {
    const { settled, opened } = neverEarly(worldOf, { seed, numRuns });
    // The worlds are worth their while: many come to an end, and many gates open.
    expect(Math.min(settled, opened)).toBeGreaterThan(numRuns / 10);
  });

  it('are not late in quiet worlds: settled within one look of the slowest server', () => {
    const worlds = Math.ceil(numRuns / 3);
    expect(notLate(worldOf, { seed, numRuns: worlds })).toBeGreaterThan(worlds / 4);
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
