import { sameNameSet } from '../../watch/verdict';
import { listWords, plain } from '../words';
import { Finder, Finding, delegatedNames } from './finding';

/** Statuses that keep a change from happening, or the domain from resolving, and what they mean (RFC 5731 §2.3, RFC 3915 §3.1). */
const STATUSES: readonly (readonly [RegExp, Finding['weight'], string])[] = [
  [/^(client|server) hold$/, 'stop', 'the registry does not publish the delegation'],
  [/^(redemption period|pending delete|pending restore)$/, 'stop', 'the domain is being deleted'],
  [/^client update prohibited$/, 'look', 'nameservers cannot be changed until the registrar lifts it'],
  [/^server update prohibited$/, 'look', 'nameservers cannot be changed until the registry lifts it, which takes days'],
  [/^pending update$/, 'look', 'a change is waiting at the registry already'],
  [/^pending transfer$/, 'look', 'the domain is on its way to another registrar: let that finish first'],
  [/^inactive$/, 'look', 'the registry holds no nameservers for it'],
];
/** Seconds before its end in which a registration is worth a word: no move should run into it. */
const SOON = 45 * 86_400;

/** What the registry knows: who may change the nameservers, whether they can be changed at all, and until when the domain is registered. */
export const registered: Finder = (standing) => {
  const look = standing.registration;
  if (!look) return [];
  if (look.kind === 'unknown') return [{ weight: 'note', code: 'registration-unknown', text: `Nothing is known of the registration: ${look.problem}.` }];
  if (look.kind === 'absent') return [{ weight: 'look', code: 'not-registered', text: `The registry's service ${look.service} knows no ${standing.domain}.` }];
  const { registration } = look;
  const findings: Finding[] = [];
  for (const status of registration.statuses) {
    const known = STATUSES.find(([pattern]) => pattern.test(status));
    if (known) findings.push({ weight: known[1], code: 'status', text: `Status "${status}": ${known[2]}.` });
  }
  if (registration.expires !== undefined && registration.expires <= standing.takenAt)
    findings.push({ weight: 'stop', code: 'expired', text: `The registration ended ${day(registration.expires)}: have it renewed first.` });
  else if (registration.expires !== undefined && registration.expires - standing.takenAt < SOON)
    findings.push({
      weight: 'look',
      code: 'expires',
      text: `The registration ends ${day(registration.expires)}, maybe inside the move: have it renewed first.`,
    });
  const delegated = delegatedNames(standing);
  if (registration.nameservers.length > 0 && delegated.length > 0 && !sameNameSet(registration.nameservers, delegated))
    findings.push({
      weight: 'look',
      code: 'registry-differs',
      text: `The registry's record names ${listWords(registration.nameservers.map(plain).sort())}, its servers delegate to ${listWords(delegated.map(plain))}: a change may be under way.`,
    });
  return findings;
};

function day(at: number): string {
  return `on ${new Date(at * 1000).toISOString().slice(0, 10)} (UTC)`;
}
