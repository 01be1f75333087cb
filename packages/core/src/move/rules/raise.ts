import { isTakeover } from '../account';
import { StepRule, Way, acted, stands } from './rule';

const LEAVE: Way = { act: 'leave', subject: 'raise', label: 'Leave the TTLs low', means: 'They stay as they are, or are raised by hand.' };

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
    // Which account a key opens is not known: nothing is sent to the other one.
    isTakeover(leg.plan) && !leg.said.left.has('raise')
      ? stands('ready', {
          text: 'They were typed low: raise them in the panel of the other account.',
          ways: [{ ...LEAVE, label: 'They are raised, or stay low' }],
        })
      : acted(leg, 'raise', { decision: leg.said.approved, plan: leg.pushes, leave: LEAVE }),
};
