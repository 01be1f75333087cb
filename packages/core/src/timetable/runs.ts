import { Instant } from './instant';

/** Equal sights of one server one after the other: first and last, and how long after the last one the next look was planned. */
export interface Sight<V> {
  readonly value: V;
  readonly first: Instant;
  readonly last: Instant;
  /** Seconds to the next planned look. */
  readonly every: number;
}

/** One value at one server during [from, until): not served before, not later, as far as it was seen. */
export interface Run<V> {
  readonly value: V;
  /** The last sight of anything else; -Infinity where it was there from the first look on. */
  readonly from: Instant;
  /** The first sight of anything else, plus the server's allowance; Infinity while it goes on. */
  readonly until: Instant;
}

/** Planned looks that may be missed before what is known of a server ends. */
export const LOOKS_MISSED = 3;

/** True where nobody looked for so long that anything may have been served. */
export function isGap<V>(sighting: Sight<V>, next: Instant): boolean {
  return next - sighting.last > LOOKS_MISSED * sighting.every;
}

/**
 * What a server may have served when, from the sights of it in order. A gap ends what is known: until the next sight, every
 * value that was ever seen there counts as served.
 *
 * `allowance`: seconds after which instances of an anycast server that nobody sees have followed.
 *
 *     runsOf([{ value: 'old', first: 0, last: 60, every: 60 }, { value: 'new', first: 120, last: 180, every: 60 }], { now: 180, … })
 *     // old during [-Infinity, 120), new during [60, Infinity)
 */
export function runsOf<V>(
  sightings: readonly Sight<V>[],
  how: { readonly now: Instant; readonly allowance: number; readonly same: (a: V, b: V) => boolean },
): Run<V>[] {
  // Most of thousands of sets were never seen otherwise.
  if (sightings.length === 1) return [{ value: sightings[0]!.value, from: -Infinity, until: Infinity }];
  const runs: Run<V>[] = [];
  const known: V[] = [];
  const add = (value: V, from: Instant, until: Instant): void => {
    const before = runs.findLast((run) => how.same(run.value, value) && run.until >= from && run.from <= until);
    if (!before) runs.push({ value, from, until });
    else runs[runs.indexOf(before)] = { value, from: Math.min(before.from, from), until: Math.max(before.until, until) };
  };
  for (const [index, sighting] of sightings.entries()) {
    const previous = sightings[index - 1];
    const next = sightings[index + 1];
    if (!known.some((value) => how.same(value, sighting.value))) known.push(sighting.value);
    add(sighting.value, previous?.last ?? -Infinity, next ? next.first + how.allowance : Infinity);
    const end = next?.first ?? how.now;
    if (isGap(sighting, end)) for (const value of known) add(value, sighting.last, next ? end + how.allowance : Infinity);
  }
  return runs;
}

/** Ends the runs that go on and are of this kind at a moment. The same array where there is none. */
export function endAt<V>(runs: Run<V>[], at: Instant, which: (value: V) => boolean): Run<V>[] {
  if (!runs.some((run) => run.until === Infinity && which(run.value))) return runs;
  return runs.map((run) => (run.until === Infinity && which(run.value) ? { ...run, until: Math.max(at, run.from) } : run));
}
