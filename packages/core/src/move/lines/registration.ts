import { duration } from '../../survey/duration';
import { Leg } from '../leg';
import { GivenRegistration } from '../said';
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
  const sight = seen.registration;
  if (sight && sight.problem === null) return bySight(leg, sight);
  const word = said.registration && byWord(leg, said.registration);
  if (word || !sight) return word;
  return line(leg, 'registration', false, `The registration could not be looked up: ${sight.problem}.`, {
    seenAt: sight.at,
    waivable: true,
    about: [UNSEEN],
    evidence: 'Look at the registrar whether changes are locked, and note it below.',
  });
};

function bySight(leg: Leg, { statuses, expires, at }: NonNullable<Leg['seen']['registration']>): Line {
  const facts = [...statuses.filter((status) => IN_THE_WAY.includes(status.toLowerCase())), ...ends(leg, expires ?? null)];
  const text = facts.length === 0 ? 'Nothing about the registration is in the way.' : inTheWay(facts);
  return line(leg, 'registration', facts.length === 0, text, { seenAt: at, waivable: true, about: facts, evidence: statuses.join(', ') || null });
}

/** Nothing follows from a word that leaves open whether changes are locked, unless it says what is in the way. */
function byWord(leg: Leg, { locked, expires }: GivenRegistration): Line | undefined {
  const facts = [...(locked ? [LOCKED] : []), ...ends(leg, expires)];
  const more = { waivable: true, about: facts, evidence: locked ? 'Have the lock taken off at the registrar.' : null };
  if (facts.length > 0) return line(leg, 'registration', false, inTheWay(facts), more);
  return locked === null ? undefined : line(leg, 'registration', true, 'Somebody looked at the registrar: changes are not locked.', more);
}

const inTheWay = (facts: readonly string[]): string => `The registration is in the way: ${facts.join(', ')}.`;

/** Seconds in which a move is seldom over. */
const SOON_SECONDS = 7 * 86_400;

/** It ends before the move may be over: the domain would go dark on the way. Where no end of the move is known, a week is looked ahead. */
function ends({ now, times }: Leg, expires: number | null): string[] {
  const last = times.last.at;
  const over = Math.max(now + SOON_SECONDS, Number.isFinite(last) ? last : 0);
  if (expires === null || expires > over) return [];
  return [expires <= now ? 'it has run out' : `it ends in ${duration(expires - now)}`];
}
