import fc from 'fast-check';
import { runOn } from './runOn';

describe('a clock that runs on', () => {
  it('does so at its speed, and stands where that is none', () => {
    expect(runOn({ at: 100, rate: 60 }, 2)).toEqual({ at: 220, rate: 60 });
    expect(runOn({ at: 100, rate: 0 }, 2)).toEqual({ at: 100, rate: 0 });
  });

  it('runs at another from the moment that is told, and no further before', () => {
    const hurried = { at: 0, rate: 7200, then: { at: 300, rate: 1 } };
    expect(runOn(hurried, 0.01)).toEqual({ ...hurried, at: 72 });
    expect(runOn(hurried, 10).at).toBeCloseTo(300 + 10 - 300 / 7200, 9);
    expect(runOn(hurried, 10)).toEqual({ at: expect.any(Number) as number, rate: 1 });
    expect(runOn({ at: 400, rate: 7200, then: { at: 300, rate: 1 } }, 5)).toEqual({ at: 405, rate: 1 });
    expect(runOn({ at: 100, rate: 0, then: { at: 300, rate: 1 } }, 5)).toMatchObject({ at: 100, rate: 0 });
  });

  it('is the same whether somebody looks in between or not, and never goes back', () => {
    const rates = fc.integer({ min: 0, max: 86_400 });
    const clocks = fc.record({
      at: fc.integer({ min: 0, max: 1000 }),
      rate: rates,
      then: fc.option(fc.record({ at: fc.integer({ min: 0, max: 2000 }), rate: rates })),
    });
    fc.assert(
      fc.property(clocks, fc.double({ min: 0, max: 10, noNaN: true }), fc.double({ min: 0, max: 10, noNaN: true }), ({ then, ...clock }, first, second) => {
        const from = { ...clock, ...(then && { then }) };
        const between = runOn(from, first);
        expect(between.at).toBeGreaterThanOrEqual(from.at);
        expect(runOn(between, second).at).toBeCloseTo(runOn(from, first + second).at, 4);
      }),
    );
  });
});
