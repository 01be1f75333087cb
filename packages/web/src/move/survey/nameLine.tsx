import { Name } from '@wanderon/core';
import { ReactNode } from 'react';
import { duration } from '../../time';
import { Copy } from '../../ui/copy';
import { HintCells } from './hintCells';
import { SetDetails } from './setDetails';
import { Line, SetRow, evidenceShort, evidenceWords } from './surveyRows';

const COLUMNS =
  'grid grid-cols-[minmax(9rem,15rem)_4.6rem_4rem_minmax(0,1fr)_7.5rem_8.5rem_1.4rem] gap-x-3 max-md:grid-cols-[minmax(6rem,9rem)_3.6rem_minmax(0,1fr)]';

interface Props {
  readonly line: Line;
  /** Undefined where the survey is of no move: then nothing can be said of it. */
  readonly move: string | undefined;
  readonly may: boolean;
  readonly current: boolean;
  readonly open: boolean;
  readonly closed: boolean;
  readonly onPoint: () => void;
  readonly onOpen: () => void;
  readonly onFold: (name: Name) => void;
}

export function NameLine({ line, move, may, current, open, closed, onPoint, onOpen, onFold }: Props) {
  if (line.kind === 'section')
    return (
      <div role="row" className="border-b border-rule pt-2.5 pb-0.5">
        <span role="gridcell" className="flex items-baseline gap-2 font-semibold">
          {line.title} <span className="text-sm font-normal text-faded">{line.count}</span>
        </span>
      </div>
    );
  const name = line.kind === 'item' ? line.item.name : line.name;
  const label = <NameLabel label={line.label} full={name.toString()} depth={line.depth} below={line.below} closed={closed} onFold={() => onFold(name)} />;
  const look = `border-b border-rule py-1 ${current ? 'bg-shade shadow-[inset_3px_0_0_var(--accent)]' : 'hover:bg-sheet'}`;
  if (line.kind === 'name')
    return (
      <div role="row" className={`${COLUMNS} ${look}`} onClick={onPoint}>
        {label}
        <span role="gridcell" className="col-span-6 text-faded max-md:col-span-2">
          {line.below === 1 ? 'one below' : `${line.below} below`}
        </span>
      </div>
    );
  return (
    <div role="row" aria-expanded={line.item.kind === 'set' ? open : undefined} aria-current={current || undefined} className={look} onClick={onPoint}>
      {line.item.kind === 'hint' ? (
        <HintCells row={line.item} columns={COLUMNS} label={label} move={move} may={may} />
      ) : (
        <>
          <SetCells row={line.item} label={label} open={open} onOpen={onOpen} />
          {open && <SetDetails row={line.item} move={move} may={may} />}
        </>
      )}
    </div>
  );
}

function NameLabel({
  label,
  full,
  depth,
  below,
  closed,
  onFold,
}: {
  label: string;
  full: string;
  depth: number;
  below: number;
  closed: boolean;
  onFold: () => void;
}) {
  return (
    <span role="gridcell" className="mono min-w-0 font-semibold [overflow-wrap:anywhere]" style={{ paddingLeft: `${0.2 + depth * 1.1}rem` }} title={full}>
      {label}
      {below > 0 && (
        <button
          type="button"
          aria-expanded={!closed}
          aria-label={`${closed ? 'Show' : 'Hide'} the names below ${label}`}
          className="ml-1.5 cursor-pointer rounded-[3px] border border-rule px-1 text-[0.8rem] leading-tight font-normal text-faded hover:text-accent"
          onClick={onFold}
        >
          {closed ? `+${below}` : '−'}
        </button>
      )}
    </span>
  );
}

function SetCells({ row, label, open, onOpen }: { row: SetRow; label: ReactNode; open: boolean; onOpen: () => void }) {
  const { text, meaning, conflicts, ends } = row;
  const leads = ends.filter((end) => end.addresses.length > 0);
  return (
    <div className={COLUMNS} onDoubleClick={onOpen}>
      {label}
      <span role="gridcell" className="mono">
        {text.type}
      </span>
      <span role="gridcell" className="text-faded max-md:hidden" title={`TTL ${text.ttl} s`}>
        {duration(text.ttl)}
      </span>
      <span role="gridcell" className="min-w-0">
        {text.data.map((data) => (
          <span key={data} className={`mono block [overflow-wrap:anywhere] ${text.fronted !== null ? 'text-faded' : ''}`}>
            {data}
          </span>
        ))}
        {text.fronted !== null && (
          <span className="block text-sm">
            {text.stored ? (
              <>
                stored: <span className="mono">{text.stored.join(', ')}</span>
              </>
            ) : (
              <b className="font-semibold text-rust">answered by the host: what is stored is not known</b>
            )}
          </span>
        )}
        {text.fronted === null && text.varying !== null && <span className="block text-sm text-rust">varies: {text.varying}</span>}
        {leads.length > 0 && (
          <span className="block text-sm text-faded">ends at {[...new Set(leads.flatMap((end) => end.addresses))].slice(0, 4).join(', ')}</span>
        )}
        {ends.length > leads.length && (
          <span className="block text-sm text-rust">{ends.find((end) => end.addresses.length === 0)!.target.replace(/\.$/, '')} has no address</span>
        )}
      </span>
      <span role="gridcell" className="text-sm leading-snug max-md:hidden" title={text.evidence.map(evidenceWords).join('\n')}>
        <button type="button" aria-expanded={open} className="cursor-pointer text-left text-faded hover:text-accent hover:underline" onClick={onOpen}>
          {evidenceShort(text.evidence) || 'see how'}
        </button>
        {conflicts.length > 0 && (
          <b className="block font-semibold text-rust">
            {conflicts.length} {conflicts.length === 1 ? 'says' : 'say'} otherwise
          </b>
        )}
      </span>
      <span role="gridcell" className="text-sm leading-snug text-faded max-md:hidden" title={meaning.reason}>
        {meaning.purpose === 'unknown' ? '' : meaning.purpose}
        {row.corrected && '*'}
      </span>
      <span role="gridcell" className="max-md:hidden">
        <Copy value={text.data.join('\n')} label={`the value of ${text.owner} ${text.type}`} />
      </span>
    </div>
  );
}
