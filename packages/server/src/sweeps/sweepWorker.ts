import { randomUUID } from 'node:crypto';
import { BeforeApplicationShutdown, Inject, Injectable, Logger, OnApplicationBootstrap } from '@nestjs/common';
import { Name } from '@wanderon/core';
import { NetError } from '@wanderon/net';
import { CLOCK, Clock } from '../clock/clock';
import { CONFIG, Config } from '../config';
import { DATABASE, Database } from '../db/database';
import { Boss, Wakeable } from '../engine/boss';
import { sentence } from '../engine/context';
import { LiveService } from '../live/live.service';
import { gistOf } from '../survey/gistOf';
import { SurveyStore } from '../survey/survey.store';
import { Surveyor } from '../survey/surveyor';
import { TakenSurvey } from '../survey/takeSurvey';
import { SweepStore } from './sweep.store';

const QUEUE = 'sweep';
/** Milliseconds of real time between looks for sweeps with something left to do. */
const PULSE = 1000;
/** Milliseconds that one job goes on taking domains; the next look sends another. */
const TURN = 30_000;

/**
 * Surveys the domains of sweeps. A domain in hand is a locked row in a transaction that also writes its survey: done once, or,
 * where the process dies, not at all and taken by the next one.
 */
@Injectable()
export class SweepWorker implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly log = new Logger('sweeps');
  private timer: NodeJS.Timeout | undefined;
  private workers: readonly Wakeable[] = [];
  private pulsing: Promise<void> | undefined;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(CLOCK) private readonly clock: Clock,
    @Inject(DATABASE) private readonly database: Database,
    private readonly store: SweepStore,
    private readonly surveys: SurveyStore,
    private readonly surveyor: Surveyor,
    private readonly live: LiveService,
    private readonly boss: Boss,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    this.workers = await this.boss.work<{ sweep: string }>(QUEUE, this.config.WANDERON_SWEEP_WORKERS, ({ sweep }) => this.turn(sweep));
    this.timer = setInterval(() => this.pulse(), PULSE);
    this.pulse();
  }

  async beforeApplicationShutdown(): Promise<void> {
    clearInterval(this.timer);
    await this.pulsing;
  }

  /** Has every sweep under way looked at now. */
  pulse(): void {
    if (this.pulsing || this.surveyor.closing) return;
    this.pulsing = this.sendUnfinished()
      .catch((error: unknown) => this.log.error(error))
      .finally(() => (this.pulsing = undefined));
  }

  private async sendUnfinished(): Promise<void> {
    for (const sweep of await this.store.unfinished()) {
      if (await this.store.close(sweep)) {
        await this.live.tell({ topic: 'sweep', sweep });
        continue;
      }
      // A key each, so that as many workers as there are can be at it.
      for (const [slot] of this.workers.entries()) await this.boss.send(QUEUE, { sweep }, `${sweep}/${slot}`, this.workers);
    }
  }

  private async turn(sweep: string): Promise<void> {
    const until = performance.now() + TURN;
    try {
      while (!this.surveyor.closing && performance.now() < until) if (!(await this.surveyNext(sweep))) return;
    } catch (error) {
      this.log.error(error);
    }
  }

  /** Surveys one domain; false where none is left that nobody has in hand. */
  private async surveyNext(sweep: string): Promise<boolean> {
    let at: number | undefined;
    try {
      return await this.database.transaction(async (transaction) => {
        const next = await this.store.claim(sweep, transaction);
        at = next?.position;
        return next !== undefined && (await this.surveyOne(sweep, next.position, next.domain, transaction));
      });
    } catch (error) {
      if (at === undefined) throw error;
      // A fault of ours with one domain must not keep the others from being surveyed.
      this.log.error(error);
      await this.store.finish(
        sweep,
        at,
        { state: 'failed', problem: 'An error of Wanderon itself; it is in the log.', done_at: this.clock.now() },
        this.database,
      );
      return true;
    }
  }

  private async surveyOne(sweep: string, position: number, domain: string, transaction: Database): Promise<boolean> {
    let taken: TakenSurvey;
    try {
      taken = await this.surveyor.take({ sweep, domain }, Name.parse(`${domain}.`), { brief: true });
    } catch (error) {
      if (!(error instanceof NetError)) throw error;
      // The next process takes it.
      if (error.kind === 'cancelled' && this.surveyor.closing) return false;
      const stopped = error.kind === 'cancelled';
      await this.store.finish(
        sweep,
        position,
        { state: stopped ? 'cancelled' : 'failed', problem: stopped ? null : sentence(error.message), done_at: this.clock.now() },
        transaction,
      );
      return true;
    }
    const survey = await this.surveys.add(await this.domainId(domain, transaction), null, taken.survey, transaction);
    const gist = JSON.stringify(gistOf(taken.survey, taken.host?.name));
    await this.store.finish(sweep, position, { state: 'done', survey_id: survey, gist, problem: null, done_at: this.clock.now() }, transaction);
    return true;
  }

  private async domainId(name: string, transaction: Database): Promise<string> {
    await transaction('domains').insert({ id: randomUUID(), name }).onConflict('name').ignore();
    return (await transaction('domains').where({ name }).first<{ id: string }>('id')).id;
  }
}
