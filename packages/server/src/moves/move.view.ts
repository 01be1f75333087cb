import { Inject, Injectable } from '@nestjs/common';
import { LegView, Mark, MoveSummary, MoveView, StepView, WatchView } from '@wanderon/contract';
import { Instant, LegTimes, Name, Remark, STEPS, StepKind, checkRulings, openSteps, sameNameSet, settledWhen, showName } from '@wanderon/core';
import { CLOCK, Clock } from '../clock/clock';
import { CONFIG, Config } from '../config';
import { HostStore, knowledgeOf } from '../hosts/host.store';
import { DATABASE, Database } from '../db/database';
import { Network } from '../network/network';
import { SurveyViews } from '../survey/survey.view';
import { gateOf } from '../timetable/gate';
import { timesOf, watchedQuestions } from '../timetable/times';
import { RunRow, RunStore } from '../watch/run.store';
import { WebsiteLookStore } from '../watch/websiteLook.store';
import { Leg, Move, RulingRow, StepRow, rulingOf } from './leg';
import { MoveStore } from './move.store';

/** What the pages show of moves: worked out anew from what is stored, with the functions the engine uses. */
@Injectable()
export class MoveViews {
  constructor(
    private readonly store: MoveStore,
    private readonly surveyViews: SurveyViews,
    private readonly hosts: HostStore,
    private readonly runs: RunStore,
    private readonly websiteLooks: WebsiteLookStore,
    private readonly network: Network,
    @Inject(CLOCK) private readonly clock: Clock,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(DATABASE) private readonly database: Database,
  ) {}

  async list(): Promise<MoveSummary[]> {
    const moves = await this.store.list();
    return Promise.all(moves.map(async (move) => this.summary(move, await this.loadLegs(move))));
  }

  async get(id: string): Promise<MoveView> {
    const move = await this.store.get(id);
    const legs = await this.loadLegs(move);
    const current = legs.at(-1)!;
    return {
      ...(await this.summary(move, legs)),
      survey: current.leg.survey_id ? await this.surveyViews.ofMove(move, current.leg, current.leg.facts.lastSurvey ?? current.leg.survey_id) : null,
      legs: await Promise.all(legs.map((loaded) => this.legView(move, loaded))),
      watch: await this.watchView(move, current),
    };
  }

  async remarks(move: Move, leg: Leg, rulings: readonly RulingRow[]): Promise<Remark[]> {
    const oldWeb = leg.old_web_host ? [knowledgeOf(await this.hosts.get(leg.old_web_host))] : [];
    return checkRulings({ zone: Name.parse(`${move.domain}.`), rulings: rulings.map(rulingOf), oldWeb, fronted: leg.facts.fronted ?? [] });
  }

  private async loadLegs(move: Move): Promise<Loaded[]> {
    const legs = await this.store.legs(move.id);
    return Promise.all(
      legs.map(async (leg) => {
        const [steps, rulings] = await Promise.all([this.store.steps(leg.id), this.store.rulings(leg.id)]);
        return { leg, steps, rulings, times: timesOf(leg, steps, rulings, this.clock.now(), this.config) };
      }),
    );
  }

  private async summary(move: Move, legs: readonly Loaded[]): Promise<MoveSummary> {
    const current = legs.at(-1)!;
    const name = async (id: string | null): Promise<string | null> => (id ? (await this.hosts.get(id)).name : null);
    const drains = current.leg.facts.t0 && current.times;
    return {
      id: move.id,
      domain: move.domain,
      shown: showName(move.domain),
      scope: move.scope.kind === 'whole' ? { kind: 'whole' } : { kind: 'names', names: [...move.scope.names] },
      client: move.client,
      state: move.state,
      createdAt: move.created_at,
      from: await name(current.leg.old_dns_host),
      to: await name(current.leg.new_dns_host),
      next: move.state === 'open' ? nextOf(current, this.clock.now()) : null,
      marks: marksOf(move, legs),
      drain: drains ? { from: current.leg.facts.t0!.firstNew, until: current.times!.last.at } : null,
    };
  }

  private async legView(move: Move, { leg, steps, rulings, times }: Loaded): Promise<LegView> {
    const remarks = await this.remarks(move, leg, rulings);
    const people = new Map((await this.database<{ id: string; name: string }>('people').select('id', 'name')).map((person) => [person.id, person.name]));
    const { facts } = leg;
    const undoable = await this.database('ruling_changes')
      .where({ leg_id: leg.id, undone: false })
      .orderBy('id', 'desc')
      .first<{ after: RulingRow | null; before: RulingRow | null } | undefined>('before', 'after');
    const changed = undoable?.after ?? undoable?.before;
    return {
      id: leg.id,
      kind: leg.kind,
      oldDnsHost: leg.old_dns_host,
      oldWebHost: leg.old_web_host,
      newDnsHost: leg.new_dns_host,
      newWebHost: leg.new_web_host,
      oldNameservers: leg.old_nameservers,
      newNameservers: leg.new_nameservers,
      steps: stepViews(steps, people),
      rulings: rulings.map((row) => ({
        id: row.id,
        owner: row.owner,
        type: row.type,
        ruling: row.ruling,
        found: row.found,
        planned: row.planned,
        reason: row.reason,
        decidedBy: row.decided_by ? (people.get(row.decided_by) ?? null) : null,
      })),
      remarks,
      served: leg.served,
      times: times ? timesView(times) : null,
      gate: (({ open, lines }) => ({ open, lines: [...lines] }))(gateOf(leg, steps, rulings, remarks, this.clock.now(), this.config)),
      facts: {
        tl: facts.tl ?? null,
        ts: facts.ts ?? null,
        t0: facts.t0 ?? null,
        te: facts.te ?? null,
        plannedSwitch: facts.plannedSwitch ?? null,
        surveyAgain: facts.surveyAgain ?? false,
      },
      undoable: changed ? `${changed.owner} ${changed.type}` : null,
    };
  }

  private async watchView(move: Move, { leg, steps, rulings, times }: Loaded): Promise<WatchView | null> {
    if (leg.new_nameservers.length === 0 || !times) return null;
    const zone = Name.parse(`${move.domain}.`);
    const questions = new Map(watchedQuestions(zone, leg, rulings).map((question) => [`${question.owner}/${question.type}`, question]));
    const latest = (await this.runs.latest(leg.id)).filter((run) => questions.has(`${run.owner}/${run.type}`));
    const settled = steps.find((step) => step.kind === 'settle')!.state === 'done';
    const website = await this.websiteLooks.latest(leg.id);
    const verdict = settledWhen({
      now: this.clock.now(),
      lastHorizon: times.last.at,
      authoritiesNew: leg.facts.authoritiesNew ?? false,
      unasked: this.network.lookouts.length * questions.size - latest.length,
      lookouts: latest.map((run) => ({ lookout: run.subject, verdict: run.verdict, silent: run.silent, lookedAt: run.last_seen })),
    });
    return {
      lookouts: this.network.lookouts.map(({ name, address, note }) => ({ name, address, note })),
      looks: latest.map((run) => ({
        lookout: run.subject,
        owner: run.owner,
        type: run.type,
        verdict: run.verdict,
        answer: run.answer,
        rcode: run.rcode,
        firstSeen: run.first_seen,
        lastSeen: run.last_seen,
        count: Number(run.count),
        remainingTtl: run.remaining_ttl,
        silent: run.silent,
        steady: questions.get(`${run.owner}/${run.type}`)!.steady,
      })),
      parent: (leg.facts.parentSets ?? []).map((one) => ({
        server: one.server,
        address: one.address,
        nameservers: one.nameservers,
        state:
          one.problem !== undefined
            ? 'none'
            : sameNameSet(one.nameservers, leg.new_nameservers)
              ? 'new'
              : sameNameSet(one.nameservers, leg.old_nameservers)
                ? 'old'
                : 'other',
      })),
      settled,
      missing: settled ? [] : [...verdict.missing],
      setAside: [...verdict.setAside],
      website: website
        ? { surveyedAt: website.surveyed_at, firstSeen: website.first_seen, lastSeen: website.last_seen, asked: website.looks.length, changes: website.changes }
        : null,
      curve: leg.facts.t0 ? curveOf((await this.runs.all(leg.id)).filter((run) => questions.get(`${run.owner}/${run.type}`)?.steady === false)) : [],
    };
  }
}

interface Loaded {
  readonly leg: Leg;
  readonly steps: readonly StepRow[];
  readonly rulings: readonly RulingRow[];
  readonly times: LegTimes | undefined;
}

function stepViews(steps: readonly StepRow[], people: ReadonlyMap<string, string>): StepView[] {
  const open = new Set(openSteps(steps));
  return steps.map((step) => ({
    kind: step.kind,
    title: STEPS[step.kind].title,
    chapter: STEPS[step.kind].chapter,
    by: STEPS[step.kind].by,
    state: shownState(step, open),
    dueAt: step.due_at,
    doneAt: step.done_at,
    decidedBy: step.decided_by ? (people.get(step.decided_by) ?? null) : null,
    decidedAt: step.decided_at,
    problem: step.problem,
  }));
}

function shownState(step: StepRow, open: ReadonlySet<StepKind>): StepView['state'] {
  if (step.state === 'done' || step.state === 'failed' || !open.has(step.kind)) return step.state === 'doing' ? 'waiting' : step.state;
  const { by } = STEPS[step.kind];
  if (by === 'seen') return 'doing';
  if (by === 'person' || step.decided_at === null) return 'ready';
  return step.state === 'doing' ? 'doing' : 'due';
}

/** What comes next in a move, the person's part before ours. */
function nextOf({ leg, steps, times }: Loaded, now: Instant): MoveSummary['next'] {
  const open = openSteps(steps).map((kind) => steps.find((step) => step.kind === kind)!);
  const failed = open.find((step) => step.state === 'failed');
  if (failed)
    return { step: failed.kind, text: failed.problem ?? STEPS[failed.kind].title, chapter: STEPS[failed.kind].chapter, who: 'you', dueAt: null, failed: true };
  const switching = open.find((step) => step.kind === 'switch');
  if (switching) {
    if (leg.facts.ts !== undefined)
      return { step: 'switch', text: 'Waiting for the parent to publish the new nameservers', chapter: 'switch', who: 'wanderon', dueAt: null, failed: false };
    const dueAt = Math.max(times?.earliestSwitch.at ?? now, leg.facts.plannedSwitch ?? 0);
    return { step: 'switch', text: STEPS.switch.title, chapter: 'switch', who: 'you', dueAt, failed: false };
  }
  const yours = open.find((step) => STEPS[step.kind].by !== 'seen' && step.decided_at === null);
  if (yours) return { step: yours.kind, text: STEPS[yours.kind].title, chapter: STEPS[yours.kind].chapter, who: 'you', dueAt: null, failed: false };
  const ours = open[0];
  if (!ours) return null;
  const until = ours.kind === 'settle' ? (times?.last.at ?? null) : ours.due_at;
  return { step: ours.kind, text: STEPS[ours.kind].title, chapter: STEPS[ours.kind].chapter, who: 'wanderon', dueAt: until, failed: false };
}

const SEEN_LABELS: Partial<Record<StepKind, string>> = {
  survey: 'surveyed',
  push: 'pushed',
  lower: 'lowering sent',
  lowered: 'lowered',
  switch: 'switch seen',
  turn: 'old zone turned',
  settle: 'settled',
  raise: 'TTLs raised',
  close: 'closed',
};

function marksOf(move: Move, legs: readonly Loaded[]): Mark[] {
  const marks: Mark[] = [{ at: move.created_at, label: 'begun', kind: 'step', derived: null }];
  for (const { leg, steps, times } of legs) {
    for (const step of steps) {
      const label = SEEN_LABELS[step.kind];
      if (step.done_at !== null && label) marks.push({ at: step.done_at, label, kind: 'step', derived: null });
      else if (step.due_at !== null && step.state !== 'done' && label)
        marks.push({ at: step.due_at, label: STEPS[step.kind].title, kind: 'planned', derived: null });
    }
    if (!times) continue;
    const view = timesView(times);
    if (!leg.facts.t0) marks.push({ at: times.earliestSwitch.at, label: 'earliest switch', kind: 'horizon', derived: view.earliestSwitch });
    if (!leg.facts.t0 && leg.facts.plannedSwitch) marks.push({ at: leg.facts.plannedSwitch, label: 'switch planned', kind: 'planned', derived: null });
    marks.push({ at: times.delegation.at, label: 'delegation horizon', kind: 'horizon', derived: view.delegation });
    if (times.last.at !== times.delegation.at) marks.push({ at: times.last.at, label: 'last horizon', kind: 'horizon', derived: view.last });
  }
  return marks.sort((a, b) => a.at - b.at);
}

function timesView(times: LegTimes): NonNullable<LegView['times']> {
  const copy = (derived: LegTimes['last']): NonNullable<LegView['times']>['last'] => ({ ...derived, terms: [...derived.terms] });
  return {
    ...times,
    earliestSwitch: copy(times.earliestSwitch),
    delegation: copy(times.delegation),
    last: copy(times.last),
    sets: times.sets.map((set) => ({ ...set, horizon: copy(set.horizon) })),
  };
}

/** The share of looks that were old, stepwise: one point for every moment at which a run began. */
function curveOf(runs: readonly RunRow[]): { at: Instant; old: number }[] {
  const current = new Map<string, RunRow>();
  const points: { at: Instant; old: number }[] = [];
  for (const run of [...runs].sort((a, b) => a.first_seen - b.first_seen)) {
    current.set(`${run.subject}/${run.owner}/${run.type}`, run);
    const all = [...current.values()].filter((one) => !one.silent);
    const old = all.length === 0 ? 0 : all.reduce((sum, one) => sum + (one.verdict === 'old' ? 1 : one.verdict === 'mixed' ? 0.5 : 0), 0) / all.length;
    if (points.at(-1)?.at === run.first_seen) points[points.length - 1] = { at: run.first_seen, old };
    else points.push({ at: run.first_seen, old });
  }
  return points;
}
