import { Instant } from '../timetable/instant';
import { strangersNamed } from '../watch/asked';
import { lowersTtls } from '../timetable/lowering';
import { isFirstUse } from './firstUse';
import { isLate } from './lateHost';
import { Leg } from './leg';
import { gateOf } from './gate';
import { LOOK_KINDS, LookKind } from './looks';
import { isDone, stepOf } from './steps';
import { LOOK_PACE_SECONDS } from './stepLooks';

/** Something that Wanderon does by itself, and from when on. */
export interface Due {
  readonly what: 'survey' | 'act' | 'look';
  /** The step of an act, the kind of a look. */
  readonly id: string;
  readonly at: Instant;
  /** Seconds to the look after this one, as planned. */
  readonly every: number;
}

/**
 * How late something is, in pauses of its own kind. What was never looked at is later than anything: beside a look that takes longer than
 * its own pause, and is always late, it would not have its turn.
 */
export function lateness(leg: Leg, due: Due): number {
  return due.what === 'look' && leg.seen.looked[due.id] === undefined ? Infinity : (leg.now - due.at) / due.every;
}

/** Times the usual pause between looks at what nobody waits for. */
const IDLE = 10;
/** Seconds between looks at the website before the switch is seen and after it, and at what was surveyed. */
const WEBSITE_BEFORE = 3600;
const WEBSITE_AFTER = 900;
const DRIFT = 3600;

/** What is to be done for a leg and when: surveys and acts first, then looks, the most weighty first. Done for good: nothing. */
export function dueOf(leg: Leg): Due[] {
  if (leg.plan.followed) return [];
  const { now, every, work } = leg.state;
  const all: Due[] = [];
  const survey = stepOf(leg, 'survey')!.standing;
  const pause = (id: string): Instant => {
    const last = work.get(id);
    // An attempt that came to nothing is made again after growing pauses, up to an hour.
    return last?.outcome === 'trying' ? last.at + Math.min(3600, Math.max(every / 2, (last.at - last.since) / 2)) : now;
  };
  const again = leg.plan.chosen && leg.said.surveyAsked > (work.get('survey')?.upTo ?? 0);
  if (survey.state === 'doing' || again) all.push({ what: 'survey', id: 'survey', at: pause('survey'), every });
  for (const id of ['early', 'push', 'lower', 'change', 'turn', 'raise']) {
    const standing = stepOf(leg, id)?.standing;
    if (standing?.state === 'doing') all.push({ what: 'act', id, at: pause(id), every });
    // What waits for the world, and not for a moment, is not due yet.
    if (standing?.state === 'due' && standing.dueAt !== null) all.push({ what: 'act', id, at: standing.dueAt, every });
  }
  for (const kind of LOOK_KINDS) {
    const look = lookDue(leg, kind);
    if (look) all.push({ what: 'look', id: kind, ...look });
  }
  return all;
}

/** Kinds of looks that are made for a leg now, and that can be asked for. */
export function looksMade(leg: Leg): LookKind[] {
  return LOOK_KINDS.filter((kind) => everyOf(leg, kind) !== undefined);
}

/** No TTL is left to be seen lowered. */
function isLow(leg: Leg): boolean {
  return !lowersTtls(leg.plan) || isDone(leg, 'lowered');
}

/** Seconds from one look to the next; undefined where nothing of the kind is looked at now. */
function everyOf(leg: Leg, kind: LookKind): number | undefined {
  const usual = usualEvery(leg, kind);
  // Keys at the new servers and a DS at the parent come after everything else is over.
  const again = kind === 'parent' || kind === 'new' || (kind === 'old' && leg.plan.kind === 'repoint') ? stepOf(leg, 'ds-again')?.standing.state : undefined;
  const watched = again === 'ready' || again === 'doing' || again === 'stopped';
  return watched && usual !== undefined ? Math.min(usual, leg.state.every) : usual;
}

function usualEvery(leg: Leg, kind: LookKind): number | undefined {
  const { every } = leg.state;
  const idle = IDLE * every;
  const { plan } = leg;
  if (plan.surveyedAt === undefined) return undefined;
  const { ts, t0 } = leg.times;
  const settled = leg.settled.settled;
  // From when all that is left is waiting, the gate has to be fresh when it opens.
  const prepared = plan.kind === 'repoint' || isLate(plan) || isDone(leg, 'served');
  const gateNear = plan.chosen && ts === undefined && prepared && isLow(leg) && (gateOf(leg).opensAt ?? leg.now) <= leg.now + every;
  const ended = t0 !== undefined && Number.isFinite(leg.times.last.at) && leg.times.last.at <= leg.now + every;
  switch (kind) {
    case 'parent':
      return ts !== undefined && !t0 ? every / 2 : settled ? idle : gateNear || ended ? every : idle;
    case 'old':
      // Nobody was there before; whom the parent has led to in between all the same is asked.
      if (!plan.chosen || (isFirstUse(plan) && strangersNamed(leg).length === 0)) return undefined;
      // Where the records change in place, these are the servers that say so, and that may be changed again.
      if (plan.kind === 'repoint' && ts !== undefined) return !t0 ? every / 2 : settled ? idle : ended ? every : idle;
      if (settled) return undefined;
      // Once a lowering is decided, what may be saved before it is done counts as well.
      return (leg.said.approved !== undefined && ts === undefined && !isLow(leg)) ||
        stepOf(leg, 'lowered')?.standing.state === 'doing' ||
        stepOf(leg, 'early-seen')?.standing.state === 'doing' ||
        (t0 && leg.turns && !leg.times.te.all) ||
        gateNear ||
        ended
        ? every
        : idle;
    case 'new':
      if (plan.kind === 'repoint' || (stepOf(leg, 'served')!.standing.state === 'waiting' && ts === undefined)) return undefined;
      return isDone(leg, 'served') && !gateNear && !ended ? idle : every / 2;
    case 'drift':
      // What changes in place is no drift once it may have begun to.
      if (!isLow(leg) || settled || t0 || (plan.kind === 'repoint' && ts !== undefined)) return undefined;
      if (!plan.chosen) return undefined;
      return gateNear ? 2 * every : Math.max(idle, DRIFT);
    case 'lookouts':
      // Where nothing was delegated before, asking would plant the denial that has to run out.
      if (isFirstUse(plan) && !t0) return undefined;
      return isLow(leg) && !settled && leg.seen.watchers > 0 && plan.newNameservers.length > 0 ? every : undefined;
    case 'website':
      if (settled || !plan.chosen || !(prepared || leg.seen.looked['website'] !== undefined)) return undefined;
      return Math.max(idle / 4, t0 ? WEBSITE_AFTER : WEBSITE_BEFORE);
  }
}

function lookDue(leg: Leg, kind: LookKind): { at: Instant; every: number } | undefined {
  const every = everyOf(leg, kind);
  const last = leg.seen.looked[kind];
  const asked = kind === 'website' && leg.plan.chosen && leg.said.websiteAsked > (leg.state.work.get('website')?.upTo ?? 0) && !leg.settled.settled;
  if (asked) return { at: leg.now, every: every ?? WEBSITE_BEFORE };
  if (every === undefined) return undefined;
  if (last === undefined) return { at: leg.now, every };
  const wanted = leg.said.looksAsked.get(kind);
  if (wanted !== undefined && last < wanted) return { at: Math.max(wanted, last + LOOK_PACE_SECONDS), every };
  // Lookouts say themselves when to ask again; the last bound is asked about once more when it has passed.
  if (kind === 'lookouts') {
    const bound = leg.times.last.at;
    const planned = leg.seen.lookoutsAgain ?? last + every;
    return { at: leg.now >= bound && last < bound ? leg.now : Math.min(planned, Math.max(bound + 1, leg.now)), every };
  }
  return { at: last + Math.min(every, leg.seen.planned[kind] ?? every), every };
}
