import { NetError } from './netError';

/** A signal that also ends what takes too long in all, and what such an end is told as: not as that somebody stopped it. */
export interface Deadline {
  readonly signal: AbortSignal;
  /** What to throw in the place of an error that came of it. */
  readonly told: (error: unknown) => unknown;
}

/**
 * Silence is not enough of a bound: a server that sends an octet now and then is never silent. `words` say what took too long.
 */
export function deadline(signal: AbortSignal | undefined, milliseconds: number, words: string): Deadline {
  const over = AbortSignal.timeout(milliseconds);
  return {
    signal: signal ? AbortSignal.any([signal, over]) : over,
    told: (error) => (over.aborted && !signal?.aborted && error instanceof NetError ? new NetError('timeout', words) : error),
  };
}
