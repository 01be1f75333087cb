import { TYPE_CODES } from '../dns/typeNames';
import { LegPlan, keyOf } from '../move/plan';
import { ParentSight, ServerSeen, ZoneSight } from '../move/seen';
import { eff } from './eff';
import { Derived, Instant, SeenBetween, instantTerm, secondsTerm } from './instant';
import { since } from './since';

export interface SignedInput {
  readonly plan: LegPlan;
  /** Servers of the parent that count, and the old authorities. */
  readonly parents: readonly ServerSeen<ParentSight>[];
  readonly oldZones: readonly ServerSeen<ZoneSight>[];
  readonly now: Instant;
  /** Seconds: what a cache keeps anything for at the least, and until unseen instances of the parent's servers have followed. */
  readonly floor: number;
  readonly allowance: number;
}

/** Since when every server of the parent is seen without a DS, and from when on nothing is validated through one. */
export interface SignedTimes {
  readonly td: SeenBetween | undefined;
  readonly signedUntil: Derived | undefined;
}

/** A DS that was ever seen keeps the gate shut until keys validated through it have run out (RFC 4035 §4.3, RFC 6781 §4.3.4). */
export function signedTimes({ plan, parents, oldZones, now, floor, allowance }: SignedInput): SignedTimes {
  const sights = parents.flatMap((server) => server.sightings.map((one) => one.value));
  const ever = sights.some((sight) => sight.ds.length > 0);
  if (!ever && plan.keysTtl === undefined) return { td: undefined, signedUntil: undefined };
  const gone = ever
    ? since(parents, (sight) => sight.ds.length === 0, now).all
    : plan.surveyedAt === undefined
      ? undefined
      : { lastOld: plan.surveyedAt, firstNew: plan.surveyedAt };
  if (!gone) return { td: undefined, signedUntil: undefined };
  const td = { lastOld: gone.lastOld, firstNew: gone.firstNew + allowance };
  const D = Math.max(...sights.map((sight) => (sight.ds.length > 0 ? sight.dsTtl : 0)), ever ? 0 : Math.max(...sights.map((sight) => sight.ttl), 0));
  const K = Math.max(
    plan.keysTtl ?? 0,
    ...oldZones.flatMap((one) => one.sightings.map(({ value }) => value.sets[keyOf(plan.zone, TYPE_CODES.DNSKEY)]?.ttl ?? 0)),
  );
  return {
    td,
    signedUntil: {
      at: td.firstNew + eff(D, floor) + eff(K, floor),
      formula: 'td + eff(D) + eff(K)',
      terms: [
        instantTerm('td', ever ? 'every parent server seen without the DS' : 'the survey: the zone has keys, and no DS was seen', td.firstNew),
        secondsTerm('D', 'TTL of the DS set', D),
        secondsTerm('K', 'TTL of the DNSKEY set of the old zone', K),
        secondsTerm('f', 'floor a cache may apply', floor),
      ],
      follows: 'RFC 4035 §4.3, RFC 6781 §4.3.4',
    },
  };
}
