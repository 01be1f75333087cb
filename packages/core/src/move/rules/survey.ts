import { StepRule, stands } from './rule';

/** The first inventory, from which the plan is made. */
export const survey: StepRule = {
  id: 'survey',
  chapter: 'survey',
  title: 'Take the survey',
  label: 'surveyed',
  after: [],
  by: 'seen',
  counts: 'seen',
  applies: () => true,
  standing: (leg) => {
    const work = leg.state.work.get('survey');
    const asked = leg.said.surveyAsked > (work?.upTo ?? 0);
    if (leg.plan.surveyedAt !== undefined && (leg.plan.chosen || (!asked && work?.outcome !== 'stopped' && work?.outcome !== 'trying')))
      return stands('done', { doneAt: leg.plan.surveyedAt });
    if (work?.outcome === 'stopped' && !asked)
      return stands('stopped', { text: work.problem, since: work.since, ways: [{ act: 'retry', subject: 'survey', label: 'Try again', means: '' }] });
    return stands('doing', { text: work?.outcome === 'trying' ? work.problem : null, since: work?.since ?? null });
  },
};
