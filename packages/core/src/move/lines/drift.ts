import { setWords } from '../../survey/words';
import { duration } from '../../survey/duration';
import { isFirstUse } from '../firstUse';
import { LineRule, UNSEEN, line } from './line';

/** The old zone still holds what was surveyed; what changed can be taken into the plan from here. */
export const drift: LineRule = (leg) => {
  if (isFirstUse(leg.plan)) return undefined;
  const seen = leg.seen.drift;
  const { kind, isBack, oldHost, scope } = leg.plan;
  const zone = kind === 'repoint' ? 'zone' : isBack ? `zone at ${oldHost?.name ?? 'the host that is left'}` : 'old zone';
  // What is left when going back is what was pushed there.
  const since = isBack ? 'plan' : 'survey';
  if (!seen) return line(leg, 'drift', false, `The ${zone} is compared with the ${since} once its TTLs are seen lowered.`);
  if (seen.problem !== null)
    return line(leg, 'drift', false, `The ${zone} could not be compared with the ${since}: ${seen.problem}.`, {
      seenAt: seen.at,
      waivable: true,
      about: [UNSEEN],
    });
  const holds = seen.changes.length === 0;
  const words = seen.changes.map(
    (one) =>
      `${setWords(one)} ${one.before === null ? 'was added' : one.after === null ? 'is gone' : sameData(one.before.data, one.after.data) ? `has a TTL of ${duration(one.after.ttl)} again` : 'changed'}`,
  );
  return line(
    leg,
    'drift',
    holds,
    holds
      ? scope.kind === 'names'
        ? 'The names hold what was surveyed.'
        : `The ${zone} holds what was ${isBack ? 'planned' : 'surveyed'}.`
      : `The ${zone} ${isBack ? 'is otherwise than planned' : 'changed since the survey'}: ${words.slice(0, 5).join('; ')}${words.length > 5 ? `; and ${words.length - 5} more` : ''}.`,
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
