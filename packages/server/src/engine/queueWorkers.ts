import { Logger } from '@nestjs/common';
import type PgBoss from 'pg-boss';

/** Milliseconds until a queue of which nothing was heard is looked at by itself. */
const POLL = 2000;

/**
 * Works one queue, so many jobs at a time. One of those that are free looks for a job; once it has one, the next looks for
 * another, so that an empty queue is asked once for every job and not by all of them. The library's own workers write the end of
 * a job without waiting for it, so that a database that goes away at that moment ends the process; here it is written to the
 * log, and the work goes on.
 */
export class QueueWorkers<T extends object> {
  private readonly log = new Logger('jobs');
  private readonly busy = new Set<Promise<void>>();
  private readonly timer: NodeJS.Timeout;
  private closing = false;
  /** There may be a job that nobody has looked for. */
  private waiting = false;

  constructor(
    private readonly boss: Pick<PgBoss, 'fetch' | 'complete'>,
    private readonly queue: string,
    readonly most: number,
    private readonly handle: (data: T) => Promise<void>,
  ) {
    this.timer = setInterval(() => this.wake(), POLL);
    this.wake();
  }

  /** Has a job looked for now, or as soon as one of the workers is free. */
  wake(): void {
    this.waiting = true;
    if (this.closing || this.busy.size >= this.most) return;
    const working: Promise<void> = this.work().finally(() => {
      this.busy.delete(working);
      // Somebody who came when it had looked for the last time, and still seemed busy.
      if (this.waiting) this.wake();
    });
    this.busy.add(working);
  }

  /** Takes no more jobs; resolves once those in hand are done. */
  async stop(): Promise<void> {
    this.closing = true;
    clearInterval(this.timer);
    await Promise.all(this.busy);
  }

  private async work(): Promise<void> {
    while (this.waiting && !this.closing) {
      this.waiting = false;
      try {
        await this.workOne();
      } catch (error) {
        this.log.error(error);
      }
    }
  }

  /** What failed is not tried again as a job: whoever sent it sends another. */
  private async workOne(): Promise<void> {
    const [job] = (await this.boss.fetch<T>(this.queue, { batchSize: 1 })) ?? [];
    if (!job) return;
    this.wake();
    try {
      await this.handle(job.data);
    } catch (error) {
      this.log.error(error);
    }
    await this.boss.complete(this.queue, job.id);
  }
}
