/** Seconds since 1970 UTC; whole or broken. */
export type Instant = number;

/** When a change of the world happened, as far as it was seen: not before `lastOld`, not after `firstNew`. */
export interface SeenBetween {
  readonly lastOld: Instant;
  readonly firstNew: Instant;
}

export interface Term {
  readonly symbol: string;
  readonly meaning: string;
  readonly value: number;
  readonly unit: 'instant' | 'seconds';
}

/** A moment with the sum that led to it, so that every time on the screen can be opened. `at` may be Infinity: no bound is known. */
export interface Derived {
  readonly at: Instant;
  /** For example `l + eff(v)`; the symbols are those of docs/calculations.md. */
  readonly formula: string;
  readonly terms: readonly Term[];
  readonly follows: string;
}

export function latest(all: readonly Derived[]): Derived | undefined {
  return all.reduce<Derived | undefined>((best, one) => (best === undefined || one.at > best.at ? one : best), undefined);
}

export function instantTerm(symbol: string, meaning: string, value: Instant): Term {
  return { symbol, meaning, value, unit: 'instant' };
}

export function secondsTerm(symbol: string, meaning: string, value: number): Term {
  return { symbol, meaning, value, unit: 'seconds' };
}
