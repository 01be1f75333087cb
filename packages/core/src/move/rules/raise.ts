import { StepRule, acted } from './rule';

/** Sets that are as planned get their lasting TTLs where they are served. */
export const raise: StepRule = {
  id: 'raise',
  chapter: 'watch',
  title: 'Raise the TTLs',
  label: 'TTLs raised',
  after: ['settle', 'ds-again'],
  by: 'decided',
  counts: 'done',
  applies: () => true,
  standing: (leg) =>
    acted(leg, 'raise', {
      decision: leg.said.approved,
      plan: leg.pushes,
      leave: { act: 'leave', subject: 'raise', label: 'Leave the TTLs low', means: 'They stay as they are, or are raised by hand.' },
    }),
};
