import { duration } from '../../survey/duration';
import { capital } from '../../survey/words';
import { Leg } from '../leg';
import { Line, LineRule, UNSEEN, line } from './line';

/** Statuses under which a change at the registrar is refused, undone or cut off (RFC 8056). */
const IN_THE_WAY: readonly string[] = [
  'pending transfer',
  'pending delete',
  'redemption period',
  'client hold',
  'server hold',
  'client update prohibited',
  'server update prohibited',
  'pending update',
];
/** What a person calls these. */
const LOCKED = 'changes are locked';

/** What is in the way of a change at the registrar, by what the registry tells of the domain, or by what a person says where it tells nothing. */
export const registration: LineRule = (leg) => {
  const { seen, said, plan } = leg;
  if (plan.kind === 'repoint') return undefined;
  if (seen.registration && seen.registration.problem === null) return bySight(leg, seen.registration);
  const given = said.registration;
  if (given) {
    const facts = [...(given.locked ? [LOCKED] : []), ...ends(leg, given.expires)];
    return registrationLine(leg, facts, given.locked ? 'Have the lock taken off at the registrar.' : null, null);
  }
  if (!seen.registration) return undefined;
  return line(leg, 'registration', false, `The registration could not be looked up: ${seen.registration.problem}.`, {
    seenAt: seen.registration.at,
    waivable: true,
    about: [UNSEEN],
    evidence: 'Look at the registrar whether changes are locked, and say so below.',
  });
};

function bySight(leg: Leg, { statuses, expires, at }: NonNullable<Leg['seen']['registration']>): Line {
  const facts = [...statuses.filter((status) => IN_THE_WAY.includes(status.toLowerCase())), ...ends(leg, expires ?? null)];
  return registrationLine(leg, facts, statuses.join(', ') || null, at);
}

function registrationLine(leg: Leg, facts: readonly string[], evidence: string | null, seenAt: number | null): Line {
  const text = facts.length === 0 ? 'Nothing about the registration is in the way.' : `The registration is in the way: ${facts.join(', ')}.`;
  return line(leg, 'registration', facts.length === 0, capital(text), { seenAt, waivable: true, about: facts, evidence });
}

/** Seconds that a move takes with what comes between, at the least. */
const SOON_SECONDS = 7 * 86_400;

/** It ends before the move may be over: the domain would go dark on the way. */
function ends({ now, times }: Leg, expires: number | null): string[] {
  if (expires === null || expires > Math.max(now + SOON_SECONDS, times.last.at ?? 0)) return [];
  return [expires <= now ? 'it has run out' : `it ends in ${duration(expires - now)}`];
}
