import { placeLabels, ticksBetween } from './axis';

describe('the time axis', () => {
  it.each([3600, 20_000, 86_400, 900_000, 10_000_000, 40_000_000, 800_000_000])(
    'has at most as many ticks as there is room for over %p s, all inside and evenly apart',
    (span) => {
      const from = 1_804_856_700;
      const ticks = ticksBetween(from, from + span, 12);
      expect(ticks.length).toBeGreaterThan(1);
      expect(ticks.length).toBeLessThanOrEqual(13);
      for (const tick of ticks) expect(tick >= from && tick <= from + span).toBe(true);
      expect(new Set(ticks.slice(1).map((tick, index) => tick - ticks[index]!)).size).toBe(1);
    },
  );

  it('gives labels that would touch rows of their own, and keeps them inside', () => {
    const placed = placeLabels(
      [0, 10, 20, 500, 990].map((x) => ({ item: x, x, width: 80 })),
      3,
      1000,
    );
    expect(placed.map((label) => label.row)).toEqual([0, 1, 2, 0, 0]);
    expect(Math.max(...placed.map((label) => label.x + label.width))).toBeLessThanOrEqual(1000);
  });
});
