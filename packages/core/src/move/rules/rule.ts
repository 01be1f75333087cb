import { Instant } from '../../timetable/instant';
import { Leg } from '../leg';
import { LegPlan } from '../plan';
import { Decision } from '../said';

export const CHAPTERS = ['survey', 'rebuild', 'timetable', 'switch', 'watch'] as const;
export type Chapter = (typeof CHAPTERS)[number];

export const STEP_STATES = ['waiting', 'ready', 'due', 'doing', 'stopped', 'done', 'left'] as const;
/**
 * `waiting`: for other steps. `ready`: for a person. `due`: decided, its time has not come. `doing`: at work, or looking.
 * `stopped`: a person has to do something first. `left`: left to a person, or left out.
 */
export type StepState = (typeof STEP_STATES)[number];

export const WAY_ACTS = ['retry', 'leave', 'aside', 'accept TTLs', 'take', 'keep', 'adopt', 'done', 'open again', 'send early'] as const;
/** What a person can do about a step or a line that does not go on. */
export interface Way {
  readonly act: (typeof WAY_ACTS)[number];
  /** The step, server or set that it is about. */
  readonly subject: string;
  /** On the button. */
  readonly label: string;
  /** What it means for the move. */
  readonly means: string;
}

export interface StepStanding {
  readonly state: StepState;
  /** Since when it is done. */
  readonly doneAt: Instant | null;
  readonly dueAt: Instant | null;
  /** What it waits for, what was seen last, or what is wrong; null where the title says it all. */
  readonly text: string | null;
  readonly since: Instant | null;
  readonly decision: Decision | undefined;
  readonly ways: readonly Way[];
}

export const STEP_BY = ['person', 'decided', 'seen'] as const;
export interface StepRule {
  /** Stable; what decisions and the trail call it by. */
  readonly id: string;
  readonly chapter: Chapter;
  readonly title: string;
  /** Its title where this plan calls for another one. */
  readonly titleIn?: (plan: LegPlan) => string | undefined;
  /** On the line once it is done. */
  readonly label: string | undefined;
  /** Steps that come before it, where the plan has them. */
  readonly after: readonly string[];
  /** Those of them for which this plan does not wait. */
  readonly skips?: (plan: LegPlan) => readonly string[];
  /** `person`: done by somebody. `decided`: done by Wanderon once a person decided it. `seen`: an observation. */
  readonly by: (typeof STEP_BY)[number];
  /**
   * What it says while steps before it are open. `in turn`: it waits for them. `done`: done is done. `seen`: a fact of the world
   * that is under way counts as well.
   */
  readonly counts: 'in turn' | 'done' | 'seen';
  readonly applies: (plan: LegPlan, leg: Leg) => boolean;
  /** Where it stands, were everything before it done. */
  readonly standing: (leg: Leg) => StepStanding;
}

const NOTHING: StepStanding = { state: 'waiting', doneAt: null, dueAt: null, text: null, since: null, decision: undefined, ways: [] };

export function stands(state: StepState, more: Partial<StepStanding> = {}): StepStanding {
  return { ...NOTHING, state, ...more };
}

/** Where a step stands that Wanderon does once it was decided; done for `plan`, and again for another. */
export function acted(
  leg: Leg,
  id: string,
  how: {
    readonly decision: Decision | undefined;
    readonly dueAt?: Instant | null;
    readonly plan?: string;
    readonly leave?: Way;
    readonly ways?: readonly Way[];
  },
): StepStanding {
  const { decision, dueAt = null, plan = null, leave, ways = [] } = how;
  const left = leg.said.left.get(id);
  if (left) return stands('left', { doneAt: left.at, decision: left });
  const work = leg.state.work.get(id);
  const retried = leg.said.retried.get(id);
  // What was done is done again where somebody asked for it since.
  const again = retried !== undefined && retried.id > (work?.upTo ?? 0);
  if (work?.outcome === 'done' && work.plan === plan && !again) return stands('done', { doneAt: work.since, decision });
  if (work?.outcome === 'stopped' && work.plan === plan && !again) {
    const retry: Way = { act: 'retry', subject: id, label: 'Try again', means: '' };
    return stands('stopped', { text: work.problem, since: work.since, decision, ways: [retry, ...ways, ...(leave ? [leave] : [])] });
  }
  if (!decision) return stands('ready');
  if (dueAt !== null && dueAt > leg.now) return stands('due', { dueAt, decision });
  const trying = work?.outcome === 'trying' ? work : undefined;
  return stands('doing', { dueAt, text: trying?.problem ?? null, since: trying?.since ?? null, decision, ways: trying && leave ? [leave] : [] });
}

export const asideWay = (address: string, server: string): Way => ({
  act: 'aside',
  subject: address,
  label: `Stop waiting for ${server.replace(/\.$/, '')}`,
  means: 'It counts as switched off from now on.',
});
