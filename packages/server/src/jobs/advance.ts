import { Inject, Injectable, Logger } from '@nestjs/common';
import { Instant, Name, STEPS, StepKind, isDone, openSteps } from '@wanderon/core';
import { CLOCK, Clock } from '../clock/clock';
import { CONFIG, Config } from '../config';
import { EventStore } from '../events/event.store';
import { HostStore } from '../hosts/host.store';
import { LiveService } from '../live/live.service';
import { Leg, Move, StepRow } from '../moves/leg';
import { MoveStore } from '../moves/move.store';
import { Network } from '../network/network';
import { InHandStore } from '../survey/inHand.store';
import { SurveyStore } from '../survey/survey.store';
import { Surveyor } from '../survey/surveyor';
import { watchedQuestions } from '../timetable/times';
import { lookRound, nextLook } from '../watch/round';
import { RunStore } from '../watch/run.store';
import { WebsiteLookStore } from '../watch/websiteLook.store';
import { StepContext, StepWork } from './stepContext';
import { lookAtWebsite } from './lookAtWebsite';
import { surveyAgain } from './surveyAgain';
import { lower } from './steps/lower';
import { lowered } from './steps/lowered';
import { push, raise } from './steps/push';
import { served } from './steps/served';
import { settle } from './steps/settle';
import { survey } from './steps/survey';
import { switchNameservers } from './steps/switch';
import { turn } from './steps/turn';

const WORK: Partial<Record<StepKind, StepWork>> = { survey, push, served, lower, lowered, switch: switchNameservers, turn, settle, raise };

/** Seconds after which a move whose process died is taken up by another. */
const LEASE = 120;

/** Takes a move as far as it goes now: every open step that needs no person, then the lookouts, then says when to come back. */
@Injectable()
export class Advancer {
  private readonly log = new Logger('advance');

  constructor(
    @Inject(CLOCK) private readonly clock: Clock,
    @Inject(CONFIG) private readonly config: Config,
    private readonly store: MoveStore,
    private readonly surveys: SurveyStore,
    private readonly inHand: InHandStore,
    private readonly surveyor: Surveyor,
    private readonly hosts: HostStore,
    private readonly runs: RunStore,
    private readonly websiteLooks: WebsiteLookStore,
    private readonly events: EventStore,
    private readonly network: Network,
    private readonly live: LiveService,
  ) {}

  /**
   * One process at a time has a move: the lock goes with the connection, so a process that dies lets go of it at once.
   * Safe to call at any moment and any number of times.
   */
  async advance(moveId: string): Promise<void> {
    await this.store.database.transaction(async (lock) => {
      const taken = await lock.raw<{ rows: { taken: boolean }[] }>('select pg_try_advisory_xact_lock(hashtextextended(?, 0)) as taken', [moveId]);
      if (!taken.rows[0]!.taken) return;
      const move = await this.store.get(moveId);
      if (move.state !== 'open') return this.store.wake(moveId, null);
      const legs = await this.store.legs(moveId);
      // Should this process die, the move is taken up again then; a person who acts meanwhile wakes it sooner, and that is kept.
      const lease = this.clock.now() + LEASE;
      await this.store.wake(moveId, lease);
      let wake = Infinity;
      for (const leg of legs) wake = Math.min(wake, await this.advanceLeg(move, leg.id));
      const next = Number.isFinite(wake) ? wake : null;
      await lock('moves')
        .where({ id: moveId })
        .update({ wake_at: lock.raw('case when wake_at = ?::float8 then ?::float8 else least(wake_at, ?::float8) end', [lease, next, next]) });
      await this.live.tell({ topic: 'move', move: moveId });
    });
  }

  private async advanceLeg(move: Move, legId: string): Promise<Instant> {
    let wake = Infinity;
    const tried = new Set<StepKind>();
    for (;;) {
      const context = await this.context(move, legId);
      if (context.leg.facts.surveyAgain) {
        const drift = await surveyAgain(context);
        // Once the gate has looked, it goes by what was seen last.
        await this.store.addFacts(legId, { surveyAgain: false, ...(context.leg.facts.drift ? { drift } : {}) });
        continue;
      }
      const open = openSteps(context.steps).filter((kind) => !tried.has(kind) && WORK[kind]);
      const kind = open[0];
      if (!kind) return Math.min(wake, await this.look(context), await lookAtWebsite(context));
      tried.add(kind);
      const step = context.steps.find((one) => one.kind === kind)!;
      if (step.state === 'failed') continue;
      if (STEPS[kind].by === 'decided') {
        if (step.decided_at === null) continue;
        if (step.due_at !== null && step.due_at > this.clock.now()) {
          wake = Math.min(wake, step.due_at);
          continue;
        }
      }
      if (step.state !== 'doing') await this.store.setStep(legId, kind, { state: 'doing' });
      const outcome = await WORK[kind]!(context);
      if (outcome.state === 'done') {
        await this.finish(context, kind, step);
        // What this opens may have been tried in vain before it.
        tried.clear();
        tried.add(kind);
      } else if (outcome.state === 'wait') {
        await this.store.setStep(legId, kind, { problem: outcome.problem ?? null });
        wake = Math.min(wake, outcome.until);
      } else {
        await this.store.setStep(legId, kind, { state: 'failed', problem: outcome.problem });
        await context.note(kind, `${STEPS[kind].title}: ${outcome.problem}`);
      }
    }
  }

  private async finish(context: StepContext, kind: StepKind, step: StepRow): Promise<void> {
    const at = this.clock.now();
    await this.store.database.transaction(async (transaction) => {
      await this.store.setStep(context.leg.id, kind, { state: 'done', done_at: at, problem: null }, transaction);
      await this.events.add(
        {
          kind: 'step',
          domain: context.move.domain,
          move: context.move.id,
          person: step.decided_by ?? undefined,
          text: `${STEPS[kind].title}: done.`,
          before: { state: step.state },
          after: { state: 'done' },
        },
        transaction,
      );
    });
    await this.live.tell({ topic: 'move', move: context.move.id });
  }

  /** Asks the lookouts where it is time; from the lowered TTLs on, until the move is settled. */
  private async look(context: StepContext): Promise<Instant> {
    const { steps, leg, zone, rulings } = context;
    if (!isDone(steps, 'lowered') || isDone(steps, 'settle') || leg.new_nameservers.length === 0) return Infinity;
    const now = this.clock.now();
    if (leg.facts.nextLookAt !== undefined && leg.facts.nextLookAt > now) return leg.facts.nextLookAt;
    const questions = watchedQuestions(zone, leg, rulings).filter((question) => !question.fresh || leg.facts.t0 !== undefined);
    const looks = await lookRound(this.network, questions);
    await this.runs.add(leg.id, this.clock.now(), looks);
    const next = nextLook(looks, this.clock.now());
    await this.store.addFacts(leg.id, { nextLookAt: next });
    return next;
  }

  private async context(move: Move, legId: string): Promise<StepContext> {
    const leg: Leg = await this.store.leg(legId);
    const [steps, rulings] = await Promise.all([this.store.steps(legId), this.store.rulings(legId)]);
    const note: StepContext['note'] = async (kind, text, more = {}) => {
      this.log.log(`${move.domain}: ${text}`);
      await this.events.add({ kind, text, domain: move.domain, move: move.id, ...more });
    };
    return {
      move,
      leg,
      steps,
      rulings,
      zone: Name.parse(`${move.domain}.`),
      clock: this.clock,
      config: this.config,
      network: this.network,
      store: this.store,
      surveys: this.surveys,
      inHand: this.inHand,
      surveyor: this.surveyor,
      hosts: this.hosts,
      runs: this.runs,
      websiteLooks: this.websiteLooks,
      note,
    };
  }
}
