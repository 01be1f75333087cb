import { Inject, Injectable, Logger, OnApplicationBootstrap, OnModuleDestroy } from '@nestjs/common';
import { CONFIG, Config } from '../config';
import { isDatabaseAway } from '../db/away';
import { DATABASE, Database } from '../db/database';
import { sealEvents } from './trailSeals';

/** Milliseconds from one sealing to the next: what was written since can still be changed unseen. */
const EVERY = 10_000;

/** Seals the trail as it grows. */
@Injectable()
export class TrailSealer implements OnApplicationBootstrap, OnModuleDestroy {
  private readonly log = new Logger('trail');
  private timer: NodeJS.Timeout | undefined;
  private sealing: Promise<void> = Promise.resolve();

  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  onApplicationBootstrap(): void {
    this.timer = setInterval(() => {
      this.sealing = this.seal();
    }, EVERY);
  }

  async onModuleDestroy(): Promise<void> {
    clearInterval(this.timer);
    await this.sealing;
    // What was written until now is not left open until the next start.
    await this.seal();
  }

  private async seal(): Promise<void> {
    try {
      while ((await sealEvents(this.database, this.config)) > 0);
    } catch (error) {
      // It is made up for when the database is back.
      if (isDatabaseAway(error)) this.log.warn('The trail could not be sealed: the database does not answer.');
      else this.log.error(error);
    }
  }
}
