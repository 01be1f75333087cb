import { StepRule, acted } from './rule';

/** The apex NS set of the old zone becomes the new one, for resolvers that go by the zone's own answers. */
export const turn: StepRule = {
  id: 'turn',
  chapter: 'switch',
  title: 'Turn the old zone',
  label: 'old zone turned',
  after: ['switch'],
  by: 'decided',
  counts: 'done',
  applies: (plan) => plan.kind === 'delegation',
  standing: (leg) =>
    acted(leg, 'turn', {
      decision: leg.said.approved,
      leave: {
        act: 'leave',
        subject: 'turn',
        label: 'Go on without turning it',
        means: 'Resolvers that renew a delegation from the old servers’ answers are then not bounded, until those servers stop.',
      },
    }),
};
