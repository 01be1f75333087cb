import { eachCheck } from '../rebuild/checks';
import { Remark } from '../rebuild/checks/check';
import { isChanging } from '../rebuild/ruling';
import { earlySets } from '../hosts/needs';
import { Instant } from '../timetable/instant';
import { legTimes } from '../timetable/legTimes';
import { switchedSince } from '../timetable/newSet';
import { setsToLower } from '../timetable/lowering';
import { Assumptions, LegTimes } from '../timetable/times';
import { Wanted } from '../timetable/wanted';
import { Settled, settledWhen } from '../watch/settled';
import { WatchedQuestion, watchedQuestions } from '../watch/questions';
import { isByHand } from './byHand';
import { CheckBasis, checkBasis, checkInputOf } from './checkBasis';
import { inScope } from './scope';
import { fingerprint } from './fingerprint';
import { LegRemark, withWaivers, withinScope } from './legRemarks';
import { LegPlan, SetKey } from './plan';
import { Said } from './said';
import { Seen } from './seen';

/** What came of the last attempt at a step that Wanderon does. */
export interface Work {
  readonly outcome: 'done' | 'trying' | 'stopped';
  readonly problem: string | null;
  /** Which plan it was done for. */
  readonly plan: string | null;
  /** Since when it comes out so, and the last time. */
  readonly since: Instant;
  readonly at: Instant;
  /** Decisions up to this one were known to it. */
  readonly upTo: number;
  /** Sets at the new host that are not ours and in the way. */
  readonly foreign: readonly { readonly key: SetKey; readonly data: readonly string[] }[];
  /** Sets whose TTL the old host does not let be changed: they count as found. */
  readonly kept: readonly SetKey[];
}

export interface LegState {
  readonly plan: LegPlan;
  readonly seen: Seen;
  readonly said: Said;
  readonly work: ReadonlyMap<string, Work>;
  readonly assumed: Assumptions;
  readonly now: Instant;
  /** Seconds between two looks at what is waited for. */
  readonly every: number;
}

const PLANNED = new WeakMap<LegPlan, Map<string, { readonly on: string; readonly made: unknown }>>();

/** One leg as everybody sees it, the engine, the pages and the rehearsal: what follows from its state, each thing worked out once. */
export class Leg {
  private readonly made = new Map<string, unknown>();

  constructor(readonly state: LegState) {}

  get plan(): LegPlan {
    return this.state.plan;
  }
  get seen(): Seen {
    return this.state.seen;
  }
  get said(): Said {
    return this.state.said;
  }
  get now(): Instant {
    return this.state.now;
  }

  get wanted(): Wanted {
    return this.ofPlan('wanted', () => new Wanted(this.plan));
  }

  /** Whether the old zone's NS set is turned or will be: left out, it never is. */
  get turns(): boolean {
    return !this.said.left.has('turn') && (this.said.approved !== undefined || this.state.work.get('turn')?.outcome === 'done');
  }

  /** When the records were changed in place, where that is no observation: by our own act, or by the word of whoever typed them. */
  private get changedAt(): Instant | undefined {
    const made = this.state.work.get('change');
    if (isByHand(this)) return this.said.submittedAt;
    return made?.outcome === 'done' && made.plan === this.changes ? made.since : undefined;
  }

  get times(): LegTimes {
    const { plan, seen, said, assumed, now } = this.state;
    return this.once('times', () =>
      legTimes({
        plan,
        seen,
        said,
        assumed,
        now,
        turns: this.turns,
        wanted: this.wanted,
        kept: new Set(this.state.work.get('lower')?.kept),
        changedAt: this.changedAt,
      }),
    );
  }

  /** The earliest moment at which some server may have told the new, as in `times`; where nameservers change, without working those out. */
  get ts(): Instant | undefined {
    return this.plan.kind === 'delegation' ? switchedSince(this.state) : this.times.ts;
  }

  /** What the checks rest on beside the rows of the plan. */
  get checking(): CheckBasis {
    return this.ofPlan('checking', () => checkBasis(this.plan, this.seen.website), this.site);
  }
  /** What was seen of the website, apart from when. */
  private get site(): string {
    return this.once('site', () => JSON.stringify([this.seen.website?.faults, this.seen.website?.redirects]));
  }

  /** What the checks say of the plan, those that somebody let be included. */
  get remarks(): readonly LegRemark[] {
    const remarks = this.ofPlan('remarks', () => [...this.checks()].flat(), this.site);
    return this.once('remarks', () => withWaivers(remarks, this.plan.rulings, this.said.waived));
  }

  /**
   * Works out in steps what takes longest of a large plan, and ends at once where that is known: whoever goes through them can answer others
   * in between.
   */
  *prepared(): Generator<undefined, void> {
    if (this.isKnownOfPlan('remarks', this.site)) return;
    const all: Remark[] = [];
    for (const found of this.checks()) {
      all.push(...found);
      yield;
    }
    this.ofPlan('remarks', () => all, this.site);
  }

  private *checks(): Generator<readonly Remark[], void> {
    const { zone, rulings, scope } = this.plan;
    for (const found of eachCheck(checkInputOf(this.checking, zone, rulings)))
      yield found.flatMap((one) => (inScope(scope, one.owner, one.type) ? [withinScope(one, scope)] : []));
  }

  /** What lookouts are asked now. */
  get questions(): readonly WatchedQuestion[] {
    const all = this.ofPlan('questions', () => watchedQuestions(this.plan, this.wanted));
    return this.once('questions', () => all.filter((question) => !question.fresh || this.times.t0 !== undefined));
  }

  get settled(): Settled {
    const { plan, seen, said, now } = this.state;
    return this.once('settled', () => {
      const asked = seen.lookouts.filter((look) => this.questions.some((question) => question.key === look.key));
      const unasked = seen.watchers * this.questions.length - asked.length;
      return settledWhen({ plan, seen: { ...seen, lookouts: asked }, said, times: this.times, wanted: this.wanted, now, unasked });
    });
  }

  /** Which plan a push, a lowering or a raising is for: another plan, and it is to be done again. */
  get pushes(): string {
    return this.ofPlan('pushes', () => fingerprint(JSON.stringify([this.plan.newNameservers, this.plan.rulings.map((ruling) => ruling.planned ?? null)])));
  }
  /** Which values the records are changed to. */
  get changes(): string {
    return this.ofPlan('changes', () =>
      fingerprint(JSON.stringify(this.plan.rulings.filter(isChanging).map(({ owner, type, planned }) => [owner, type, planned?.data ?? null]))),
    );
  }
  /** Which records go into the live zone before the cutover. */
  get puts(): string {
    return this.ofPlan('puts', () => fingerprint(JSON.stringify(earlySets(this.plan).map(({ owner, type, data }) => [owner, type, data]))));
  }
  get lowers(): string {
    const keys = this.ofPlan('lowers', () =>
      setsToLower(this.plan)
        .map((set) => set.key)
        .sort(),
    );
    return this.once('lowers', () => fingerprint(JSON.stringify([this.said.lowerTo, keys])));
  }

  /** What follows from the plan alone, or from it and what `on` stands for, worked out once however often its leg is looked at. */
  private ofPlan<T>(name: string, make: () => T, on = ''): T {
    let planned = PLANNED.get(this.plan);
    if (!planned) PLANNED.set(this.plan, (planned = new Map()));
    const known = planned.get(name);
    if (known?.on === on) return known.made as T;
    const made = make();
    planned.set(name, { on, made });
    return made;
  }

  private isKnownOfPlan(name: string, on: string): boolean {
    return PLANNED.get(this.plan)?.get(name)?.on === on;
  }

  once<T>(name: string, make: () => T): T {
    if (!this.made.has(name)) this.made.set(name, make());
    return this.made.get(name) as T;
  }
}
