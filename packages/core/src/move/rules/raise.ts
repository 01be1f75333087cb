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
  standing: (leg) => {
    const host = leg.plan.kind === 'repoint' ? leg.plan.oldHost : leg.plan.newHost;
    // Which account a key opens is not known: nothing is sent to the other one.
    const where = isTakeover(leg.plan) ? 'the other account' : host?.keyed ? undefined : (host?.name ?? 'the DNS host');
    if (where === undefined || leg.said.left.has('raise') || leg.state.work.get('raise')?.outcome === 'done')
      return acted(leg, 'raise', { decision: leg.said.approved, plan: leg.pushes, leave: LEAVE });
    return stands('ready', {
      text: `They were typed low: raise them in the panel of ${where}.`,
      ways: [{ ...LEAVE, label: 'They are raised, or stay low' }],
    });
  },
};
