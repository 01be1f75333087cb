import { LineRule, UNSEEN, line } from './line';

/** The old zone still holds what was surveyed; what changed can be taken into the plan from here. */
export const drift: LineRule = (leg) => {
  const seen = leg.seen.drift;
  const zone = leg.plan.kind === 'repoint' ? 'zone' : 'old zone';
  if (!seen) return line(leg, 'drift', false, `The ${zone} is compared with the survey once its TTLs are seen lowered.`);
  if (seen.problem !== null)
    return line(leg, 'drift', false, `The ${zone} could not be compared with the survey: ${seen.problem}.`, {
      seenAt: seen.at,
      waivable: true,
      about: [UNSEEN],
    });
  const holds = seen.changes.length === 0;
  const words = seen.changes.map(
    (one) =>
      `${one.owner} ${one.type} ${one.before === null ? 'was added' : one.after === null ? 'is gone' : sameData(one.before.data, one.after.data) ? `has a TTL of ${one.after.ttl} s again` : 'changed'}`,
  );
  return line(
    leg,
    'drift',
    holds,
    holds
      ? leg.plan.scope.kind === 'names'
        ? 'The names hold what was surveyed.'
        : `The ${zone} holds what was surveyed.`
      : `The ${zone} changed since the survey: ${words.slice(0, 5).join('; ')}${words.length > 5 ? `; and ${words.length - 5} more` : ''}.`,
    {
      seenAt: seen.at,
      waivable: true,
      about: seen.changes.map(({ owner, type, after }) => [owner, type, ...(after ? [after.ttl, ...after.data] : ['gone'])].join('\n')),
      ways: holds
        ? []
        : [
            {
              act: 'adopt',
              subject: 'drift',
              label: 'Take into the plan',
              means: 'Each change becomes part of the plan, and what follows from it is done again.',
            },
          ],
    },
  );
};

function sameData(a: readonly string[], b: readonly string[]): boolean {
  return a.length === b.length && a.every((text, index) => text === b[index]);
}
