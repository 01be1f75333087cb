import { duration } from '@wanderon/core';
import { useCallback, useSyncExternalStore } from 'react';
import { useClockState } from './api';

export { duration };

/** One tick a second for the whole page; `ticked` is the moment of the last one, by the page's own clock in milliseconds. */
let ticked = performance.now();
const listeners = new Set<() => void>();
let timer: number | undefined;

function onTick(listener: () => void): () => void {
  listeners.add(listener);
  timer ??= window.setInterval(() => {
    ticked = performance.now();
    for (const one of listeners) one();
  }, 1000);
  return () => {
    listeners.delete(listener);
    if (listeners.size > 0) return;
    window.clearInterval(timer);
    timer = undefined;
  };
}

/**
 * The job's time in seconds since 1970; counts on from the last word of the server. What calls it is drawn anew every `grain`
 * seconds of real time, where time runs no faster than that; 0 while the server has not said.
 */
export function useNow(grain = 1): number {
  const { data } = useClockState();
  const step = data && data.rate <= 1 ? grain * 1000 : 1000;
  // It is drawn anew with each of these, and shows the time of that moment.
  useSyncExternalStore(
    onTick,
    useCallback(() => Math.floor(ticked / step), [step]),
  );
  return data ? data.at + ((performance.now() - data.received) / 1000) * data.rate : 0;
}

/** Seconds between two drawings of what shows times of minutes and more. */
export const COARSE = 5;

const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;

// Made once: to make one takes longer than to use it a hundred times.
const SHORT = new Intl.DateTimeFormat('en-GB', { timeZone: zone, weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
const CLOCK = new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', minute: '2-digit' });
const CLOCK_WITH_SECONDS = new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', minute: '2-digit', second: '2-digit' });
const FULL = new Intl.DateTimeFormat('en-GB', { timeZone: zone, dateStyle: 'full', timeStyle: 'long' });

/** `Fri 12 Mar 18:26`, in the technician's zone. */
export function shortTime(at: number): string {
  const parts = SHORT.formatToParts(at * 1000);
  const part = (type: string): string => parts.find((one) => one.type === type)?.value ?? '';
  return `${part('weekday')} ${part('day')} ${part('month')} ${part('hour')}:${part('minute')}`;
}

export function clockTime(at: number, seconds = false): string {
  return (seconds ? CLOCK_WITH_SECONDS : CLOCK).format(at * 1000);
}

/** The same moment in both zones, for a title. */
export function fullTime(at: number): string {
  return `${FULL.format(at * 1000)} (${zone}); ${new Date(at * 1000).toISOString().slice(0, 19).replace('T', ' ')} UTC`;
}

/** `in 3 h 20 min` or `20 min ago`. */
export function relative(at: number, now: number): string {
  const difference = at - now;
  if (Math.abs(difference) < 30) return 'now';
  return difference > 0 ? `in ${duration(difference)}` : `${duration(difference)} ago`;
}
