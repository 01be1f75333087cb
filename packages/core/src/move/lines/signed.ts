import { unknownDs } from '../../dns/dsKnown';
import { rebuildsZone } from '../account';
import { hasDs, hasOtherDs } from '../rules/dsGone';
import { LineRule, line } from './line';

/** No DS, and no keys that were validated through one (RFC 6781 §4.3.4): the new host signs with others, or not at all. */
export const signed: LineRule = (leg) => {
  if (!rebuildsZone(leg.plan)) return undefined;
  const at = leg.seen.looked['parent'] ?? null;
  if (leg.plan.isBack)
    return hasOtherDs(leg)
      ? line(leg, 'ds', false, 'The parent publishes a DS of other keys than it did at first: take it out at the registrar.', { seenAt: at })
      : line(leg, 'ds', true, 'The parent publishes no DS but what it had at first.', { seenAt: at });
  if (hasDs(leg)) {
    const odd = unknownDs(leg.seen.parent.flatMap((one) => one.sightings.at(-1)?.value.ds ?? []));
    const whom = odd === undefined ? 'validating resolvers' : `resolvers that know ${odd}; to all others it would be unsigned, and resolve`;
    return line(leg, 'ds', false, `The parent publishes a DS: the domain would not resolve at ${whom}.`, { seenAt: at });
  }
  const { signedUntil } = leg.times;
  if (signedUntil && signedUntil.at > leg.now)
    return line(leg, 'ds', false, 'Keys that were validated through the DS may be remembered still.', {
      seenAt: at,
      holdsAt: signedUntil.at,
    });
  const unknown = leg.plan.keysTtl !== undefined && !signedUntil;
  if (unknown) return line(leg, 'ds', false, 'Not every server of the parent was seen without a DS.', { seenAt: at });
  return line(leg, 'ds', true, 'The registry publishes no DS.', { seenAt: at });
};
