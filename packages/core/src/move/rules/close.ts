import { StepRule, stands } from './rule';

export const close: StepRule = {
  id: 'close',
  chapter: 'watch',
  title: 'Close the move',
  label: 'closed',
  after: ['raise', 'front-on'],
  by: 'person',
  counts: 'in turn',
  applies: (plan) => plan.next === undefined && !plan.followed,
  standing: () => stands('ready'),
};
