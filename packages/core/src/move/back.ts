import { TYPE_CODES } from '../dns/typeNames';
import { backRulings, delegationBackRulings } from '../rebuild/backRulings';
import { STARTING_TTL } from '../rebuild/propose';
import { isChanging } from '../rebuild/ruling';
import { eff } from '../timetable/eff';
import { Derived, Instant, latest } from '../timetable/instant';
import { legTimes } from '../timetable/legTimes';
import { isFirstUse } from './firstUse';
import { Leg } from './leg';
import { LegPlan, keyOf } from './plan';
import { isTakeover } from './account';
import { saidBy } from './said';
import { isAskedElsewhere } from './scope';
import { isDone, stepOf } from './steps';

/** `records`: the old values where the zone is now; `nameservers`: the domain is delegated to the old set again. */
export const BACK_WAYS = ['records', 'nameservers'] as const;
export type BackWay = (typeof BACK_WAYS)[number];

/** One way back as it would be if it were taken now. */
export interface WayBack {
  readonly how: BackWay;
  /** Why it cannot be taken now; null where it can. */
  readonly ruledOut: string | null;
  /** Until no cache can hold a value any more that is taken back; Infinity: no bound. */
  readonly gone: Derived;
  /** The same in seconds from now. */
  readonly takes: number;
}

/** The ways back from a leg whose change has begun, the quicker kind first; none from a leg that goes back itself. */
export function waysBack(leg: Leg): readonly WayBack[] {
  const { plan } = leg;
  // Where nothing was delegated before there is nowhere to go back to.
  if (plan.isBack || plan.followed || !plan.chosen || isFirstUse(plan) || leg.times.ts === undefined) return [];
  return leg.once('ways back', () => foundWays(leg));
}

function foundWays(leg: Leg): readonly WayBack[] {
  const { plan } = leg;
  const ways: BackWay[] = plan.kind === 'repoint' ? ['records'] : ['records', 'nameservers'];
  return ways.map((how) => ({ how, ruledOut: ruledOut(leg, how), ...timesBack(leg, how) }));
}

function ruledOut(leg: Leg, how: BackWay): string | null {
  if (isTakeover(leg.plan) && !leg.plan.rulings.some(isChanging))
    return 'No record changed its value: the domain goes back into the account that it came from as it came, by a move of its own.';
  if (leg.plan.kind === 'repoint' || how === 'nameservers') return null;
  if (!leg.plan.rulings.some(isChanging)) return 'No record changed its value in this stage.';
  if (!leg.times.t0) return 'The parent does not publish the new nameservers everywhere yet: what is changed there reaches only some.';
  if (!isDone(leg, 'turn'))
    return 'The old zone does not name the new nameservers yet: resolvers that go by it would be left behind. Wait a moment, or go on without.';
  return null;
}

/** Counted with the runs of both directions, as the leg itself will count them (docs/calculations.md). */
function timesBack(leg: Leg, how: BackWay): Pick<WayBack, 'gone' | 'takes'> {
  const { seen, now } = leg;
  const { assumed } = leg.state;
  const plan = backPlan(leg.plan, how, now, isRaised(leg));
  const said = saidBy([
    { id: 1, kind: 'approve', subject: '', value: { plannedSwitch: now }, person: null, at: now, undoes: null },
    // What is changed in place is changed by that word.
    ...(how === 'records' ? [{ id: 2, kind: 'submitted', subject: '', value: null, person: null, at: now, undoes: null } as const] : []),
  ]);
  const times = legTimes({ plan, seen, said, assumed, now, turns: plan.oldHost?.keyed ?? false });
  // Who is still led to servers that give the old values all the same loses nothing.
  const gone = latest(times.sets.map((set) => set.horizon)) ?? times.delegation;
  // New values that were sent and not seen yet have this TTL.
  const least = how === 'records' ? eff(Math.min(STARTING_TTL, leg.said.lowerTo), assumed.floor) : 0;
  return { gone, takes: Math.max(least, gone.at - now) };
}

/** TTLs were raised, or may be on their way: of what is sent in between two looks nobody would know otherwise. */
export function isRaised(leg: Leg): boolean {
  const state = stepOf(leg, 'raise')?.standing.state;
  return leg.state.work.has('raise') || state === 'doing' || state === 'done';
}

/** TTL in seconds with which the host that a leg goes back to has served its apex NS set before anything was lowered; undefined in other legs. */
export function apexTtlBack({ plan, seen }: Pick<Leg, 'plan' | 'seen'>): number | undefined {
  if (!plan.isBack || plan.kind === 'repoint') return undefined;
  const key = keyOf(plan.zone, TYPE_CODES.NS);
  const there = new Set(plan.newServers.map((one) => one.address));
  const ttls = seen.zones.filter((one) => there.has(one.address)).flatMap((one) => one.sightings.flatMap(({ value }) => value.sets[key]?.ttl ?? []));
  return ttls.length > 0 ? Math.max(...ttls) : undefined;
}

/** The plan of the leg that sets back what another one changed, from `since` on; its hosts and servers exchanged where the nameservers go back. */
export function backPlan(plan: LegPlan, how: BackWay, since: Instant, raised: boolean): LegPlan {
  const base = { ...plan, isBack: true, backSince: since, backRaised: raised, next: undefined, followed: false, met: undefined, newWeb: undefined };
  if (how === 'records') {
    const { newServers, newNameservers, newHost } = plan;
    return {
      ...base,
      kind: 'repoint',
      account: false,
      rulings: backRulings(plan.rulings, raised, ({ owner }) => isAskedElsewhere(plan.scope, owner)),
      oldServers: newServers,
      oldNameservers: newNameservers,
      oldHost: newHost,
    };
  }
  return {
    ...base,
    rulings: delegationBackRulings(plan, raised),
    oldServers: plan.newServers,
    newServers: plan.oldServers,
    oldNameservers: plan.newNameservers,
    newNameservers: plan.oldNameservers,
    oldHost: plan.newHost,
    newHost: plan.oldHost,
  };
}
