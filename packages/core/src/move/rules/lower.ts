import { setsToLower, lowersTtls } from '../../timetable/lowering';
import { duration } from '../../survey/duration';
import { Leg } from '../leg';
import { doNotLower } from './acceptTtls';
import { StepRule, StepStanding, Way, acted, stands } from './rule';

/** TTLs of what changes, and of an apex NS set that does, go down where they are served now; or a person says that they do not. */
export const lower: StepRule = {
  id: 'lower',
  chapter: 'timetable',
  title: 'Lower the TTLs',
  label: 'lowering sent',
  after: ['choose'],
  by: 'decided',
  counts: 'done',
  applies: lowersTtls,
  standing: (leg) => {
    const { accepted } = leg.said;
    const highest = Math.max(0, ...setsToLower(leg.plan).map((set) => set.T));
    const work = leg.state.work.get('lower');
    if (accepted && (leg.said.acceptedTtl ?? 0) >= highest && work === undefined && !leg.said.left.has('lower'))
      return stands('left', { doneAt: accepted.at, decision: accepted });
    const ways = leg.times.ts === undefined && highest > 0 ? [doNotLower(highest)] : [];
    if (!leg.plan.oldHost?.keyed && work?.outcome !== 'done' && !leg.said.left.has('lower')) return byHand(leg, ways);
    const standing = acted(leg, 'lower', {
      decision: leg.said.approved,
      dueAt: leg.said.lowerAt,
      // After the switch nothing is lowered any more, whatever is taken into the plan.
      plan: leg.times.ts === undefined ? leg.lowers : (work?.plan ?? leg.lowers),
      leave: LEAVE,
    });
    return standing.state === 'ready' || standing.state === 'due' ? { ...standing, ways: [...standing.ways, ...ways] } : standing;
  },
};

const LEAVE: Way = { act: 'leave', subject: 'lower', label: 'I have done it by hand', means: 'What is served counts, whoever set it.' };

/** We hold no key there: a person lowers them in a panel, and what is served tells. */
function byHand(leg: Leg, ways: readonly Way[]): StepStanding {
  const { tl, ts } = leg.times;
  if (tl.all) return stands('done', { doneAt: tl.all.firstNew });
  if (ts !== undefined) return stands('left', { doneAt: ts });
  const host = leg.plan.oldHost?.name ?? 'the present DNS host';
  const text = `In the panel of ${host}, set the TTLs of what changes to ${duration(leg.said.lowerTo)}. Wanderon sees it by itself.`;
  return stands('ready', { text, ways: [LEAVE, ...ways] });
}
