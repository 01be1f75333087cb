import { Logger } from '@nestjs/common';
import type PgBoss from 'pg-boss';

/** Milliseconds until a worker that was not woken looks for a job by itself. */
const POLL = 2000;

/**
 * Works one queue, a job at a time. The library's own workers write the end of a job without waiting for it, so that a
 * database that goes away at that moment ends the process; here it is written to the log, and the worker goes on.
 */
export class QueueWorker<T extends object> {
  private readonly log = new Logger('jobs');
  private closing = false;
  private woken = false;
  private wakeUp: () => void = () => undefined;
  private readonly done: Promise<void>;

  constructor(
    private readonly boss: PgBoss,
    private readonly queue: string,
    private readonly handle: (data: T) => Promise<void>,
  ) {
    this.done = this.run();
  }

  /** Has it look for a job now. */
  wake(): void {
    this.woken = true;
    this.wakeUp();
  }

  /** Takes no more jobs; resolves once the one in hand is done. */
  async stop(): Promise<void> {
    this.closing = true;
    this.wake();
    await this.done;
  }

  private async run(): Promise<void> {
    while (!this.closing) {
      this.woken = false;
      let worked = false;
      try {
        worked = await this.workOne();
      } catch (error) {
        this.log.error(error);
      }
      if (!worked) await this.rest();
    }
  }

  /** False where the queue is empty. What failed is not tried again as a job: whoever sent it sends another. */
  private async workOne(): Promise<boolean> {
    const [job] = (await this.boss.fetch<T>(this.queue, { batchSize: 1 })) ?? [];
    if (!job) return false;
    try {
      await this.handle(job.data);
    } catch (error) {
      this.log.error(error);
    }
    await this.boss.complete(this.queue, job.id);
    return true;
  }

  private rest(): Promise<void> {
    return new Promise((resolve) => {
      if (this.woken) return resolve();
      const timer = setTimeout(resolve, POLL);
      this.wakeUp = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  }
}
