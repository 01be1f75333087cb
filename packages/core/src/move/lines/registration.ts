import { LineRule, UNSEEN, line } from './line';

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

export const registration: LineRule = (leg) => {
  const seen = leg.seen.registration;
  if (!seen || leg.plan.kind === 'repoint') return undefined;
  if (seen.problem !== null)
    return line(leg, 'registration', false, `The registration could not be looked up: ${seen.problem}.`, {
      seenAt: seen.at,
      waivable: true,
      about: [UNSEEN],
    });
  const bad = seen.statuses.filter((status) => IN_THE_WAY.includes(status.toLowerCase()));
  return line(
    leg,
    'registration',
    bad.length === 0,
    bad.length === 0 ? 'Nothing about the registration is in the way.' : `The registration is in the way: ${bad.join(', ')}.`,
    {
      seenAt: seen.at,
      waivable: true,
      about: bad,
      evidence: seen.statuses.join(', ') || null,
    },
  );
};
