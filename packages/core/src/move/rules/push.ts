import { isLate } from '../lateHost';
import { StepRule, Way, acted, stands } from './rule';

/** The planned zone goes to the new DNS host; what changes in the plan later goes there too. */
export const push: StepRule = {
  id: 'push',
  chapter: 'rebuild',
  title: 'Push the new zone',
  label: 'pushed',
  after: ['choose'],
  by: 'decided',
  counts: 'done',
  applies: (plan) => plan.kind === 'delegation',
  standing: (leg) => {
    const { newHost } = leg.plan;
    const byHand = newHost !== undefined && !newHost.keyed;
    const leave: Way = {
      act: 'leave',
      subject: 'push',
      label: byHand ? 'I am typing it by hand' : 'I have done it by hand',
      means: byHand ? 'The new zone is read back from now on, row by row.' : 'The new zone is read back all the same.',
    };
    if (byHand && !leg.said.left.has('push') && !leg.said.pushed)
      return stands('ready', { text: `${newHost.name} takes no updates from us: the zone is typed there, by the handover sheet.`, ways: [leave] });
    // Sent before, it would be refused; decided before, it goes there as soon as it can.
    if (isLate(leg.plan) && leg.said.pushed && !leg.said.left.has('push') && leg.times.ts === undefined)
      return stands('due', { text: `${newHost!.name} takes the zone once the domain is delegated to it: it is pushed then.`, decision: leg.said.pushed });
    const foreign = (leg.state.work.get('push')?.foreign.length ?? 0) > 0;
    const ways: Way[] = foreign
      ? [
          { act: 'take', subject: '', label: 'Let the plan take their place', means: 'What stands there is deleted or overwritten.' },
          {
            act: 'keep',
            subject: '',
            label: 'Leave what the plan does not name',
            means: 'It stays in the new zone; sets that the plan names are overwritten all the same.',
          },
        ]
      : [];
    return acted(leg, 'push', { decision: leg.said.pushed, plan: leg.pushes, leave, ways });
  },
};
