import { DriftView, MoveSurvey } from '@wanderon/contract';
import { GRADE_WORDS, counted } from '@wanderon/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../../api';
import { duration, shortTime } from '../../time';
import { Failed, Loading } from '../../ui/states';
import { Fold } from '../../ui/fold';
import { ownerBelow } from '../owner';

/** What is otherwise than in an earlier survey of the move. */
export function Drift({ move, domain, survey }: { move: string; domain: string; survey: MoveSurvey }) {
  const [chosen, setChosen] = useState(survey.earlier[0]?.id ?? '');
  const earlier = survey.earlier.some((one) => one.id === chosen) ? chosen : (survey.earlier[0]?.id ?? '');
  const drift = useQuery({
    queryKey: ['move', move, 'drift', survey.id, earlier],
    queryFn: () => call<DriftView>('GET', `/api/moves/${move}/drift/${earlier}`),
    enabled: earlier !== '',
  });
  if (survey.earlier.length === 0) return null;
  return (
    <Fold title="Since before" gist={gistOf(drift.data)} alarming={(drift.data?.changes.length ?? 0) > 0}>
      <p className="flex items-baseline gap-2 py-1">
        <span className="text-faded">held against the survey of</span>
        <select
          aria-label="The survey to hold this one against"
          value={earlier}
          onChange={(event) => setChosen(event.target.value)}
          className="rounded-[3px] border border-rule bg-sheet px-1 text-sm"
        >
          {survey.earlier.map((one) => (
            <option key={one.id} value={one.id}>
              {shortTime(one.takenAt)}, {GRADE_WORDS[one.grade]}, {one.sets} record sets
            </option>
          ))}
        </select>
      </p>
      {drift.isPending && <Loading what="the earlier survey" />}
      {drift.isError && <Failed error={drift.error} retry={() => void drift.refetch()} />}
      {drift.data && (
        <>
          {drift.data.changes.length === 0 && <p className="py-1">Nothing is otherwise.</p>}
          <div className="max-h-56 overflow-y-auto" tabIndex={0} role="table" aria-label="What changed">
            {drift.data.changes.map(({ kind, before, after }) => (
              <div
                role="row"
                key={`${(before ?? after)!.owner} ${(before ?? after)!.type}`}
                className="grid grid-cols-[6rem_13rem_5rem_minmax(0,1fr)_minmax(0,1fr)] gap-3 border-b border-rule py-0.5"
              >
                <span role="cell" className="font-semibold">
                  {kind}
                </span>
                <span role="cell" className="mono break-all">
                  {ownerBelow((before ?? after)!.owner, domain)}
                </span>
                <span role="cell" className="mono">
                  {(before ?? after)!.type}
                </span>
                <Side set={before} ttl={kind === 'TTL changed'} faded />
                <Side set={after} ttl={kind === 'TTL changed'} />
              </div>
            ))}
          </div>
          {drift.data.remarks.map((remark) => (
            <p key={remark} className="py-0.5 text-faded">
              {remark}
            </p>
          ))}
        </>
      )}
    </Fold>
  );
}

function gistOf(drift: DriftView | undefined): string {
  if (!drift) return 'reading the earlier survey …';
  return drift.changes.length === 0 ? 'nothing is otherwise' : `${counted(drift.changes.length, 'record set')} otherwise`;
}

function Side({ set, ttl, faded = false }: { set: DriftView['changes'][number]['before']; ttl: boolean; faded?: boolean }) {
  return (
    <span role="cell" className={`mono [overflow-wrap:anywhere] ${faded ? 'text-faded' : ''}`}>
      {set && (ttl ? duration(set.ttl) : set.data.join(', '))}
    </span>
  );
}
