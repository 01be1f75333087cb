import { unknownDs } from '../../dns/dsKnown';
import { isTakeover, rebuildsZone } from '../account';
import { Instant } from '../../timetable/instant';
import { Leg } from '../leg';
import { StepRule, stands } from './rule';

/** True where some parent server published a DS when it was last heard. */
export function hasDs(leg: Leg): boolean {
  return leg.seen.parent.some((one) => (one.sightings.at(-1)?.value.ds.length ?? 0) > 0);
}

/** True where some parent server was ever seen to publish a DS. */
export function hadDs({ seen }: Pick<Leg, 'seen'>): boolean {
  return seen.parent.some((one) => one.sightings.some(({ value }) => value.ds.length > 0));
}

/** A DS that the parent publishes now and did not when it was first asked: of other keys than those of the host that it goes back to. */
export function hasOtherDs({ seen }: Pick<Leg, 'seen'>): boolean {
  const first = new Set(seen.parent.flatMap((one) => one.sightings[0]?.value.ds ?? []));
  return seen.parent.some((one) => one.sightings.at(-1)?.value.ds.some((ds) => !first.has(ds)));
}

/** Since when every server of the parent that had a DS was first seen without it; undefined where one never was. */
function wasGone({ seen }: Leg): Instant | undefined {
  const gone = seen.parent.map(({ sightings }) => {
    const had = sightings.findIndex(({ value }) => value.ds.length > 0);
    return had < 0 ? -Infinity : sightings.slice(had).find(({ value }) => value.ds.length === 0)?.first;
  });
  return gone.length > 0 && gone.every((at) => at !== undefined) ? Math.max(...gone) : undefined;
}

function validators({ seen }: Leg): string {
  const odd = unknownDs(seen.parent.flatMap((one) => one.sightings.at(-1)?.value.ds ?? []));
  return odd === undefined ? 'validating resolvers' : `resolvers that know ${odd}`;
}

/** A DS that was ever seen goes, and what was validated through it runs out, before the new host may be delegated to (RFC 6781 §4.3.4). */
export const dsGone: StepRule = {
  id: 'ds-gone',
  chapter: 'switch',
  title: 'Take the DS out at the registrar',
  label: 'DS gone',
  after: ['survey'],
  by: 'person',
  counts: 'in turn',
  // Back at the old host its keys are there again.
  applies: (plan, leg) => rebuildsZone(plan) && !plan.isBack && hadDs(leg),
  standing: (leg) => {
    const { td, signedUntil, t0 } = leg.times;
    const before = wasGone(leg);
    // Once the switch was seen, what is there may be of the new keys (`dsAgain`); before, it is the old one that came back.
    if (t0 !== undefined && before !== undefined) return stands('done', { doneAt: before });
    if (hasDs(leg))
      return stands('ready', {
        text: `The parent publishes a DS: with other keys ${isTakeover(leg.plan) ? 'in the other account' : 'at the new host'}, ${validators(leg)} would find nothing.${leg.plan.newHost?.habits?.signs === 'no' ? ` ${leg.plan.newHost.name} does not sign zones: the domain stays unsigned.` : ''}`,
      });
    if (td && signedUntil && signedUntil.at <= leg.now) return stands('done', { doneAt: td.firstNew });
    return stands('doing', {
      dueAt: signedUntil?.at ?? null,
      text: 'The DS is gone; keys that were validated through it may be remembered still. The old zone stays signed until then.',
    });
  },
};
