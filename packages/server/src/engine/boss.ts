import { BeforeApplicationShutdown, Inject, Injectable, Logger } from '@nestjs/common';
import PgBoss from 'pg-boss';
import { CONFIG, Config } from '../config';
import { DATABASE, Database } from '../db/database';

/** The queue in the database that all server processes share. */
@Injectable()
export class Boss implements BeforeApplicationShutdown {
  private readonly log = new Logger('jobs');
  private starting: Promise<PgBoss> | undefined;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(DATABASE) private readonly database: Database,
  ) {}

  /** Works a queue, so many jobs at a time. `short`: one waiting job for each singleton key is enough, as it does all there is to do. */
  async work<T extends object>(queue: string, workers: number, handle: (data: T) => Promise<void>): Promise<string[]> {
    const boss = await this.started();
    // Making two queues at a time, in one process or in several, is a deadlock in the database.
    await this.database.transaction(async (lock) => {
      await lock.raw('select pg_advisory_xact_lock(hashtextextended(?, 3))', ['queues']);
      if (!(await boss.getQueue(queue))) await boss.createQueue(queue, { name: queue, policy: 'short', retryLimit: 0, expireInSeconds: 900 });
    });
    const ids: string[] = [];
    for (let i = 0; i < workers; i++) ids.push(await boss.work<T>(queue, { pollingIntervalSeconds: 2, batchSize: 1 }, async ([job]) => handle(job!.data)));
    return ids;
  }

  /** Sends a job, and wakes the workers that are told. */
  async send(queue: string, data: object, key: string, wake: readonly string[]): Promise<void> {
    const boss = await this.started();
    await boss.send(queue, data, { singletonKey: key });
    for (const worker of wake) boss.notifyWorker(worker);
  }

  private started(): Promise<PgBoss> {
    this.starting ??= (async () => {
      const boss = new PgBoss({ connectionString: this.config.WANDERON_DATABASE, max: 4, schema: 'jobs' });
      boss.on('error', (error) => this.log.error(error));
      return boss.start();
    })();
    return this.starting;
  }

  async beforeApplicationShutdown(): Promise<void> {
    await (await this.starting)?.stop({ graceful: true, timeout: 5000, wait: true });
  }
}
