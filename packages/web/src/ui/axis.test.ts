import fc from 'fast-check';
import { labelledTicks, placeLabels, ticksBetween } from './axis';

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
      [0, 10, 20, 500, 990].map((x) => ({ item: x, x, width: 80, weight: 0 })),
      3,
      1000,
    );
    expect(placed.map((label) => label.row)).toEqual([0, 1, 2, 0, 0]);
    expect(Math.max(...placed.map((label) => label.x + label.width))).toBeLessThanOrEqual(1000);
  });

  it('shows the weightiest of labels that have no room beside each other', () => {
    const crowd = [0, 10, 20, 30, 40].map((x, index) => ({ item: index, x, width: 80, weight: [3, 1, 4, 2, 5][index]! }));
    expect(placeLabels(crowd, 3, 1000).map((label) => label.row)).toEqual([0, null, 1, null, 2]);
    expect(placeLabels(crowd, 5, 1000).every((label) => label.row !== null)).toBe(true);
  });

  it('never lays one label over another, and leaves none out that has room', () => {
    const some = fc.array(fc.record({ x: fc.integer({ min: 0, max: 900 }), width: fc.integer({ min: 20, max: 200 }), weight: fc.integer() }), {
      maxLength: 25,
    });
    fc.assert(
      fc.property(some, (labels) => {
        const placed = placeLabels(
          labels.map((label) => ({ item: label, ...label })),
          3,
          1200,
        );
        expect(placed.map(({ item }) => item)).toEqual(labels.toSorted((a, b) => a.x - b.x));
        const touch = (a: (typeof placed)[number], b: (typeof placed)[number]): boolean => a.x < b.x + b.width && b.x < a.x + a.width;
        for (const one of placed)
          for (const other of placed) if (one !== other && one.row !== null && one.row === other.row && touch(one, other)) throw new Error('two labels touch');
        // Where one is left out there was none of its rows free, for something at least as weighty.
        for (const one of placed) {
          if (one.row !== null) continue;
          const near = placed.filter((other) => other !== one && other.x < one.x + one.width + 10 && one.x < other.x + other.width + 10);
          expect(near.length).toBeGreaterThanOrEqual(3);
          expect(near.some(({ item }) => item.weight >= one.item.weight)).toBe(true);
        }
      }),
    );
  });
});

describe('the labels of ticks', () => {
  it.each([0, 3, 17, 300])('stand at their ticks, or whole on the axis where it ends close by, and clear of now (%p px on)', (shift) => {
    const from = 1_710_000_000 + shift * 60;
    const axis = { from, until: from + 48 * 3600, room: 900, x: (at: number): number => ((at - from) / (48 * 3600)) * 900 };
    const now = from + 20 * 3600;
    const ticks = labelledTicks(axis, now, 60, 40);
    expect(ticks.length).toBeGreaterThan(5);
    for (const { at, label, middle } of ticks) {
      const half = label.length * 3;
      expect(middle - half).toBeGreaterThanOrEqual(0);
      expect(middle + half).toBeLessThanOrEqual(900);
      expect(Math.abs(middle - axis.x(at))).toBeLessThanOrEqual(half);
      if (axis.x(at) >= half && axis.x(at) <= 900 - half) expect(middle).toBe(axis.x(at));
      expect(Math.abs(middle - axis.x(now))).toBeGreaterThan(40);
    }
  });
});
