import fc from 'fast-check';
import { leastCost } from './leastCost';

/** Every way to pair, tried one after the other. */
function leastOfAll(costs: readonly (readonly (number | undefined)[])[], other: number, alone: number, left: number): number {
  const from = (i: number, taken: readonly number[]): number => {
    if (i === costs.length) return (other - taken.length) * left;
    const ways = costs[i]!.flatMap((cost, j) => (cost === undefined || taken.includes(j) ? [] : [cost + from(i + 1, [...taken, j])]));
    return Math.min(alone + from(i + 1, taken), ...ways);
  };
  return from(0, []);
}

describe('pairs that cost least in all', () => {
  const costs = fc.tuple(fc.nat({ max: 5 }), fc.nat({ max: 5 })).chain(([first, other]) =>
    fc.tuple(
      fc.constant(other),
      fc.array(fc.array(fc.option(fc.integer({ min: 0, max: 6 }), { nil: undefined }), { minLength: other, maxLength: other }), {
        minLength: first,
        maxLength: first,
      }),
    ),
  );

  it('are those of which no other way costs less, each partner once', () => {
    fc.assert(
      fc.property(costs, ([other, all]) => {
        const { partners, cost } = leastCost(
          all.length,
          other,
          (i, j) => all[i]![j],
          () => 3,
          1,
        );
        const used = partners.filter((one) => one !== undefined);
        expect(new Set(used).size).toBe(used.length);
        const paid = partners.reduce<number>((sum, j, i) => sum + (j === undefined ? 3 : all[i]![j]!), (other - used.length) * 1);
        expect([cost, paid]).toEqual([leastOfAll(all, other, 3, 1), cost]);
      }),
    );
  });

  it('are taken one by one where there are too many ways, and none twice', () => {
    const { partners } = leastCost(
      4000,
      40,
      (i, j) => (i + j) % 7,
      () => 3,
      1,
    );
    const used = partners.filter((one) => one !== undefined);
    expect([used.length, new Set(used).size]).toEqual([40, 40]);
  });
});
