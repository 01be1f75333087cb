import { Instant } from '@wanderon/core';

export interface ClockState {
  /** Lab time when the state was set, in seconds since 1970. */
  readonly at: Instant;
  /** Lab seconds that pass in one real second; 0 while paused. */
  readonly rate: number;
}

/** Lab seconds in a real one while time is let pass: a look every two seconds is one in four hours. */
const FORWARD = 7200;

/** The clock of the stand-in internet: it can pause, run faster and jump forward, never back. */
export class LabClock {
  private base: Instant;
  private anchor: number;
  private currentRate: number;
  private readonly listeners = new Set<() => void>();
  private readonly alarms = new Set<{ at: Instant; act: () => void }>();
  private timer: NodeJS.Timeout | undefined;
  /** Time is being let pass; the speed to go back to. */
  private forwarding: { readonly before: number } | undefined;

  constructor(
    start: Instant,
    rate = 1,
    private readonly realSeconds: () => number = () => performance.now() / 1000,
  ) {
    this.base = start;
    this.currentRate = rate;
    this.anchor = this.realSeconds();
  }

  now(): Instant {
    return this.base + (this.realSeconds() - this.anchor) * this.currentRate;
  }

  state(): ClockState {
    return { at: this.now(), rate: this.currentRate };
  }

  setRate(rate: number): void {
    if (!(rate >= 0 && rate <= 86_400)) throw new RangeError('the speed must be from 0 to 86,400');
    this.forwarding = undefined;
    this.rebase(this.now());
    this.currentRate = rate;
    this.changed();
  }

  jump(seconds: number): void {
    if (!(seconds >= 0 && seconds <= 366 * 86_400)) throw new RangeError('a jump must be from 0 to 366 days, in seconds');
    this.rebase(this.now() + seconds);
    this.changed();
  }

  /** Lets so many seconds pass quickly, so that whoever looks now and then still can; the speed is as before afterwards. */
  forward(seconds: number): void {
    if (!(seconds >= 0 && seconds <= 366 * 86_400)) throw new RangeError('time is let pass from 0 to 366 days, in seconds');
    const before = this.forwarding?.before ?? this.currentRate;
    const mine = { before };
    this.forwarding = mine;
    this.rebase(this.now());
    this.currentRate = Math.max(before, FORWARD);
    this.alarm(this.now() + seconds, () => {
      if (this.forwarding !== mine) return;
      this.forwarding = undefined;
      this.rebase(this.now());
      this.currentRate = before;
      this.changed();
    });
    this.changed();
  }

  onChange(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  /** Calls `act` once lab time has come to `at`. */
  alarm(at: Instant, act: () => void): void {
    this.alarms.add({ at, act });
    this.ring();
  }

  stop(): void {
    clearTimeout(this.timer);
    this.alarms.clear();
  }

  private rebase(at: Instant): void {
    this.base = at;
    this.anchor = this.realSeconds();
  }

  private changed(): void {
    this.ring();
    for (const listener of this.listeners) listener();
  }

  private ring(): void {
    clearTimeout(this.timer);
    const now = this.now();
    const due = [...this.alarms].filter((alarm) => alarm.at <= now).sort((a, b) => a.at - b.at);
    for (const alarm of due) this.alarms.delete(alarm);
    for (const alarm of due) alarm.act();
    const next = Math.min(...[...this.alarms].map((alarm) => alarm.at));
    if (Number.isFinite(next) && this.currentRate > 0) {
      const wait = Math.min(((next - this.now()) / this.currentRate) * 1000, 0x7fff_ffff);
      this.timer = setTimeout(() => this.ring(), Math.max(wait, 1));
    }
  }
}
