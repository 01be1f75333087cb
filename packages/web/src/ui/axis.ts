/** Round steps for ticks on a time axis, in seconds. */
const WEEK = 604_800;
const STEPS = [300, 900, 1800, 3600, 7200, 10_800, 21_600, 43_200, 86_400, 172_800, WEEK];

/** At most `most` ticks at local round times between two instants. */
export function ticksBetween(from: number, until: number, most: number): number[] {
  // Weeks in the end, as many of them at a time as it takes.
  const step = STEPS.find((one) => (until - from) / one <= most) ?? WEEK * Math.ceil((until - from) / WEEK / Math.max(1, most));
  const offset = new Date(from * 1000).getTimezoneOffset() * 60;
  const ticks: number[] = [];
  for (let at = Math.ceil((from - offset) / step) * step + offset; at <= until; at += step) ticks.push(at);
  return ticks;
}

export interface Placed<T> {
  readonly item: T;
  readonly x: number;
  readonly row: number;
  readonly width: number;
}

/**
 * Labels in as few rows as they need: each goes into the first row where it does not touch the one before.
 * `x` is where the label points; widths in pixels.
 */
export function placeLabels<T>(items: readonly { item: T; x: number; width: number }[], rows: number, right: number): Placed<T>[] {
  const ends = new Array<number>(rows).fill(-Infinity);
  return [...items]
    .sort((a, b) => a.x - b.x)
    .map(({ item, x, width }) => {
      const start = Math.min(x, right - width);
      let row = ends.findIndex((end) => end <= start);
      if (row < 0) row = ends.indexOf(Math.min(...ends));
      ends[row] = start + width + 10;
      return { item, x: start, row, width };
    });
}
