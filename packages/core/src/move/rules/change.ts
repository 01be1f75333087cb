import { isTakeover } from '../account';
import { StepRule, acted, stands } from './rule';

const TAKEOVER = 'Say so before the live account lets go: from then on every server is asked for every planned set.';

/** The records get their new values where they are: by update once a person says so, or by a person who says so. */
export const change: StepRule = {
  id: 'change',
  chapter: 'switch',
  title: 'Change the records',
  titleIn: (plan) => (isTakeover(plan) ? 'Have the other account take over' : undefined),
  label: undefined,
  after: ['lowered', 'push', 'ds-gone'],
  by: 'decided',
  counts: 'done',
  applies: (plan) => plan.kind === 'repoint',
  standing: (leg) => {
    const { submitted } = leg.said;
    const { t0, ts } = leg.times;
    if (isTakeover(leg.plan) || !leg.plan.newHost?.keyed) {
      if (submitted) return stands('done', { doneAt: submitted.at, decision: submitted });
      return ts === undefined
        ? stands('ready', isTakeover(leg.plan) ? { text: TAKEOVER } : {})
        : stands('done', { doneAt: t0?.firstNew ?? ts, text: 'Somebody has changed them.' });
    }
    return acted(leg, 'change', {
      decision: submitted,
      plan: leg.changes,
      leave: { act: 'leave', subject: 'change', label: 'I have changed them by hand', means: 'What is served counts, whoever set it.' },
      ways:
        (leg.state.work.get('change')?.foreign.length ?? 0) > 0
          ? [{ act: 'take', subject: '', label: 'Let the plan take their place', means: 'What stands there is overwritten or deleted.' }]
          : [],
    });
  },
};
