import { Inject, Injectable, Logger } from '@nestjs/common';
import { Due, Leg, Name, STEP_RULES, dueOf, gateLooks, lateness, newsOf } from '@wanderon/core';
import { CLOCK, Clock } from '../clock/clock';
import { Database } from '../db/database';
import { EventStore } from '../events/event.store';
import { HostStore } from '../hosts/host.store';
import { LegLoader, LoadedLeg, LoadedMove } from '../moves/legLoader';
import { MoveActs } from '../moves/moveActs';
import { MoveStore } from '../moves/move.store';
import { ObservationStore, Sighted } from '../moves/observation.store';
import { Network } from '../network/network';
import { SurveyStore } from '../survey/survey.store';
import { WebsiteLookStore } from '../watch/websiteLook.store';
import { change } from './acts/change';
import { early } from './acts/early';
import { lower } from './acts/lower';
import { Outward } from './acts/outward';
import { push } from './acts/push';
import { raise } from './acts/raise';
import { turn } from './acts/turn';
import { Claims } from './claims';
import { ActResult, Outcome, WorkContext } from './context';
import { lookForDrift } from './looks/drift';
import { lookAstray } from './looks/astray';
import { askLookouts } from './looks/lookouts';
import { lookAtParent } from './looks/parent';
import { lookAtWebsite } from './looks/website';
import { lookAtNew, lookAtOld } from './looks/zones';
import { SurveyStep } from './surveyStep';
import { Together } from './together';

/** Things done for a move before others have their turn. */
const TURN = 12;
/** Seconds of real time after which a survey that was sent to its workers is asked for again. */
const SURVEY_AGAIN = 5;

/** Domains among which a row is looked for that is not where it belongs; those of the same client come first. */
const OTHER_DOMAINS = 20;

/** Looks that take long, and that no time rests on. */
const SLOW: ReadonlySet<string> = new Set(['drift', 'lookouts', 'website']);

/** What came of a look or an act, and seconds to the next. */
interface Commit {
  readonly context: WorkContext;
  readonly outcome: Outcome;
  readonly every: number;
}

/** What is due for a move and is done by other workers. */
export interface Beside {
  readonly survey: boolean;
  readonly watch: boolean;
}

const ACTS: Readonly<Record<string, (context: WorkContext, outward: Outward) => Promise<ActResult>>> = { early, push, lower, change, turn, raise };

/** Takes moves forward: asks core what is due, does it, and records what was seen. */
@Injectable()
export class Advancer {
  private readonly log = new Logger('advance');
  /** Seconds that the looks of a move took when they were made last. */
  private readonly pace = new Map<string, number>();
  private readonly commits = new Together<Commit>((id, commits) => this.write(id, commits));

  constructor(
    @Inject(CLOCK) private readonly clock: Clock,
    private readonly loader: LegLoader,
    private readonly acts: MoveActs,
    private readonly store: MoveStore,
    private readonly observations: ObservationStore,
    private readonly surveys: SurveyStore,
    private readonly surveyStep: SurveyStep,
    private readonly hosts: HostStore,
    private readonly websiteLooks: WebsiteLookStore,
    private readonly events: EventStore,
    private readonly network: Network,
    private readonly outward: Outward,
    private readonly claims: Claims,
  ) {}

  /**
   * Every act that is due for a move now, and every look that its times rest on. What takes long has workers of its own: a
   * survey, and looks that are only watched; `beside` is told as soon as one of them is due. One process at a time does each of these.
   * Safe to call at any moment and any number of times.
   */
  async advance(id: string, beside: (what: keyof Beside) => Promise<void>): Promise<void> {
    if (!(await this.claims.take(id, 'advance'))) return;
    try {
      await this.work(id, beside);
    } finally {
      await this.claims.release(id, 'advance');
    }
  }

  /** Looks at lookouts, website and drift, the most overdue first. */
  async watch(id: string): Promise<void> {
    if (!(await this.claims.take(id, 'watch'))) return;
    try {
      for (let turn = 0; turn < TURN; turn++) {
        const loaded = await this.loader.loadPrepared(id);
        if (loaded.move.state !== 'open') return;
        const { leg } = loaded.current;
        const ready = dueOf(leg).filter((due) => due.what === 'look' && SLOW.has(due.id) && due.at <= leg.now);
        const late = new Map(ready.map((due) => [due, lateness(leg, due)]));
        const next = ready.sort((a, b) => (late.get(a) === late.get(b) ? 0 : late.get(b)! - late.get(a)!))[0];
        if (!next) break;
        await this.doOne(loaded, loaded.current, next);
      }
    } finally {
      await this.claims.release(id, 'watch');
    }
    await this.sleep(await this.loader.load(id));
  }

  private async work(id: string, beside: (what: keyof Beside) => Promise<void>): Promise<void> {
    let loaded = await this.loader.loadPrepared(id);
    if (loaded.move.state !== 'open') {
      await this.acts.refresh(loaded);
      return this.store.wake(id, null);
    }
    const told = new Set<keyof Beside>();
    for (let turn = 0; turn < TURN; turn++) {
      const all = loaded.legs.flatMap((one) => dueOf(one.leg).map((due) => ({ one, due })));
      const now = all.filter(({ due }) => due.at <= this.clock.now());
      const due: Beside = { survey: now.some((one) => one.due.what === 'survey'), watch: now.some((one) => SLOW.has(one.due.id)) };
      for (const what of ['survey', 'watch'] as const)
        if (due[what] && !told.has(what)) {
          told.add(what);
          await beside(what);
        }
      const ready = now.filter((one) => one.due.what !== 'survey' && !SLOW.has(one.due.id));
      if (ready.length === 0) break;
      // Acts before looks, one after the other; looks side by side, so that a server which takes its time holds up no other.
      const act = ready.find((one) => one.due.what === 'act');
      const began = performance.now();
      await Promise.all((act ? [act] : ready).map((one) => this.doOne(loaded, one.one, one.due)));
      if (!act) this.pace.set(id, this.takenSince(began));
      loaded = await this.loader.loadPrepared(id);
    }
    if (loaded.move.summarised !== loaded.move.version) await this.acts.refresh(loaded);
    await this.sleep(loaded);
  }

  /** When to come back; at once where somebody acted since the move was read. */
  private async sleep({ move, legs }: LoadedMove): Promise<void> {
    // What is under way beside is asked for again, should its process die.
    const again = this.clock.now() + SURVEY_AGAIN * Math.max(1, this.clock.rate());
    const waits = legs.flatMap((one) => dueOf(one.leg).map((due) => (due.what === 'survey' || SLOW.has(due.id) ? Math.max(due.at, again) : due.at)));
    const at = waits.length === 0 ? null : Math.min(...waits);
    await this.store.database('moves').where({ id: move.id, version: move.version, state: 'open' }).update({ wake_at: at });
  }

  private async doOne(loaded: LoadedMove, one: LoadedLeg, due: Due): Promise<void> {
    const context = this.contextOf(loaded, one, due.every);
    if (due.what === 'act') {
      const look: Due = { what: 'look', id: 'old', at: due.at, every: one.leg.state.every };
      return this.doAct({ ...context, witness: () => this.doOne(loaded, one, look) }, due);
    }
    let outcome: Outcome;
    let problem: string | undefined;
    const began = performance.now();
    try {
      outcome = { ...(await this.look(context, due)), ended: this.clock.now() };
    } catch (error) {
      // A fault of ours must not stop the move: it is told, and the look is made again when its time comes.
      this.log.error(error);
      problem = 'a fault of Wanderon’s own; it was written to the log';
      outcome = { sights: [], at: this.clock.now() };
    }
    const { next } = outcome;
    const looked: Sighted = { kind: 'look', subject: due.id, value: { problem: problem ?? null }, ...(next === undefined ? {} : { note: { next } }) };
    // A look is not planned more often than one can be made: servers that do not answer take their time.
    const every = Math.max(due.every, this.takenSince(began), this.pace.get(context.move.id) ?? 0);
    await this.commit(context, { ...outcome, sights: [...outcome.sights, looked] }, every);
  }

  /** Seconds of the job's time that work took; a clock that jumped meanwhile makes it no longer. */
  private takenSince(began: number): number {
    return ((performance.now() - began) / 1000) * this.clock.rate();
  }

  private astray(context: WorkContext): Promise<Sighted[]> {
    return lookAstray(context, this.network, () => this.store.otherDomains(context.move.domain_id, OTHER_DOMAINS));
  }

  private async look(context: WorkContext, due: Due): Promise<Outcome> {
    const at = this.clock.now();
    const row = context.loaded.row.id;
    switch (due.id) {
      case 'parent':
        return { sights: await lookAtParent(context, this.network), at };
      case 'old':
        return { sights: [...(await lookAtOld(context, this.network)), ...(context.leg.plan.kind === 'repoint' ? await this.astray(context) : [])], at };
      case 'new': {
        const { sights, servers } = await lookAtNew(context, this.network, this.hosts);
        const moved = JSON.stringify(servers) !== JSON.stringify(context.loaded.row.new_servers);
        return {
          sights: [...sights, ...(await this.astray(context))],
          at,
          ...(moved && { also: (transaction) => this.store.updateLeg(row, { new_servers: servers }, transaction).then(() => []) }),
        };
      }
      case 'drift':
        return { sights: await lookForDrift(context, this.network, this.hosts, this.surveys), at };
      case 'lookouts':
        return { ...(await askLookouts(context, this.network, at)), at };
      case 'website': {
        const upTo = context.loaded.decisions.at(-1)?.id ?? 0;
        const website = await lookAtWebsite(context, this.network, this.surveys, this.websiteLooks, at);
        return { sights: [workSight('website', { outcome: 'done', problem: null }, null, upTo)], at, ...website };
      }
      default:
        throw new RangeError(`nobody knows how to look at ${due.id}`);
    }
  }

  private async doAct(context: WorkContext, due: Due): Promise<void> {
    const { leg, loaded } = context;
    const upTo = loaded.decisions.at(-1)?.id ?? 0;
    const plans: Record<string, string | undefined> = { early: leg.puts, push: leg.pushes, raise: leg.pushes, lower: leg.lowers, change: leg.changes };
    let result: ActResult;
    try {
      result = await ACTS[due.id]!(context, this.outward);
    } catch (error) {
      this.log.error(error);
      result = { outcome: 'trying', problem: 'A fault of Wanderon’s own; it was written to the log, and is tried again.' };
    }
    const title = STEP_RULES.find((rule) => rule.id === due.id)!.title;
    const notes =
      result.outcome === 'done'
        ? [{ kind: 'step', text: `${title}: done.${result.problem ? ` ${result.problem}` : ''}` }]
        : result.outcome === 'stopped'
          ? [{ kind: due.id, text: `${title}: ${result.problem}` }]
          : [];
    await this.commit(context, { sights: [workSight(due.id, result, plans[due.id] ?? null, upTo)], at: this.clock.now(), notes }, due.every);
  }

  /** Takes the survey that is due; it goes on beside everything else that is done for the move. */
  async survey(id: string): Promise<void> {
    if (!(await this.claims.take(id, 'survey'))) return;
    try {
      const loaded = await this.loader.load(id);
      const due = loaded.move.state === 'open' ? dueOf(loaded.current.leg).find((one) => one.what === 'survey') : undefined;
      if (!due || due.at > this.clock.now()) return;
      const upTo = loaded.current.decisions.at(-1)?.id ?? 0;
      const context = this.contextOf(loaded, loaded.current, due.every);
      try {
        const { result, outcome } = await this.surveyStep.take(context);
        if (this.surveyStep.closing && result.outcome === 'stopped') return;
        const notes = [...(outcome.notes ?? []), ...(result.outcome === 'stopped' ? [{ kind: 'survey', text: `Take the survey: ${result.problem}` }] : [])];
        await this.commit(context, { ...outcome, notes, sights: [...outcome.sights, workSight('survey', result, null, upTo)] }, due.every);
      } catch (error) {
        if (this.surveyStep.closing) return;
        this.log.error(error);
        const result: ActResult = { outcome: 'trying', problem: 'A fault of Wanderon’s own; it was written to the log, and the survey is taken again.' };
        await this.commit(context, { sights: [workSight('survey', result, null, upTo)], at: this.clock.now() }, due.every);
      }
      await this.store.database('moves').where({ id, state: 'open' }).update({ wake_at: 0 });
    } finally {
      await this.claims.release(id, 'survey');
    }
  }

  /** Looks at all that the gate rests on, at once: before a switch is taken for granted. */
  async lookForGate(id: string): Promise<void> {
    const loaded = await this.loader.load(id);
    const { every } = loaded.current.leg.state;
    await Promise.all(gateLooks(loaded.current.leg.plan).map((kind) => this.doOne(loaded, loaded.current, { what: 'look', id: kind, at: 0, every })));
  }

  private commit(context: WorkContext, outcome: Outcome, every: number): Promise<void> {
    return this.commits.add(context.move.id, { context, outcome, every });
  }

  /** One short transaction: what was seen, what follows, and the words of the trail; steps that are newly done are told. */
  private async write(id: string, commits: readonly Commit[]): Promise<void> {
    const observe: Parameters<MoveActs['write']>[1] = async (now, transaction) => {
      if (now.move.state !== 'open') return;
      for (const { context, outcome, every } of commits) {
        await this.observations.add(context.loaded.row.id, outcome, every, outcome.sights, transaction);
        const also = (await outcome.also?.(transaction)) ?? [];
        for (const { kind, text } of [...(outcome.notes ?? []), ...also]) await this.tell(context, kind, text, transaction);
      }
      const contexts = new Map(commits.map(({ context }) => [context.loaded.row.id, context]));
      return async (after: LoadedMove) => {
        for (const [leg, context] of contexts) {
          const ofLeg = (all: LoadedMove): Leg => all.legs.find((one) => one.row.id === leg)!.leg;
          for (const { kind, text, about } of newsOf(ofLeg(now), ofLeg(after)))
            // What a gap had put in doubt, and was found as it was, is no news.
            if (!about || (await this.events.lastOfStep(id, about, transaction)) !== text) await this.tell(context, kind, text, transaction);
        }
      };
    };
    await this.acts.write(id, observe, commits.some(({ outcome }) => outcome.also) ? undefined : 'observations');
  }

  private async tell({ move }: WorkContext, kind: string, text: string, transaction: Database): Promise<void> {
    this.log.log(`${move.domain}: ${text}`);
    await this.events.add({ kind, text, domain: move.domain, move: move.id }, transaction);
  }

  private contextOf(loaded: LoadedMove, one: LoadedLeg, every: number): WorkContext {
    const { move } = loaded;
    return { move, loaded: one, leg: one.leg, zone: Name.parse(`${move.domain}.`), every };
  }
}

function workSight(step: string, result: ActResult, plan: string | null, upTo: number): Sighted {
  const { outcome, problem, foreign = [], kept = [] } = result;
  return { kind: 'work', subject: step, value: { outcome, problem, plan, upTo, foreign, kept } };
}
