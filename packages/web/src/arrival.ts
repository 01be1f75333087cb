/** Whether anything was asked by this page yet. */
let isFirst = true;

/**
 * When the answer to a question came, by the page's own clock in milliseconds. A page that is busy reads it later, by some tenths of a second,
 * in which the lab's clock may run for minutes.
 *
 * @param asked when it was asked for. The first time the browser may have done so before the page's program was there.
 */
export function arrival(address: string, asked: number): number {
  const now = performance.now();
  const since = isFirst ? 0 : asked;
  isFirst = false;
  const last = performance.getEntriesByName(new URL(address, window.location.href).href, 'resource').at(-1) as PerformanceResourceTiming | undefined;
  // A browser notes some hundred answers only: one to an earlier question tells nothing of this one.
  return last && last.responseEnd >= since ? Math.min(last.responseEnd, now) : now;
}
