import fc from 'fast-check';
import { Pacer } from './pacer';

describe('a pace', () => {
  it('lets a few go at once, then so many a second, each key for itself', () => {
    let now = 0;
    const pacer = new Pacer(10, 3, () => now);
    expect([1, 2, 3, 4, 5].map(() => pacer.take('a'))).toEqual([0, 0, 0, 100, 200]);
    expect(pacer.take('b')).toBe(0);
    now = 1000;
    expect([1, 2, 3, 4].map(() => pacer.take('a'))).toEqual([0, 0, 0, 100]);
    expect(new Pacer(Infinity, 1, () => now).take('a')).toBe(0);
  });

  it('never lets more go in any second than the pace and the burst', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 50 }),
        fc.integer({ min: 1, max: 10 }),
        fc.array(fc.nat(400), { minLength: 1, maxLength: 200 }),
        (rate, burst, waits) => {
          let now = 0;
          const pacer = new Pacer(rate, burst, () => now);
          const turns = waits.map((wait) => {
            now += wait;
            return now + pacer.take('a');
          });
          turns.forEach((turn, index) => {
            const within = turns.slice(index).filter((later) => later < turn + 1000 - 1e-6).length;
            expect(within).toBeLessThanOrEqual(rate + burst);
            expect(index === 0 || turn >= turns[index - 1]!).toBe(true);
          });
        },
      ),
    );
  });
});
