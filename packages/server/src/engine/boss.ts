import { BeforeApplicationShutdown, Inject, Injectable, Logger } from '@nestjs/common';
import PgBoss from 'pg-boss';
import { CONFIG, Config } from '../config';
import { DATABASE, Database } from '../db/database';
import { QueueWorkers } from './queueWorkers';

/** Milliseconds that jobs in hand are waited for at the end. */
const PATIENCE = 5000;

/** The workers of a queue, which can be told that there is a job. */
export type Wakeable = Pick<QueueWorkers<object>, 'wake' | 'most'>;

/** The queue in the database that all server processes share. */
@Injectable()
export class Boss implements BeforeApplicationShutdown {
  private readonly log = new Logger('jobs');
  private starting: Promise<PgBoss> | undefined;
  private readonly workers: QueueWorkers<never>[] = [];

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(DATABASE) private readonly database: Database,
  ) {}

  /** Works a queue, so many jobs at a time. `short`: one waiting job for each singleton key is enough, as it does all there is to do. */
  async work<T extends object>(queue: string, workers: number, handle: (data: T) => Promise<void>): Promise<Wakeable> {
    const boss = await this.started();
    // Making two queues at a time, in one process or in several, is a deadlock in the database.
    await this.database.transaction(async (lock) => {
      await lock.raw('select pg_advisory_xact_lock(hashtextextended(?, 3))', ['queues']);
      if (!(await boss.getQueue(queue))) await boss.createQueue(queue, { name: queue, policy: 'short', retryLimit: 0, expireInSeconds: 900 });
    });
    const made = new QueueWorkers(boss, queue, workers, handle);
    this.workers.push(made);
    return made;
  }

  /** Sends a job, and wakes its workers in this process; those in others look by themselves. */
  async send(queue: string, data: object, key: string, workers: Wakeable | undefined): Promise<void> {
    const boss = await this.started();
    await boss.send(queue, data, { singletonKey: key });
    workers?.wake();
  }

  private started(): Promise<PgBoss> {
    this.starting ??= (async () => {
      const boss = new PgBoss({ connectionString: this.config.WANDERON_DATABASE, max: 4, schema: 'jobs', schedule: false });
      boss.on('error', (error) => this.log.error(error));
      return boss.start();
    })();
    return this.starting;
  }

  async beforeApplicationShutdown(): Promise<void> {
    const boss = await this.starting;
    await Promise.race([Promise.all(this.workers.map((worker) => worker.stop())), new Promise((resolve) => setTimeout(resolve, PATIENCE).unref())]);
    await boss?.stop({ graceful: false, wait: true });
  }
}
