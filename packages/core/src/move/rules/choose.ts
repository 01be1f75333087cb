import { StepRule, stands } from './rule';

export const choose: StepRule = {
  id: 'choose',
  chapter: 'rebuild',
  title: 'Choose where it goes',
  label: undefined,
  after: ['survey'],
  by: 'person',
  counts: 'done',
  applies: () => true,
  standing: (leg) => stands(leg.plan.chosen ? 'done' : 'ready'),
};
