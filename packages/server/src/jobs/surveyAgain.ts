import { RRset, TYPE_CODES, driftBetween, typeMnemonic } from '@wanderon/core';
import { NetError } from '@wanderon/net';
import { asSurveyed } from '../survey/driftOf';
import { TakenSurvey } from '../survey/takeSurvey';
import { StepContext } from './stepContext';

/** Surveys the old zone once more, and tells what is otherwise than it was planned from, TTLs and answers that vary anyway aside, in words. */
export async function surveyAgain(context: StepContext): Promise<string[]> {
  const { leg, move, zone, surveys, store } = context;
  const before = asSurveyed(await surveys.get(leg.survey_id!));
  const known = before.sets.map((set) => ({ name: set.owner, type: set.type }));
  let taken: TakenSurvey;
  try {
    taken = await context.surveyor.take({ move: move.id }, zone, { before: known, pages: leg.facts.pages ?? [] });
  } catch (error) {
    // A process that ends must not have a survey cut short taken for one.
    if (context.surveyor.closing) throw error;
    if (error instanceof NetError) return [`the zone could not be surveyed again: ${error.message}`];
    throw error;
  }
  await store.database.transaction(async (transaction) => {
    const id = await surveys.add(move.domain_id, move.id, taken.survey, transaction);
    await store.addFacts(leg.id, { lastSurvey: id }, transaction);
  });
  const { changes } = driftBetween(zone, before, asSurveyed(taken.survey));
  const own = (set: RRset): boolean => set.owner.equals(zone) && set.type === TYPE_CODES.NS;
  return changes
    .filter((change) => change.kind !== 'TTL changed' && !change.shaky && !own((change.before ?? change.after)!))
    .map(({ kind, before: old, after }) => {
      const { owner, type } = (old ?? after)!;
      return `${owner.toString()} ${typeMnemonic(type)} ${kind === 'changed' ? 'changed' : kind === 'gone' ? 'is gone' : 'was added'}`;
    });
}
