import { Instant, isDone, pageChanges } from '@wanderon/core';
import { lookWherePlanLeads, pagesLookedAt } from '../watch/website';
import { StepContext } from './stepContext';

/** Seconds from one look to the next, before the switch is seen and after it. */
const BEFORE = 3600;
const AFTER = 900;
const TOLD = 3;

/**
 * Looks at the website where the plan leads and holds it against the survey, where it is time: from the moment the new
 * DNS host serves the plan, or a person asks for it, until the move is settled. Gives when to look again.
 */
export async function lookAtWebsite(context: StepContext): Promise<Instant> {
  const { clock, leg, network, rulings, steps, store, surveys, websiteLooks, zone } = context;
  const { pagesLookedAt: last } = leg.facts;
  if ((last === undefined && !isDone(steps, 'served')) || isDone(steps, 'settle')) return Infinity;
  const every = leg.facts.t0 ? AFTER : BEFORE;
  if (last !== undefined && last + every > clock.now()) return last + every;
  const surveyId = leg.facts.lastSurvey ?? leg.survey_id;
  const baseline = surveyId ? (await surveys.get(surveyId)).pages : [];
  if (surveyId && baseline.length > 0) {
    const looks = await lookWherePlanLeads(network, zone, rulings, pagesLookedAt(baseline));
    const changes = pageChanges(baseline, looks);
    if (await websiteLooks.add(leg.id, surveyId, clock.now(), looks, changes)) {
      const told = changes.slice(0, TOLD).map(({ pages, text }) => `${pages.join(', ')} ${text}`);
      const more = changes.length > TOLD ? `; and ${changes.length - TOLD} more` : '';
      await context.note(
        'website',
        changes.length === 0 ? 'Where the plan leads, the website is as it was surveyed.' : `Where the plan leads: ${told.join('; ')}${more}.`,
      );
    }
  }
  const at = clock.now();
  await store.addFacts(leg.id, { pagesLookedAt: at });
  return at + every;
}
