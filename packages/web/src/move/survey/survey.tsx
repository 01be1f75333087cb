import { useVirtualizer } from '@tanstack/react-virtual';
import { ExportedSet, Meaning, Name, RRset, exportCsv, exportZoneFile, inReadingOrder, meaningsOf, rrsetFromText } from '@wanderon/core';
import { AnswerHint, HINT_ANSWERS, HintView, SurveyView } from '@wanderon/contract';
import { useMemo, useRef, useState } from 'react';
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
import { InHandDialog } from './inHandDialog';

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
  return <Taken survey={survey} step={step} again={() => again.mutate(undefined, { onError: fail })} move={move} leg={leg} may={may} />;
}

/** A record set with what it serves. */
interface Row {
  readonly set: RRset;
  readonly text: SurveyView['sets'][number];
  readonly meaning: Meaning;
}

function rowsOf(survey: SurveyView, zone: Name): Row[] {
  const texts = new Map(survey.sets.map((text) => [rrsetFromText(text), text]));
  const sets = [...texts.keys()];
  const meanings = meaningsOf(zone, sets);
  return inReadingOrder(zone, sets).map((set) => ({ set, text: texts.get(set)!, meaning: meanings.get(set)! }));
}

function Taken({
  survey,
  step,
  again,
  move,
  leg,
  may,
}: Pick<ChapterProps, 'move' | 'leg' | 'may'> & { survey: SurveyView; step: ReturnType<typeof stepIn>; again: () => void }) {
  const [filter, setFilter] = useState('');
  const [giving, setGiving] = useState(false);
  const zone = useMemo(() => Name.parse(`${move.domain}.`), [move.domain]);
  const rows = useMemo(() => rowsOf(survey, zone), [survey, zone]);
  const shown = rows.filter(({ text, meaning }) =>
    `${text.owner} ${text.type} ${text.data.join(' ')} ${meaning.purpose}`.toLowerCase().includes(filter.toLowerCase()),
  );
  const chosen = leg.newDnsHost !== null;
  return (
    <section>
      <StepNote step={step} move={move.id} may={may} />
      {['waiting', 'ready', 'due', 'doing'].includes(step.state) && !step.problem && (
        <p role="status" className="mb-2 border-l-4 border-accent bg-shade px-3 py-1.5">
          The survey is being taken again; below stands the one before.
        </p>
      )}
      <div className="mb-4 flex items-start justify-between gap-6 max-md:flex-col max-md:gap-3">
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
        <div className="flex shrink-0 flex-wrap gap-2">
          {may && !chosen && <Button onClick={() => setGiving(true)}>Give what you have</Button>}
          {may && !chosen && step.state !== 'failed' && <Button onClick={again}>Take it again</Button>}
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
      {survey.hints.length > 0 && <Hints survey={survey} move={move} may={may} />}
      <div className="mb-1 flex items-end justify-between gap-4 border-b border-ink">
        <h3 className="smallcaps">Record sets</h3>
        <Exports survey={survey} rows={rows} zone={zone} domain={move.domain} />
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
      <RecordSets rows={shown} domain={move.domain} />
      {giving && <InHandDialog move={move} onClose={() => setGiving(false)} />}
      {shown.length === 0 && <p className="py-4 text-faded">Nothing matches “{filter}”.</p>}
    </section>
  );
}

/** Signs of what was not seen, and what a person knows of them. */
function Hints({ survey, move, may }: Pick<ChapterProps, 'move' | 'may'> & { survey: SurveyView }) {
  const answer = useMoveAction<AnswerHint>(move.id, 'POST', () => '/hints');
  const { fail } = useToast();
  const open = survey.hints.filter((hint) => hint.answer === null).length;
  const say = (hint: HintView, said: HintView['answer']): void => answer.mutate({ owner: hint.owner, text: hint.text, answer: said }, { onError: fail });
  return (
    <div className="mb-4">
      <h3 className="smallcaps border-b border-ink">Hints of what was not seen · {open === 0 ? 'all answered' : `${open} open`}</h3>
      {survey.hints.map((hint) => (
        <div
          key={hint.owner + hint.text}
          className="grid grid-cols-[13rem_1fr_auto_1.5rem] items-baseline gap-3 border-b border-rule py-1 max-md:grid-cols-[8rem_1fr]"
        >
          <span className="mono font-semibold break-all">{ownerBelow(hint.owner, move.domain)}</span>
          <span className={hint.answer ? 'text-faded line-through' : ''}>{hint.text}</span>
          <span className="flex gap-1">
            {hint.answer && <span className="text-faded">{hint.answer}</span>}
            {may && hint.answer && (
              <Button kind="quiet" className="py-0" onClick={() => say(hint, null)}>
                Open it again
              </Button>
            )}
            {may &&
              !hint.answer &&
              HINT_ANSWERS.map((said) => (
                <Button key={said} kind="quiet" className="py-0" onClick={() => say(hint, said)}>
                  {said === 'not ours' ? 'Not ours' : 'Retired'}
                </Button>
              ))}
          </span>
          <Copy value={hint.owner} label={`the name ${hint.owner}`} />
        </div>
      ))}
    </div>
  );
}

/** The inventory to take along; what it claims of itself goes with it. */
function Exports({ survey, rows, zone, domain }: { survey: SurveyView; rows: readonly Row[]; zone: Name; domain: string }) {
  const sets: ExportedSet[] = rows.map(({ set, text, meaning }) => ({ set, evidence: text.evidence, purpose: meaning.purpose }));
  const forms = [
    ['zone file', `${domain}.zone`, 'text/dns', () => exportZoneFile(zone, sets, [`Inventory: ${survey.coverage.grade}.`, ...survey.coverage.reasons])],
    ['CSV', `${domain}.csv`, 'text/csv', () => exportCsv(sets)],
    ['JSON', `${domain}.json`, 'application/json', () => JSON.stringify(survey, null, 1)],
  ] as const;
  return (
    <span className="mb-1 ml-auto flex items-baseline gap-3 text-sm">
      <span className="text-faded">Save as</span>
      {forms.map(([title, file, type, make]) => (
        <button key={title} type="button" className="text-accent hover:underline" onClick={() => save(file, type, make())}>
          {title}
        </button>
      ))}
    </span>
  );
}

function save(file: string, type: string, text: string): void {
  const address = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement('a');
  link.href = address;
  link.download = file;
  link.click();
  URL.revokeObjectURL(address);
}

function RecordSets({ rows: sets, domain }: { rows: readonly Row[]; domain: string }) {
  const box = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: sets.length,
    getScrollElement: () => box.current,
    estimateSize: (index) => 10 + sets[index]!.text.data.length * 20,
    overscan: 12,
  });
  return (
    <div ref={box} className="max-h-[62vh] overflow-y-auto" tabIndex={0} role="table" aria-label="Record sets found">
      <div style={{ height: rows.getTotalSize(), position: 'relative' }}>
        {rows.getVirtualItems().map((item) => {
          const { text: set, meaning } = sets[item.index]!;
          return (
            <div
              key={item.key}
              ref={rows.measureElement}
              data-index={item.index}
              role="row"
              title={set.evidence}
              className="group absolute left-0 grid w-full grid-cols-[13rem_5rem_4.5rem_1fr_9rem_1.5rem] gap-3 border-b max-md:grid-cols-[9rem_4rem_3rem_1fr] border-rule py-1"
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
              <span role="cell" className="mono [overflow-wrap:anywhere]">
                {set.data.map((data) => (
                  <span key={data} className="block">
                    {data}
                  </span>
                ))}
              </span>
              <span role="cell" className="text-sm text-faded max-md:hidden" title={meaning.reason}>
                {meaning.purpose === 'unknown' ? '' : meaning.purpose}
              </span>
              <span role="cell" className="max-md:hidden opacity-0 group-hover:opacity-100 focus-within:opacity-100">
                <Copy value={set.data.join('\n')} label={`the value of ${set.owner} ${set.type}`} />
              </span>
            </div>
          );
        })}
      </div>
    </div>
  );
}
