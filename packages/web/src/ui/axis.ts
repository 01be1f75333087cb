import { clockTime, shortTime } from '../time';

/** Round steps for ticks on a time axis, in seconds. */
const WEEK = 604_800;
const STEPS = [300, 900, 1800, 3600, 7200, 10_800, 21_600, 43_200, 86_400, 172_800, WEEK];

/** Pixels of a letter of a tick's label, about. */
const LETTER = 6;

/** A time axis of `room` pixels; `x` gives the pixel of an instant. */
export interface Axis {
  readonly from: number;
  readonly until: number;
  readonly room: number;
  readonly x: (at: number) => number;
}

export interface Tick {
  readonly at: number;
  readonly label: string;
  /** The pixel of the label's middle. */
  readonly middle: number;
}

/**
 * Ticks at least `apart` pixels from each other, without those whose label comes within `clear` pixels of `now`. A label stands at its tick, or
 * as near to it as the axis holds all of it.
 */
export function labelledTicks({ from, until, room, x }: Axis, now: number, apart: number, clear: number): Tick[] {
  return ticksBetween(from, until, Math.floor(room / apart)).flatMap((at) => {
    const time = clockTime(at);
    const label = time === '00:00' ? shortTime(at).slice(0, -6) : time;
    const half = (label.length * LETTER) / 2;
    const middle = Math.max(half, Math.min(room - half, x(at)));
    return Math.abs(middle - x(now)) > clear ? [{ at, label, middle }] : [];
  });
}

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
  /** Null where there is no room for its label. */
  readonly row: number | null;
  readonly width: number;
}

interface Label<T> {
  readonly item: T;
  /** Where it points. */
  readonly x: number;
  readonly width: number;
  /** Of labels that have no room beside each other the lightest goes. */
  readonly weight: number;
}

/** Pixels between two labels of a row. */
const GAP = 10;

/**
 * Labels in as few rows as they need: each goes into the first row where it does not touch the one before. Where there is no such row, the
 * lightest of those that stand there is not shown. Widths in pixels.
 */
export function placeLabels<T>(items: readonly Label<T>[], rows: number, right: number): Placed<T>[] {
  const sorted = [...items].sort((a, b) => a.x - b.x);
  const left = new Set<Label<T>>();
  for (;;) {
    const placed = placedBeside(sorted, left, rows, right);
    const crowded = placed.findIndex(({ row }, index) => row === null && !left.has(sorted[index]!));
    if (crowded < 0) return placed;
    const at = placed[crowded]!.x;
    // It, and whatever is in its way: what stands in a row there, or a gap before it.
    const there = sorted.filter((_, index) => index <= crowded && !left.has(sorted[index]!) && placed[index]!.x + placed[index]!.width + GAP > at);
    left.add(there.reduce((lightest, one) => (one.weight < lightest.weight ? one : lightest)));
  }
}

function placedBeside<T>(sorted: readonly Label<T>[], left: ReadonlySet<Label<T>>, rows: number, right: number): Placed<T>[] {
  const ends = new Array<number>(rows).fill(-Infinity);
  return sorted.map((label) => {
    const { item, x, width } = label;
    const start = Math.min(x, right - width);
    const row = left.has(label) ? -1 : ends.findIndex((end) => end <= start);
    if (row < 0) return { item, x: start, row: null, width };
    ends[row] = start + width + GAP;
    return { item, x: start, row, width };
  });
}
