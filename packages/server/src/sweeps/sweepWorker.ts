import { randomUUID } from 'node:crypto';
import { BeforeApplicationShutdown, Inject, Injectable, Logger, OnApplicationBootstrap } from '@nestjs/common';
import { Name } from '@wanderon/core';
import { NetError } from '@wanderon/net';
import { CLOCK, Clock } from '../clock/clock';
import { CONFIG, Config } from '../config';
import { DATABASE, Database } from '../db/database';
import { Boss, Wakeable } from '../engine/boss';
import { Claims } from '../engine/claims';
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
 * Surveys the domains of sweeps. A domain in hand bears the number of its process; its survey is written in one transaction with
 * that number taken away: once, or, where the process dies, not at all, and the next one takes it.
 */
@Injectable()
export class SweepWorker implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly log = new Logger('sweeps');
  private timer: NodeJS.Timeout | undefined;
  private workers: Wakeable | undefined;
  private pulsing: Promise<void> | undefined;
  private readonly failed: { readonly sweep: string; readonly position: number; readonly process: number }[] = [];

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(CLOCK) private readonly clock: Clock,
    @Inject(DATABASE) private readonly database: Database,
    private readonly store: SweepStore,
    private readonly surveys: SurveyStore,
    private readonly surveyor: Surveyor,
    private readonly live: LiveService,
    private readonly boss: Boss,
    private readonly claims: Claims,
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
    await this.writeFailed();
    for (const sweep of await this.store.unfinished()) {
      if (await this.store.close(sweep)) {
        await this.live.tell({ topic: 'sweep', sweep });
        continue;
      }
      // A key each, so that as many workers as there are can be at it.
      for (let slot = 0; slot < (this.workers?.most ?? 0); slot++) await this.boss.send(QUEUE, { sweep }, `${sweep}/${slot}`, this.workers);
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
    const process = this.claims.number;
    const next = process === 0 ? undefined : await this.store.claim(sweep, process);
    if (!next) return false;
    const { position, domain } = next;
    try {
      const taken = await this.take(sweep, domain);
      if (taken === 'closing') {
        await this.store.release(sweep, position, process);
        return false;
      }
      await this.database.transaction(async (transaction) => {
        // Somebody else may have it by now, if the database had gone away: then theirs is the one survey.
        if (!(await this.store.holds(sweep, position, process, transaction))) return;
        const row = 'taken' in taken ? await this.write(domain, taken.taken, transaction) : taken;
        await this.store.finish(sweep, position, process, { ...row, done_at: this.clock.now() }, transaction);
      });
    } catch (error) {
      // A fault of ours with one domain must not keep the others from being surveyed.
      this.log.error(error);
      this.failed.push({ sweep, position, process });
      await this.writeFailed();
    }
    return true;
  }

  /** What an error of ours came to; kept here for as long as the database does not take it. */
  private async writeFailed(): Promise<void> {
    for (let one = this.failed[0]; one; one = this.failed[0]) {
      const row = { state: 'failed', problem: 'An error of Wanderon itself; it is in the log.', done_at: this.clock.now() };
      await this.store.finish(one.sweep, one.position, one.process, row, this.database);
      if (this.failed[0] === one) this.failed.shift();
    }
  }

  /** A survey, what became of it, or that this process ends and the next one takes it. */
  private async take(sweep: string, domain: string): Promise<{ taken: TakenSurvey } | { state: string; problem: string | null } | 'closing'> {
    try {
      return { taken: await this.surveyor.take({ sweep, domain }, Name.parse(`${domain}.`), { brief: true }) };
    } catch (error) {
      if (!(error instanceof NetError)) throw error;
      if (error.kind !== 'cancelled') return { state: 'failed', problem: sentence(error.message) };
      return this.surveyor.closing ? 'closing' : { state: 'cancelled', problem: null };
    }
  }

  private async write(
    domain: string,
    { survey, host }: TakenSurvey,
    transaction: Database,
  ): Promise<{ state: string; survey_id: string; gist: string; problem: null }> {
    const id = await this.surveys.add(await this.domainId(domain, transaction), null, survey, transaction);
    return { state: 'done', survey_id: id, gist: JSON.stringify(gistOf(survey, host?.name)), problem: null };
  }

  private async domainId(name: string, transaction: Database): Promise<string> {
    await transaction('domains').insert({ id: randomUUID(), name }).onConflict('name').ignore();
    return (await transaction('domains').where({ name }).first<{ id: string }>('id')).id;
  }
}
