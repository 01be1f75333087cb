import { Instant } from '../timetable/instant';
import { Verdict } from './verdict';

/** Seconds between two rounds at the most. */
const SELDOM = 900;

/**
 * When to ask lookouts again: just after the first answer that is not new runs out, so that the change is seen as it comes.
 * `least`: seconds between two rounds at the least.
 */
export function nextLook(looks: readonly { readonly verdict: Verdict; readonly remainingTtl: number | null }[], now: Instant, least: number): Instant {
  const waits = looks.flatMap((look) => (look.verdict !== 'new' && look.remainingTtl !== null ? [look.remainingTtl + 1] : []));
  return now + Math.max(least, Math.min(SELDOM, ...waits));
}
