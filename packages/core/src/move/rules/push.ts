import { StepRule, Way, acted } from './rule';

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
    const leave: Way = { act: 'leave', subject: 'push', label: 'I have done it by hand', means: 'The new zone is read back all the same.' };
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
