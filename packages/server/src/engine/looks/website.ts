import { answeredAt, holdingPages, pageChanges, pageFaults, pagesPlanned, pagesWished, siteFaults, spellingsOf, together } from '@wanderon/core';
import { Network } from '../../network/network';
import { SurveyStore } from '../../survey/survey.store';
import { lookWherePlanLeads, pagesLookedAt } from '../../watch/website';
import { WebsiteLookStore } from '../../watch/websiteLook.store';
import { Outcome, WorkContext } from '../context';

/** Changes that are told in the trail one by one. */
const TOLD = 3;

/** Looks at the website where the plan leads and holds it against the survey. Where no page was surveyed, it answers or it does not. */
export async function lookAtWebsite(
  context: WorkContext,
  network: Network,
  surveys: SurveyStore,
  looks: WebsiteLookStore,
  at: number,
): Promise<Pick<Outcome, 'also'>> {
  const { loaded, leg, zone } = context;
  const surveyId = loaded.row.last_survey ?? loaded.row.survey_id;
  const baseline = surveyId ? await surveys.pages(surveyId) : [];
  // Where no page was surveyed there is nothing to hold them against: what is looked at is whether they answer.
  const surveyed = baseline.length > 0;
  const wish = leg.said.site;
  const wished = pagesWished(wish, spellingsOf(zone, leg.plan.scope, leg.plan.rulings));
  const { scope, rulings } = leg.plan;
  // Names that move alone have no page of their own in a survey of the whole domain.
  const planned = surveyed && scope.kind === 'whole' ? [] : pagesPlanned(zone, scope, rulings);
  const pages = [...new Set([...(surveyed ? pagesLookedAt(baseline) : []), ...planned, ...wished])];
  if (!surveyId || pages.length === 0) return {};
  const seen = await lookWherePlanLeads(network, zone, leg.plan.rulings, pages);
  const before = new Set(baseline.map((look) => look.start));
  const held = holdingPages(seen, leg.plan.newWeb?.holding ?? [], baseline);
  const changes = together([
    ...held,
    ...siteFaults(seen, wish, leg.ts !== undefined),
    ...(surveyed ? pageChanges(baseline, seen, wish.main) : []),
    ...pageFaults(surveyed ? seen.filter(({ start }) => !before.has(start) && planned.includes(start.replace(/^https?:\/\//, ''))) : seen),
  ]);
  return {
    also: async (transaction) => {
      if (!(await looks.add(loaded.row.id, surveyId, at, seen, changes, transaction))) return [];
      const told = changes.slice(0, TOLD).map(({ pages, text }) => `${pages.join(', ')} ${text}`);
      const more = changes.length > TOLD ? `; and ${changes.length - TOLD} more` : '';
      const answered = answeredAt(seen).length > 0;
      const well = !answered ? 'no page of the website answers, and none did before' : surveyed ? 'the website is as it was surveyed' : 'the website answers';
      const text = changes.length === 0 ? `Where the plan leads, ${well}.` : `Where the plan leads: ${told.join('; ')}${more}.`;
      return [{ kind: 'website', text }];
    },
  };
}
