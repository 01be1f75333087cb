import { TYPE_CODES } from '../dns/typeNames';
import { AnsweredRow, Front, answeredRows } from '../move/fronted';
import { LegPlan, SetKey, keyOf, setKey } from '../move/plan';
import { isChanging } from '../rebuild/ruling';
import { Wanted } from '../timetable/wanted';

/** What lookouts are asked: sets that change, the apex NS set, and mail, which must stay as it is. */
export interface WatchedQuestion {
  readonly key: SetKey;
  readonly owner: string;
  readonly type: string;
  readonly before: readonly string[];
  readonly after: readonly string[];
  readonly steady: boolean;
  /** A name that is new: asked only once it is published, since asking before plants the denial. */
  readonly fresh: boolean;
  /** What its host answers in the place of what is stored. */
  readonly front?: Front;
}

/** Every set of a large zone would be thousands of questions a round; authorities are held against all of them. */
export const WATCHED_SETS = 12;
const WATCHED_MAIL = 2;

export function watchedQuestions(plan: LegPlan, wanted: Wanted): WatchedQuestion[] {
  const apex: WatchedQuestion = {
    key: keyOf(plan.zone, TYPE_CODES.NS),
    owner: plan.zone.toString(),
    type: 'NS',
    before: plan.oldNameservers,
    after: plan.newNameservers,
    steady: false,
    fresh: false,
  };
  const changing = answeredRows(plan).filter(isChanging).slice(0, WATCHED_SETS);
  const mail = plan.rulings.filter((ruling) => ruling.type === 'MX' && ruling.ruling === 'carry').slice(0, WATCHED_MAIL);
  const questions = [...changing, ...mail].flatMap((ruling: AnsweredRow): WatchedQuestion[] => {
    const { owner, type, found } = ruling;
    const key = setKey(owner, type);
    const after = wanted.data(key);
    // Data below a cut of the new zone is another zone's to answer.
    if (!after) return [];
    const front = wanted.front(key);
    return [{ key, owner, type, before: found?.data ?? [], after, steady: ruling.ruling === 'carry', fresh: found === undefined, ...(front && { front }) }];
  });
  return plan.kind === 'repoint' ? questions : [apex, ...questions];
}
