/** Gives each key its turns at an even pace: so many a second, and a few at once after a rest. */
export class Pacer {
  private readonly next = new Map<string, number>();
  private swept = 0;

  /** `perSecond`: Infinity for no pace. `burst`: turns that a key that has rested gets at once. `now`: milliseconds, never going back. */
  constructor(
    private readonly perSecond: number,
    private readonly burst: number,
    private readonly now: () => number,
  ) {}

  /** Takes the next turn of a key; gives the milliseconds until it comes. */
  take(key: string): number {
    if (this.perSecond === Infinity) return 0;
    const now = this.now();
    const step = 1000 / this.perSecond;
    const at = Math.max(this.next.get(key) ?? -Infinity, now - (this.burst - 1) * step);
    this.next.set(key, at + step);
    if (now - this.swept > 10_000) this.sweep(now);
    return Math.max(0, at - now);
  }

  /** Forgets keys that have rested: they are as good as new. */
  private sweep(now: number): void {
    this.swept = now;
    const rested = now - (this.burst * 1000) / this.perSecond;
    for (const [key, at] of this.next) if (at < rested) this.next.delete(key);
  }
}
