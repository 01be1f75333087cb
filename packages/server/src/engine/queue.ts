import { BeforeApplicationShutdown, Inject, Injectable, Logger, OnApplicationBootstrap } from '@nestjs/common';
import { Subscription } from 'rxjs';
import { CLOCK, Clock } from '../clock/clock';
import { DATABASE, Database } from '../db/database';
import { WakeUps } from '../moves/wakeUps';
import { Advancer } from './advance';
import { Boss, Wakeable } from './boss';
import { Claims } from './claims';

const ADVANCE = 'advance';
const SURVEY = 'survey';
const WATCH = 'watch';
/** Workers for what is due, and beside them for what takes long. */
const ADVANCE_WORKERS = 4;
/** They wait for the network most of the time; each may have a transfer in hand (TRANSFER_BOUNDS), and sweeps have as many again. */
const SURVEY_WORKERS = 6;
const WATCH_WORKERS = 4;
/** Milliseconds of real time between looks at what has fallen due. */
const PULSE = 250;
/** Moves sent to the queue at one pulse; the rest has its turn at the next. */
const AT_ONCE = 100;
/** Seconds after which a move that failed for a fault of ours is looked at again. */
const AFTER_FAULT = 60;

/** Sends moves whose time has come to the queue, and works the queue. When something is due is in the moves themselves, by the job's clock. */
@Injectable()
export class JobQueue implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly log = new Logger('jobs');
  private timer: NodeJS.Timeout | undefined;
  private closing = false;
  private pulsing: Promise<void> | undefined;
  private advancing: Wakeable | undefined;
  private subscription: Subscription | undefined;

  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(CLOCK) private readonly clock: Clock,
    private readonly advancer: Advancer,
    private readonly boss: Boss,
    private readonly wakeUps: WakeUps,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    const surveying = await this.work(SURVEY, SURVEY_WORKERS, (move) => this.advancer.survey(move));
    const watching = await this.work(WATCH, WATCH_WORKERS, (move) => this.advancer.watch(move));
    const beside = { survey: [SURVEY, surveying], watch: [WATCH, watching] } as const;
    this.advancing = await this.work(ADVANCE, ADVANCE_WORKERS, (move) =>
      this.advancer.advance(move, (what) => this.boss.send(beside[what][0], { move }, move, beside[what][1])),
    );
    this.subscription = this.wakeUps.moves.subscribe((move) => void this.send(move).catch((error: unknown) => this.log.error(error)));
    this.clock.onChange(() => this.pulse());
    this.timer = setInterval(() => this.pulse(), PULSE);
    this.pulse();
  }

  async beforeApplicationShutdown(): Promise<void> {
    this.closing = true;
    this.subscription?.unsubscribe();
    clearInterval(this.timer);
    await this.pulsing;
  }

  private async send(move: string): Promise<void> {
    if (!this.closing) await this.boss.send(ADVANCE, { move }, move, this.advancing);
  }

  private pulse(): void {
    if (this.pulsing || this.closing) return;
    this.pulsing = this.sendDue()
      .catch((error: unknown) => this.log.error(error))
      .finally(() => (this.pulsing = undefined));
  }

  /** What has been due longest comes first; what a live process has in hand makes no work. */
  private async sendDue(): Promise<void> {
    const due = await this.database<{ id: string; state: string; wake_at: number }>('moves')
      .where('state', 'open')
      .andWhere('wake_at', '<=', this.clock.now())
      .whereNotExists(this.database('claims').whereRaw("claims.move_id = moves.id and claims.work = 'advance'").whereRaw(Claims.LIVE))
      .orderBy('wake_at')
      .limit(AT_ONCE)
      .select('id');
    for (const { id } of due) await this.send(id);
  }

  /** Has `handle` work a queue; a move at which it fails is put off. */
  private work(queue: string, workers: number, handle: (move: string) => Promise<void>): Promise<Wakeable> {
    return this.boss.work<{ move: string }>(queue, workers, async ({ move }) => {
      try {
        await handle(move);
      } catch (error) {
        if (this.closing) return;
        this.log.error(error);
        await this.database('moves')
          .where({ id: move })
          .update({ wake_at: this.clock.now() + AFTER_FAULT });
      }
    });
  }
}
