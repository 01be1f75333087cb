import { Inject, Injectable, Logger, OnApplicationBootstrap, BeforeApplicationShutdown } from '@nestjs/common';
import { CLOCK, Clock } from '../clock/clock';
import { DATABASE, Database } from '../db/database';
import { Advancer } from './advance';
import { Boss } from './boss';

const QUEUE = 'advance';
const WORKERS = 4;
/** Milliseconds of real time between looks at what has fallen due. */
const PULSE = 250;

/** Sends moves whose time has come to the queue, and works the queue. When something is due is in the moves themselves, by the job's clock. */
@Injectable()
export class JobQueue implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly log = new Logger('jobs');
  private timer: NodeJS.Timeout | undefined;
  private closing = false;
  private pulsing: Promise<void> | undefined;
  private workers: string[] = [];

  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(CLOCK) private readonly clock: Clock,
    private readonly advancer: Advancer,
    private readonly boss: Boss,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    this.workers = await this.boss.work<{ move: string }>(QUEUE, WORKERS, ({ move }) => this.work(move));
    // What a process that died had in hand is looked at now, not when its lease ends.
    await this.database('moves').where({ state: 'open' }).update({ wake_at: this.clock.now() });
    this.clock.onChange(() => this.pulse());
    this.timer = setInterval(() => this.pulse(), PULSE);
    this.pulse();
  }

  async beforeApplicationShutdown(): Promise<void> {
    this.closing = true;
    clearInterval(this.timer);
    await this.pulsing;
  }

  /** Has a move looked at as soon as a worker is free. */
  async send(move: string): Promise<void> {
    // Before the workers are there, the first look at what is due sends it.
    if (this.workers.length > 0) await this.boss.send(QUEUE, { move }, move, this.workers);
  }

  private pulse(): void {
    if (this.pulsing || this.closing) return;
    this.pulsing = this.sendDue()
      .catch((error: unknown) => this.log.error(error))
      .finally(() => (this.pulsing = undefined));
  }

  private async sendDue(): Promise<void> {
    const due = await this.database<{ id: string; state: string; wake_at: number }>('moves')
      .where('state', 'open')
      .andWhere('wake_at', '<=', this.clock.now())
      .limit(500)
      .select('id');
    for (const { id } of due) await this.send(id);
  }

  private async work(move: string): Promise<void> {
    try {
      await this.advancer.advance(move);
    } catch (error) {
      // A fault of ours must not stop the move for good: it is tried again in a minute.
      this.log.error(error);
      await this.database('moves')
        .where({ id: move })
        .update({ wake_at: this.clock.now() + 60 });
    }
  }
}
