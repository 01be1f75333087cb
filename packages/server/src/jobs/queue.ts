import { Inject, Injectable, Logger, OnApplicationBootstrap, BeforeApplicationShutdown } from '@nestjs/common';
import PgBoss from 'pg-boss';
import { CLOCK, Clock } from '../clock/clock';
import { CONFIG, Config } from '../config';
import { DATABASE, Database } from '../db/database';
import { Advancer } from './advance';

const QUEUE = 'advance';
const WORKERS = 4;
/** Milliseconds of real time between looks at what has fallen due. */
const PULSE = 250;

/** Sends moves whose time has come to the queue, and works the queue. When something is due is in the moves themselves, by the job's clock. */
@Injectable()
export class JobQueue implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly log = new Logger('jobs');
  private boss: PgBoss | undefined;
  private timer: NodeJS.Timeout | undefined;
  private closing = false;
  private pulsing: Promise<void> | undefined;
  private workers: string[] = [];

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(DATABASE) private readonly database: Database,
    @Inject(CLOCK) private readonly clock: Clock,
    private readonly advancer: Advancer,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    const boss = new PgBoss({ connectionString: this.config.WANDERON_DATABASE, max: 4, schema: 'jobs' });
    boss.on('error', (error) => this.log.error(error));
    await boss.start();
    // `short`: one waiting job a move is enough, since it does everything that is due.
    if (!(await boss.getQueue(QUEUE))) await boss.createQueue(QUEUE, { name: QUEUE, policy: 'short', retryLimit: 0, expireInSeconds: 900 });
    for (let i = 0; i < WORKERS; i++) {
      this.workers.push(
        await boss.work<{ move: string }>(QUEUE, { pollingIntervalSeconds: 2, batchSize: 1 }, async ([job]) => {
          await this.work(job!.data.move);
        }),
      );
    }
    this.boss = boss;
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
    await this.boss?.stop({ graceful: true, timeout: 5000, wait: true });
  }

  /** Has a move looked at as soon as a worker is free. */
  async send(move: string): Promise<void> {
    if (!this.boss) return;
    await this.boss.send(QUEUE, { move }, { singletonKey: move });
    for (const worker of this.workers) this.boss.notifyWorker(worker);
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
