import { Instant, LegTimes, Name, TYPE_CODES, isChanging, legTimes, typeCode } from '@wanderon/core';
import { Config } from '../config';
import { Leg, RulingRow, StepRow, rulingOf } from '../moves/leg';
import { loweredTtl } from '../jobs/steps/lower';

/** The times of a leg from its facts; undefined before there is a survey and a choice of hosts. */
export function timesOf(leg: Leg, steps: readonly StepRow[], rulings: readonly RulingRow[], now: Instant, config: Config): LegTimes | undefined {
  const { facts } = leg;
  if (facts.P === undefined || facts.C === undefined || facts.N === undefined || rulings.length === 0) return undefined;
  const turn = steps.find((step) => step.kind === 'turn')!;
  const changing = rulings
    .filter((row) => isChanging(rulingOf(row)))
    .map((row) => ({ owner: row.owner, type: row.type, T: row.found?.ttl, L: Math.min(row.found?.ttl ?? loweredTtl(leg), loweredTtl(leg)) }));
  return legTimes({
    now,
    P: facts.P,
    C: facts.C,
    loweredC: Math.min(facts.C, loweredTtl(leg)),
    N: facts.N,
    floor: config.WANDERON_CACHE_FLOOR,
    tl: facts.tl?.firstNew,
    t0: facts.t0?.firstNew,
    te: facts.te?.firstNew,
    plannedSwitch: facts.plannedSwitch,
    turns: facts.te !== undefined || facts.turned === true || (turn.state !== 'done' && turn.decided_at !== null),
    changing,
  });
}

/** What lookouts are asked: sets that change, the apex NS set, and mail, which must stay as it is. */
export interface WatchedQuestion {
  readonly owner: string;
  readonly type: string;
  readonly before: readonly string[];
  readonly after: readonly string[];
  readonly steady: boolean;
  /** A name that is new: asked only once it can be there, since asking before plants the denial. */
  readonly fresh: boolean;
}

const WATCHED_SETS = 12;

export function watchedQuestions(zone: Name, leg: Leg, rulings: readonly RulingRow[]): WatchedQuestion[] {
  const questions: WatchedQuestion[] = [
    { owner: zone.toString(), type: 'NS', before: leg.old_nameservers, after: leg.new_nameservers, steady: false, fresh: false },
  ];
  const changing = rulings.filter((row) => isChanging(rulingOf(row)));
  // Every set of a large zone would be thousands of questions a round; the Watch chapter says how many are asked for.
  for (const row of changing.slice(0, WATCHED_SETS))
    questions.push({
      owner: row.owner,
      type: row.type,
      before: row.found?.data ?? [],
      after: row.planned?.data ?? [],
      steady: false,
      fresh: row.found === null,
    });
  const mail = rulings.filter((row) => typeCode(row.type) === TYPE_CODES.MX && row.ruling === 'carry').slice(0, 2);
  for (const row of mail) questions.push({ owner: row.owner, type: row.type, before: row.planned!.data, after: row.planned!.data, steady: true, fresh: false });
  return questions;
}
