import { StepRule, stands } from './rule';

export const close: StepRule = {
  id: 'close',
  chapter: 'watch',
  title: 'Close the move',
  label: 'closed',
  after: ['raise'],
  by: 'person',
  counts: 'in turn',
  applies: () => true,
  standing: () => stands('ready'),
};
