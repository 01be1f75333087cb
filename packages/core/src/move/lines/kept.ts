import { isFirstUse } from '../firstUse';
import { dropsZone } from '../rules/turn';
import { LineRule, line } from './line';

/** In the way where the old zone goes with the delegation. */
const GOES = 'the old zone goes once the domain is delegated elsewhere';

/**
 * A host that drops a zone, or puts a parking page in its place, once the domain is delegated elsewhere: whoever is still led there finds
 * that. The old zone is turned beforehand, so that nobody is led there by its own answers; those whom the parent led there stay for P.
 */
export const kept: LineRule = (leg) => {
  const { plan, times } = leg;
  if (!dropsZone(plan) || isFirstUse(plan)) return undefined;
  const holds = times.te.all !== undefined;
  const host = plan.oldHost!.name;
  return line(
    leg,
    'kept',
    holds,
    holds
      ? `The old zone at ${host} names the new nameservers: resolvers that go by its answers ask there already.`
      : `${host} takes the zone out once the domain is delegated elsewhere: have the old zone name the new nameservers first. Resolvers that go by its answers ask the new servers from then on.`,
    {
      evidence: holds
        ? 'Resolvers that were led there before the switch go on asking there until that has run out.'
        : 'Whoever is led there then finds nothing, or a parking page, until what led there has run out.',
      waivable: true,
      about: [GOES],
      seenAt: leg.seen.looked['old'] ?? null,
    },
  );
};
