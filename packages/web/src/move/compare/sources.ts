import { AnsweringView, AnswersView, MoveSurvey, SurveyPage } from '@wanderon/contract';
import { Side, isHostsOwn, plannedSide, setKey } from '@wanderon/core';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { call } from '../../api';
import { shortTime } from '../../time';
import { asRuling } from '../asRuling';
import { OpenLeg } from '../movePlace';

/** What can be held against something else, by the word that stands in the address: `found`, `plan`, `hand`, `survey:ID`, `server:ADDRESS`. */
export interface Source {
  readonly id: string;
  readonly title: string;
}

export const FOUND: Source = { id: 'found', title: 'found, what the plan is made from' };
export const PLAN: Source = { id: 'plan', title: 'the plan' };
export const HAND: Source = { id: 'hand', title: 'a file in hand' };

/** The source that an address names, where it names one. */
export const sourceIn = (named: string | null): string | undefined =>
  named !== null && /^(found|plan|hand|(survey|server):.+)$/.test(named) ? named : undefined;

/** Everything that this leg can be held against, and how far its list is known. */
export function useSources(leg: OpenLeg, survey: MoveSurvey | null): readonly Source[] {
  const servers = useQuery({
    queryKey: ['answering', leg.id],
    queryFn: async () => (await call<AnsweringView>('GET', `/api/legs/${leg.id}/answers`)).servers,
  });
  const surveys = survey ? [{ id: survey.id, takenAt: survey.takenAt, grade: survey.coverage.grade }, ...survey.earlier] : [];
  return [
    FOUND,
    ...(leg.chosen ? [PLAN] : []),
    HAND,
    ...surveys.map(({ id, takenAt, grade }) => ({ id: `survey:${id}`, title: `the survey of ${shortTime(takenAt)}, ${grade}` })),
    ...(servers.data ?? []).map(({ server, address, of }) => ({ id: `server:${address}`, title: `${server.replace(/\.$/, '')} (${address}), ${of} host` })),
  ];
}

/** The contents of a source; undefined while it is read. `hand`: what was pasted. */
export function useSide(leg: OpenLeg, source: string, hand: Side): { readonly side: Side | undefined; readonly error: Error | null } {
  const [kind, id = ''] = split(source);
  const survey = useQuery({
    queryKey: ['survey page', id],
    queryFn: () => call<SurveyPage>('GET', `/api/surveys/${encodeURIComponent(id)}`),
    enabled: kind === 'survey',
    staleTime: Infinity,
  });
  const server = useQuery({
    queryKey: ['answers', leg.id, id],
    queryFn: () => call<AnswersView>('GET', `/api/legs/${leg.id}/answers/${encodeURIComponent(id)}`),
    enabled: kind === 'server',
  });
  // A ledger that is read in part says nothing of what it has not.
  const rows = leg.rulings.length >= leg.total ? leg.rulings : undefined;
  const planned = useMemo(() => rows && plannedSide(rows.map(asRuling)), [rows]);
  const found = useMemo(() => rows && { sets: rows.flatMap((row) => (row.found && !isHostsOwn(row) ? [row.found] : [])) }, [rows]);
  const answers = useMemo(() => server.data && answered(server.data), [server.data]);
  const surveyed = useMemo(() => survey.data && { sets: survey.data.survey.sets }, [survey.data]);
  switch (kind) {
    case 'survey':
      return { side: surveyed, error: survey.error };
    case 'server':
      return { side: answers, error: server.error };
    case 'plan':
      return { side: planned, error: null };
    case 'hand':
      return { side: hand, error: null };
    default:
      return { side: found, error: null };
  }
}

function split(source: string): [string, string | undefined] {
  const at = source.indexOf(':');
  return at < 0 ? [source, undefined] : [source.slice(0, at), source.slice(at + 1)];
}

function answered({ sets }: AnswersView): Side {
  return { sets: sets.filter((set) => set.data.length > 0), asked: new Set(sets.map((set) => setKey(set.owner, set.type))) };
}
