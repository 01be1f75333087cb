import { WWW, legOf } from '../testing/moving';
import { slipQuestions } from './slipsSeen';

describe('where a set that a server lacks may stand instead', () => {
  const none = { ttl: 60, data: [] };
  const leg = legOf({ now: 0 });
  const asked = (sets: Parameters<typeof slipQuestions>[1]['sets']): string[] => slipQuestions(leg, { sets });

  it('is at its name with the domain once more, and under other types; only what that server lacks, and did not say yet', () => {
    expect(asked({ [WWW]: none })).toContain('www.zone.test.zone.test./A');
    expect(asked({ [WWW]: none })).toEqual(expect.arrayContaining(['www.zone.test./TXT', 'zone.test./A', 'wwww.zone.test./A']));
    expect(asked({ [WWW]: none }).length).toBeLessThanOrEqual(120);
    expect(asked({ [WWW]: none, 'www.zone.test.zone.test./A': none })).not.toContain('www.zone.test.zone.test./A');
    expect([asked({}), asked({ [WWW]: { ttl: 60, data: ['192.0.2.2'] } })]).toEqual([[], []]);
  });

  it('is not asked of a large zone that lacks everything: nothing was typed', () => {
    const rulings = Array.from({ length: 13 }, (_, index) => ({
      ...leg.plan.rulings[0]!,
      owner: `n${index}.zone.test.`,
      planned: leg.plan.rulings[0]!.planned!,
    }));
    const large = legOf({ now: 0, plan: { rulings } });
    const sets = Object.fromEntries(rulings.map(({ owner }) => [`${owner}/A`, none]));
    expect(slipQuestions(large, { sets })).toEqual([]);
    expect(slipQuestions(large, { sets: { ...sets, 'n3.zone.test./A': { ttl: 60, data: ['192.0.2.2'] } } }).length).toBeGreaterThan(0);
  });
});
