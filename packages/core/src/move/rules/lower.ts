import { lowersTtls } from '../../timetable/lowering';
import { StepRule, acted } from './rule';

/** TTLs of what changes, and of an apex NS set that does, go down where they are served now. */
export const lower: StepRule = {
  id: 'lower',
  chapter: 'timetable',
  title: 'Lower the TTLs',
  label: 'lowering sent',
  after: ['choose'],
  by: 'decided',
  counts: 'done',
  applies: lowersTtls,
  standing: (leg) =>
    acted(leg, 'lower', {
      decision: leg.said.approved,
      dueAt: leg.said.lowerAt,
      // After the switch nothing is lowered any more, whatever is taken into the plan.
      plan: leg.times.ts === undefined ? leg.lowers : (leg.state.work.get('lower')?.plan ?? leg.lowers),
      leave: { act: 'leave', subject: 'lower', label: 'I have done it by hand', means: 'What is served counts, whoever set it.' },
    }),
};
