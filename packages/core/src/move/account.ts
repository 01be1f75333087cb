import { Term, secondsTerm } from '../timetable/instant';
import { isHostsOwn } from '../rebuild/ruling';
import { Leg } from './leg';
import { REMEMBERED_FAILURE, unansweredFor } from './lateHost';
import { LegPlan } from './plan';

/** The zone goes into another account behind the same servers: typed there anew, and seen by nobody before it is taken over. */
export function isTakeover({ kind, account }: Pick<LegPlan, 'kind' | 'account'>): boolean {
  return kind === 'repoint' && account === true;
}

/** Every record set is made anew, at another host or in another account: what is not in the plan is lost. */
export function rebuildsZone(plan: Pick<LegPlan, 'kind' | 'account'>): boolean {
  return plan.kind === 'delegation' || isTakeover(plan);
}

/** Seconds for a row that is typed from a sheet: twenty in two minutes. */
const TYPING = 6;

/** For how long whoever asks anew finds nothing, where one account has to let go before the other can hold the zone. Seconds. */
export interface Gap {
  readonly seconds: number;
  readonly formula: string;
  readonly terms: readonly Term[];
  /** Sets whose remembered answers can outlast it, of how many. */
  readonly bridged: number;
  readonly sets: number;
}

/** Worked out where the host is known to hold a domain in one account at a time; else undefined: nothing is known of a gap, or there is none. */
export function gapOf(leg: { readonly plan: LegPlan; readonly state: Pick<Leg['state'], 'every'> }): Gap | undefined {
  const { plan, state } = leg;
  if (!isTakeover(plan) || plan.newHost?.habits?.accounts !== 'one') return undefined;
  const rows = plan.rulings.filter((row) => row.planned && !isHostsOwn(row));
  const seconds = TYPING * rows.length + unansweredFor(leg);
  return {
    seconds,
    formula: 'n · w + e + F',
    terms: [
      secondsTerm('n · w', `${rows.length} record sets typed at ${TYPING} s each`, TYPING * rows.length),
      secondsTerm('e', 'until the next look', state.every),
      secondsTerm('F', 'for which a failure may be remembered (RFC 9520 §3.2)', REMEMBERED_FAILURE),
    ],
    bridged: rows.filter((row) => row.found && row.found.ttl > seconds).length,
    sets: rows.length,
  };
}
