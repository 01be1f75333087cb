import { duration } from '../../survey/duration';
import { gapOf, isTakeover } from '../account';
import { LineRule, line } from './line';

/** What is let pass: how long it is, is on record in the words. */
const GAP = 'the domain is unanswered from the one account to the other';
const UNKNOWN = 'whether both accounts can hold the domain is not known';

/** Where one account lets go before the other can hold the zone, whoever asks anew in between finds nothing. */
export const gap: LineRule = (leg) => {
  if (!isTakeover(leg.plan) || leg.times.ts !== undefined) return undefined;
  const { name, habits } = leg.plan.newHost!;
  if (habits?.accounts === 'several')
    return line(leg, 'gap', true, `${name} holds the domain in both accounts until the other one is live.`, { evidence: 'as the host is described' });
  const found = gapOf(leg);
  if (!found)
    return line(leg, 'gap', false, `Whether ${name} can hold the domain in two accounts at once is not known: if it cannot, nothing answers in between.`, {
      evidence: 'Ask there, and say so at the host’s page.',
      waivable: true,
      about: [UNKNOWN],
    });
  const minutes = Math.ceil(found.seconds / 60);
  return line(
    leg,
    'gap',
    false,
    `${name} holds a domain in one account at a time: whoever asks anew finds nothing for about ${minutes} min, from letting go until the zone is typed again.`,
    {
      evidence: `${found.terms.map((term) => `${duration(term.value)}: ${term.meaning}`).join('. ')}. A zone file that the panel loads saves the typing. Remembered answers bridge it for ${found.bridged} of ${found.sets} sets, whose TTLs are longer: leave the TTLs of what stays as they are, or raise them well before.`,
      waivable: true,
      about: [GAP],
    },
  );
};
