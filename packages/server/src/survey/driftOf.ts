import { DriftView, MoveSurvey, SurveyView } from '@wanderon/contract';
import { Name, RRset, driftBetween, rrsetFromText, rrsetKey, rrsetToText } from '@wanderon/core';
import { notFound } from '../refusals';
import { SurveyStore } from './survey.store';

/** The latest survey of a move held against an earlier one of it. Throws where the earlier one is not one of them. */
export async function driftOf(survey: MoveSurvey | null, earlier: string, surveys: SurveyStore): Promise<DriftView> {
  if (!survey?.earlier.some((one) => one.id === earlier)) throw notFound('survey');
  const drift = driftBetween(apexOf(survey), asSurveyed(await surveys.get(earlier)), asSurveyed(survey));
  const text = (set: RRset | undefined): SetText | null => (set ? rrsetToText(set) : null);
  return { changes: drift.changes.map(({ kind, before, after }) => ({ kind, before: text(before), after: text(after) })), remarks: [...drift.remarks] };
}

type SetText = NonNullable<DriftView['changes'][number]['before']>;

/** A survey as core compares it. */
export function asSurveyed(survey: Pick<SurveyView, 'sets' | 'coverage'>): Parameters<typeof driftBetween>[1] {
  const sets = survey.sets.map((set) => ({ set: rrsetFromText(set), varies: set.restless || set.fronted !== null }));
  return {
    sets: sets.map((one) => one.set),
    grade: survey.coverage.grade,
    varying: new Set(sets.filter((one) => one.varies).map(({ set }) => rrsetKey(set.owner, set.type))),
  };
}

/** The zone's own name, from its SOA; the parent's where no SOA was seen, which then matters to nothing. */
function apexOf(survey: MoveSurvey): Name {
  return Name.parse(survey.sets.find((set) => set.type === 'SOA')?.owner ?? survey.parent);
}
