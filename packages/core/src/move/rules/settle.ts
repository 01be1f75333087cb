import { duration } from '../../survey/duration';
import { capital } from '../../survey/words';
import { Instant } from '../../timetable/instant';
import { lookoutSubject } from '../../watch/settled';
import { Leg } from '../leg';
import { KEPT_AT_MOST } from './acceptTtls';
import { StepRule, Way, asideWay, stands } from './rule';

/** Every authority and lookout says new, and the last bound has passed. */
export const settle: StepRule = {
  id: 'settle',
  chapter: 'watch',
  title: 'Watch until finished everywhere',
  label: 'finished everywhere',
  after: ['switch', 'turn', 'changed'],
  by: 'seen',
  counts: 'in turn',
  applies: () => true,
  standing: (leg) => {
    const { settled, missing } = leg.settled;
    if (settled) return stands('done', { doneAt: leg.times.last.at });
    const left = leg.said.left.get('settle');
    if (left) return stands('left', { doneAt: left.at, decision: left });
    const dueAt = Number.isFinite(leg.times.last.at) ? leg.times.last.at : null;
    return stands('doing', { dueAt, text: missing.length > 0 ? `${capital(missing.join('; '))}.` : null, ways: waysOf(leg) });
  },
};

/** Nobody waits for years, or without end: a person says that it is over, and what that leaves open. */
function finishWay(at: Instant, now: Instant): Way {
  const long = Number.isFinite(at) ? `for up to ${duration(at - now)} more` : 'for nobody knows how long';
  return {
    act: 'leave',
    subject: 'settle',
    label: 'Finish without waiting',
    means: `Some resolvers may be led to the old place ${long}. Most keep nothing for longer than ${duration(KEPT_AT_MOST)}: keep the old place running at least until then.`,
  };
}

function waysOf(leg: Leg): Way[] {
  const { te, last } = leg.times;
  // A lookout that is still not new once no sound cache can be: it does not honour TTLs, or is no resolver.
  const stubborn = leg.now > last.at ? leg.settled.waiting : [];
  const silentOld = leg.seen.zones.filter((one) => one.silence && te.lacking.some((lack) => lack.address === one.address));
  const fresh = new Set(leg.plan.newServers.map((one) => one.address));
  const silentNew = leg.seen.zones.filter((one) => one.silence && fresh.has(one.address) && !leg.said.aside.has(one.address));
  const silentParent = leg.plan.kind === 'repoint' ? leg.seen.parent.filter((one) => one.silence && !leg.said.aside.has(one.address)) : [];
  const noLookout = leg.settled.missing.includes('no resolver answers');
  return [
    ...(leg.turns ? silentOld.map((one) => asideWay(one.address, one.server)) : []),
    ...silentNew.map((one) => asideWay(one.address, one.server)),
    ...silentParent.map((one) => asideWay(one.address, one.server)),
    ...stubborn.map((name): Way => ({
      act: 'aside',
      subject: lookoutSubject(name),
      label: `Stop waiting for ${name}`,
      means: 'Every bound has passed, and it still says something else: it may serve what is stale, or not be a resolver.',
    })),
    ...(last.at > leg.now + KEPT_AT_MOST && leg.times.switchSeen ? [finishWay(last.at, leg.now)] : []),
    ...(noLookout
      ? [
          {
            act: 'leave',
            subject: 'lookouts',
            label: 'Go on without resolvers',
            means: 'Then only the nameservers count, and the times that are worked out.',
          } as const,
        ]
      : []),
  ];
}
