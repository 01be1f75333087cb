import { Instant } from './instant';

/** A clock that stands at `at` and runs at `rate`, in its own seconds for a real one; from `then.at` on, if that is given, at another. */
export interface RunningClock {
  readonly at: Instant;
  readonly rate: number;
  readonly then?: { readonly at: Instant; readonly rate: number } | undefined;
}

/**
 * The clock as it is so many real seconds later, however late somebody looks at it.
 *
 *     runOn({ at: 0, rate: 7200, then: { at: 300, rate: 1 } }, 1)  // { at: 300.958…, rate: 1 }
 */
export function runOn({ at, rate, then }: RunningClock, seconds: number): RunningClock {
  if (!then) return { at: at + seconds * rate, rate };
  const left = rate > 0 ? Math.max(0, then.at - at) / rate : Infinity;
  return seconds < left ? { at: at + seconds * rate, rate, then } : { at: Math.max(at, then.at) + (seconds - left) * then.rate, rate: then.rate };
}
