import { Instant } from '@wanderon/core';

/** The one clock that the job runs by. Instants in seconds since 1970. */
export interface Clock {
  now(): Instant;
  /** Seconds of this clock in one real second. */
  rate(): number;
  /** Calls back when time was moved by hand, which only happens in the lab. */
  onChange(listener: () => void): void;
}

export const CLOCK = Symbol('clock');
/** The machine's own clock, for sessions and signatures, which the lab's clock must not touch. */
export const WALL_CLOCK = Symbol('wall clock');

export class SystemClock implements Clock {
  now(): Instant {
    return Date.now() / 1000;
  }

  rate(): number {
    return 1;
  }

  onChange(): void {
    // The system's clock is never moved by hand.
  }
}
