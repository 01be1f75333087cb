import { Instant, RunningClock, runOn } from '@wanderon/core';
import { z } from 'zod';
import { Clock } from './clock';
import { fromLab } from './fromLab';

/** `sent`: when it was so by the machine's clock, in milliseconds since 1970. */
const runSchema = z.object({ at: z.number(), rate: z.number() });
const stateSchema = runSchema.extend({ then: runSchema.optional(), sent: z.number().optional() });
/** Milliseconds that word of the clock is on its way at the most; more is another machine's clock. */
const ON_ITS_WAY = 10_000;

/** Follows the clock of the lab: hears every change, counts on by itself in between. */
export class LabClockFollower implements Clock {
  private running: RunningClock = { at: 0, rate: 1 };
  private anchor = performance.now();
  private closed = false;
  private readonly listeners: (() => void)[] = [];

  private constructor(private readonly lab: string) {}

  static async open(lab: string): Promise<LabClockFollower> {
    const clock = new LabClockFollower(lab);
    clock.take(await fromLab(lab, '/clock'));
    void clock.follow();
    return clock;
  }

  now(): Instant {
    return this.state().at;
  }

  rate(): number {
    return this.state().rate;
  }

  private state(): RunningClock {
    return runOn(this.running, (performance.now() - this.anchor) / 1000);
  }

  onChange(listener: () => void): void {
    this.listeners.push(listener);
  }

  close(): void {
    this.closed = true;
  }

  async change(change: { rate?: number | undefined; jump?: number | undefined }): Promise<void> {
    const form = new URLSearchParams();
    if (change.rate !== undefined) form.set('rate', String(change.rate));
    if (change.jump !== undefined) form.set('jump', String(change.jump));
    const response = await fetch(`${this.lab}/clock`, { method: 'POST', body: form });
    this.take(await response.json());
  }

  private take(state: unknown): void {
    const { sent, ...running } = stateSchema.parse(state);
    this.running = running;
    // While it was on its way the clock went on, at its new speed.
    const now = performance.now();
    const age = sent === undefined ? 0 : performance.timeOrigin + now - sent;
    this.anchor = now - (age > 0 && age < ON_ITS_WAY ? age : 0);
    for (const listener of this.listeners) listener();
  }

  private async follow(): Promise<void> {
    while (!this.closed) {
      try {
        const response = await fetch(`${this.lab}/clock/changes`);
        let pending = '';
        const decoder = new TextDecoder();
        for await (const chunk of response.body as unknown as AsyncIterable<Uint8Array>) {
          pending += decoder.decode(chunk, { stream: true });
          const lines = pending.split('\n');
          pending = lines.pop()!;
          for (const line of lines) if (line.startsWith('data: ')) this.take(JSON.parse(line.slice(6)));
        }
      } catch (error) {
        // The lab is away; it is asked again until it is back.
        if (!(error instanceof TypeError)) throw error;
      }
      await new Promise((resolve) => setTimeout(resolve, 500));
    }
  }
}
