import { Leg } from './leg';
import { LegPlan } from './plan';

/** Seconds for which a resolver may remember that nobody answered (RFC 9520 §3.2). */
export const REMEMBERED_FAILURE = 300;

/** The new DNS host takes the zone only once the domain is delegated to it. */
export function isLate({ kind, newHost }: Pick<LegPlan, 'kind' | 'newHost'>): boolean {
  return kind === 'delegation' && newHost?.holdsEarly === false;
}

/**
 * For how long, in seconds, whoever asks anew may find nothing after the first server of the parent publishes the new set: one look until
 * that is seen and the zone is pushed, and a failure that was met just before (RFC 9520). Answers that were remembered bridge it.
 */
export function unansweredFor(leg: { readonly state: Pick<Leg['state'], 'every'> }): number {
  return leg.state.every + REMEMBERED_FAILURE;
}

/** The same in words, with what makes it shorter and what can be done instead. */
export function unansweredWords(leg: Leg): string {
  const minutes = Math.ceil(unansweredFor(leg) / 60);
  const names = leg.plan.newHost!.name;
  return `${names} holds no zone before the domain is delegated to it: whoever asks anew then finds nothing for about ${minutes} min, until the zone is pushed there.`;
}

/** What is let pass with it: how long it is depends on how often one looks, and is on record in the words. */
export const UNANSWERED = 'the domain is unanswered until the zone is pushed';

export const BRIDGE =
  'Answers that are remembered bridge the gap: leave the TTLs as they are rather than lower them, and decide the push beforehand. Or lead the website elsewhere first, where its records are now, and change the nameservers once that is over.';
