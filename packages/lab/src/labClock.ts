import { Instant, RunningClock, runOn } from '@wanderon/core';

/** Lab seconds in a real one while time is let pass: a look every two seconds is one in four hours. */
const FORWARD = 7200;

/** The clock of the stand-in internet: it can pause, run faster and jump forward, never back. */
export class LabClock {
  private running: RunningClock;
  private anchor: number;
  private readonly listeners = new Set<() => void>();
  private readonly alarms = new Set<{ at: Instant; act: () => void }>();
  private timer: NodeJS.Timeout | undefined;

  constructor(
    start: Instant,
    rate = 1,
    private readonly realSeconds: () => number = () => performance.now() / 1000,
  ) {
    this.running = { at: start, rate };
    this.anchor = this.realSeconds();
  }

  now(): Instant {
    return this.state().at;
  }

  /** Also what becomes of it: whoever follows it is told of the end of a hurry beforehand, and runs no further. */
  state(): RunningClock {
    return runOn(this.running, this.realSeconds() - this.anchor);
  }

  setRate(rate: number): void {
    if (!(rate >= 0 && rate <= 86_400)) throw new RangeError('the speed must be from 0 to 86,400');
    this.run({ at: this.now(), rate });
  }

  jump(seconds: number): void {
    if (!(seconds >= 0 && seconds <= 366 * 86_400)) throw new RangeError('a jump must be from 0 to 366 days, in seconds');
    const state = this.state();
    this.run({ ...state, at: state.at + seconds });
  }

  /** Lets so many seconds pass quickly, so that whoever looks now and then still can; the speed is as before afterwards. */
  forward(seconds: number): void {
    if (!(seconds >= 0 && seconds <= 366 * 86_400)) throw new RangeError('time is let pass from 0 to 366 days, in seconds');
    const { at, rate, then } = this.state();
    const before = then?.rate ?? rate;
    const mine: RunningClock = { at, rate: Math.max(before, FORWARD), then: { at: at + seconds, rate: before } };
    this.alarm(at + seconds, () => {
      if (this.running === mine) this.run(this.state());
    });
    this.run(mine);
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

  private run(state: RunningClock): void {
    this.running = state;
    this.anchor = this.realSeconds();
    this.ring();
    for (const listener of this.listeners) listener();
  }

  private ring(): void {
    clearTimeout(this.timer);
    const { at: now } = this.state();
    const due = [...this.alarms].filter((alarm) => alarm.at <= now).sort((a, b) => a.at - b.at);
    for (const alarm of due) this.alarms.delete(alarm);
    for (const alarm of due) alarm.act();
    const next = Math.min(...[...this.alarms].map((alarm) => alarm.at));
    const { at, rate } = this.state();
    if (Number.isFinite(next) && rate > 0) {
      const wait = Math.min(((next - at) / rate) * 1000, 0x7fff_ffff);
      this.timer = setTimeout(() => this.ring(), Math.max(wait, 1));
    }
  }
}
