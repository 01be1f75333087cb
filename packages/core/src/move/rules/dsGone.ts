import { isTakeover, rebuildsZone } from '../account';
import { Leg } from '../leg';
import { StepRule, stands } from './rule';

/** True where some parent server published a DS when it was last heard. */
export function hasDs(leg: Leg): boolean {
  return leg.seen.parent.some((one) => (one.sightings.at(-1)?.value.ds.length ?? 0) > 0);
}

/** A DS that the parent publishes now and did not when it was first asked: of other keys than those of the host that it goes back to. */
export function hasOtherDs({ seen }: Pick<Leg, 'seen'>): boolean {
  const first = new Set(seen.parent.flatMap((one) => one.sightings[0]?.value.ds ?? []));
  return seen.parent.some((one) => one.sightings.at(-1)?.value.ds.some((ds) => !first.has(ds)));
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
  applies: (plan, leg) => rebuildsZone(plan) && !plan.isBack && leg.seen.parent.some((one) => one.sightings.some(({ value }) => value.ds.length > 0)),
  standing: (leg) => {
    const { td, signedUntil } = leg.times;
    if (hasDs(leg))
      return stands('ready', {
        text: `The parent publishes a DS: with other keys ${isTakeover(leg.plan) ? 'in the other account' : 'at the new host'}, validating resolvers would find nothing.`,
      });
    if (td && signedUntil && signedUntil.at <= leg.now) return stands('done', { doneAt: td.firstNew });
    return stands('doing', {
      dueAt: signedUntil?.at ?? null,
      text: 'The DS is gone; keys that were validated through it may be remembered still. The old zone stays signed until then.',
    });
  },
};
