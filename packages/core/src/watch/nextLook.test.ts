import { oldShare } from './curve';
import { nextLook } from './nextLook';

describe('the next round of lookouts', () => {
  const at = (...waits: [string, number | null][]): number =>
    nextLook(
      waits.map(([verdict, remainingTtl]) => ({ verdict: verdict as 'old', remainingTtl })),
      1000,
      20,
    ) - 1000;
  it('is just after the first answer that is not new runs out, not too often and not too seldom', () => {
    expect(at(['old', 120], ['old', 300], ['new', 30])).toBe(121);
    expect(at(['old', 3])).toBe(20);
    expect([at(['new', 30]), at(['old', 9000]), at(['none', null])]).toEqual([900, 900, 900]);
  });
});

describe('the share of old answers', () => {
  const run = (lookout: string, verdict: string, first: number, silent = false) => ({ lookout, key: 'k', verdict: verdict as 'old', silent, first });
  it('falls as runs of new answers begin; mixed is half, and who is silent does not count', () =>
    expect(oldShare([run('a', 'old', 0), run('b', 'old', 0), run('a', 'mixed', 10), run('a', 'new', 20), run('b', 'none', 30, true)])).toEqual([
      { at: 0, old: 1 },
      { at: 10, old: 0.75 },
      { at: 20, old: 0.5 },
      { at: 30, old: 0 },
    ]));
});
