import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { useMoveAction } from '../../api';
import { duration, fullTime, shortTime } from '../../time';
import { Button } from '../../ui/button';
import { Copy } from '../../ui/copy';
import { inputLook } from '../../ui/field';
import { useToast } from '../../ui/toast';
import { ChapterProps, stepIn } from '../movePlace';
import { ownerBelow } from '../owner';
import { StepNote } from '../stepNote';

/** What exists: the coverage first, then where the domain stands, then every record set with its evidence. */
export function Survey({ move, leg, may }: ChapterProps) {
  const step = stepIn(leg, 'survey');
  const again = useMoveAction<void>(
    move.id,
    'POST',
    () => '/steps',
    () => ({ step: 'survey', action: 'retry' }),
  );
  const { fail } = useToast();
  const [filter, setFilter] = useState('');
  const { survey } = move;
  if (!survey)
    return (
      <section>
        <h2 className="mb-2 text-lg">Survey</h2>
        <StepNote step={step} move={move.id} may={may} />
        {step.state !== 'failed' && (
          <p role="status">
            Asking the servers of the parent and every authority for the zone. Where none of them gives it whole, its names are asked for one by one, which
            takes a minute or two …
          </p>
        )}
      </section>
    );
  const sets = survey.sets.filter((set) => `${set.owner} ${set.type} ${set.data.join(' ')}`.toLowerCase().includes(filter.toLowerCase()));
  const chosen = leg.newDnsHost !== null;
  return (
    <section>
      <StepNote step={step} move={move.id} may={may} />
      <div className="mb-4 flex items-start justify-between gap-6">
        <div>
          <h2 className="text-[1.25rem] leading-tight">
            {survey.coverage.grade === 'whole'
              ? 'The inventory is whole'
              : survey.coverage.grade === 'likely whole'
                ? 'The inventory is likely whole'
                : 'The inventory is partial'}
          </h2>
          {survey.coverage.reasons.map((reason) => (
            <p key={reason}>{reason}</p>
          ))}
          <p className="text-faded" title={fullTime(survey.takenAt)}>
            Taken {shortTime(survey.takenAt)} · {survey.sets.length} record sets
          </p>
        </div>
        <div className="flex shrink-0 gap-2">
          {may && !chosen && step.state !== 'failed' && <Button onClick={() => again.mutate(undefined, { onError: fail })}>Take it again</Button>}
          {may && !chosen && step.state === 'done' && (
            <Link
              to={`/moves/${move.id}/rebuild`}
              className="rounded-[3px] border border-accent bg-accent px-2.5 py-1 leading-tight text-on-accent hover:brightness-110"
            >
              Choose where it goes
            </Link>
          )}
        </div>
      </div>
      <div className="mb-4 grid grid-cols-2 gap-x-8 max-lg:grid-cols-1">
        <div>
          <h3 className="smallcaps border-b border-ink">Delegated by {survey.parent === '.' ? 'the root' : survey.parent.replace(/\.$/, '')}</h3>
          {survey.referrals.map((referral) => (
            <div key={referral.address} className="flex justify-between gap-4 border-b border-rule py-1">
              <span>
                {referral.server.replace(/\.$/, '')} <span className="mono text-faded">{referral.address}</span>
              </span>
              <span className="text-right">
                {referral.problem ??
                  `${referral.nameservers.map((name) => name.replace(/\.$/, '')).join(', ')} · ${referral.ttl === null ? '' : duration(referral.ttl)}`}
              </span>
            </div>
          ))}
        </div>
        <div>
          <h3 className="smallcaps border-b border-ink">Authorities</h3>
          {survey.authorities.map((authority) => (
            <div key={authority.address} className="flex justify-between gap-4 border-b border-rule py-1">
              <span>
                {authority.server.replace(/\.$/, '')} <span className="mono text-faded">{authority.address}</span>
              </span>
              <span className={authority.problem && !authority.transferred ? 'text-rust' : ''}>
                {authority.problem ?? `serial ${authority.serial}${authority.transferred ? ', transferred' : ''}`}
              </span>
            </div>
          ))}
        </div>
      </div>
      {survey.hints.length > 0 && (
        <div className="mb-4">
          <h3 className="smallcaps border-b border-ink">Hints of what was not seen</h3>
          {survey.hints.map((hint) => (
            <div key={hint.owner} className="grid grid-cols-[13rem_1fr_1.5rem] gap-3 border-b border-rule py-1">
              <span className="mono font-semibold break-all">{ownerBelow(hint.owner, move.domain)}</span>
              <span>{hint.text}</span>
              <Copy value={hint.owner} label={`the name ${hint.owner}`} />
            </div>
          ))}
        </div>
      )}
      <div className="mb-1 flex items-end justify-between gap-4 border-b border-ink">
        <h3 className="smallcaps">Record sets</h3>
        {survey.sets.length > 20 && (
          <input
            aria-label="Filter record sets"
            placeholder="Filter"
            value={filter}
            onChange={(event) => setFilter(event.target.value)}
            className={`${inputLook} mb-1 max-w-56 py-0.5`}
          />
        )}
      </div>
      <RecordSets sets={sets} domain={move.domain} />
      {sets.length === 0 && <p className="py-4 text-faded">Nothing matches “{filter}”.</p>}
    </section>
  );
}

function RecordSets({ sets, domain }: { sets: NonNullable<ChapterProps['move']['survey']>['sets']; domain: string }) {
  const box = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: sets.length,
    getScrollElement: () => box.current,
    estimateSize: (index) => 10 + sets[index]!.data.length * 20,
    overscan: 12,
  });
  return (
    <div ref={box} className="max-h-[62vh] overflow-y-auto" tabIndex={0} role="table" aria-label="Record sets found">
      <div style={{ height: rows.getTotalSize(), position: 'relative' }}>
        {rows.getVirtualItems().map((item) => {
          const set = sets[item.index]!;
          return (
            <div
              key={item.key}
              ref={rows.measureElement}
              data-index={item.index}
              role="row"
              title={set.evidence}
              className="group absolute left-0 grid w-full grid-cols-[13rem_5rem_4.5rem_1fr_1.5rem] gap-3 border-b border-rule py-1"
              style={{ transform: `translateY(${item.start}px)` }}
            >
              <span role="cell" className="mono font-semibold break-all">
                {ownerBelow(set.owner, domain)}
              </span>
              <span role="cell" className="mono">
                {set.type}
              </span>
              <span role="cell" className="text-faded" title={`${set.ttl} s`}>
                {duration(set.ttl)}
              </span>
              <span role="cell" className="mono break-all">
                {set.data.map((data) => (
                  <span key={data} className="block">
                    {data}
                  </span>
                ))}
              </span>
              <span role="cell" className="opacity-0 group-hover:opacity-100 focus-within:opacity-100">
                <Copy value={set.data.join('\n')} label={`the value of ${set.owner} ${set.type}`} />
              </span>
            </div>
          );
        })}
      </div>
    </div>
  );
}
