import { plain } from '../../survey/words';
import { sameNameSet } from '../../watch/verdict';
import { LineRule, line } from './line';

/** The parent still delegates to the servers at which the records change: elsewhere a change would be seen by nobody. */
export const delegated: LineRule = (leg) => {
  if (leg.plan.kind !== 'repoint') return undefined;
  const known = new Set(leg.plan.oldServers.map((one) => plain(one.server).toLowerCase()));
  const sights = leg.seen.parent.flatMap((one) => one.sightings.at(-1)?.value ?? []);
  const others = [...new Set(sights.flatMap((sight) => sight.nameservers.map(plain)).filter((name) => !known.has(name.toLowerCase())))];
  const seenAt = leg.seen.looked['parent'] ?? null;
  if (sights.length === 0) return line(leg, 'delegated', false, 'What the registry publishes was not seen yet.', { seenAt });
  if (others.length > 0)
    return line(leg, 'delegated', false, `The registry delegates elsewhere by now: ${others.join(', ')}. What changes here would be seen by nobody.`, {
      seenAt,
      ways: [{ act: 'retry', subject: 'survey', label: 'Take the survey again', means: 'It says where the domain is answered now, and what is there.' }],
    });
  const differ = !sights.every((sight) => sameNameSet(sight.nameservers, sights[0]!.nameservers));
  return line(leg, 'delegated', true, 'The registry delegates to the nameservers at which the records change.', {
    seenAt,
    evidence: differ ? 'the registry’s servers name different sets of them' : null,
  });
};
