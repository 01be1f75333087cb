import { StepRule, stands } from './rule';

/** The second leg of a move in two: begun by a person once the first is over, and planned anew on a survey of its own. */
export const nextLeg: StepRule = {
  id: 'next-leg',
  chapter: 'watch',
  title: 'Begin the second stage',
  label: 'second stage begun',
  after: ['raise'],
  by: 'person',
  counts: 'in turn',
  applies: (plan) => plan.next !== undefined,
  standing: (leg) => stands(leg.plan.followed ? 'done' : 'ready'),
};
