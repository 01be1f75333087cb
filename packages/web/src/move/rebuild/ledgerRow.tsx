import { LedgerView, RulingView } from '@wanderon/contract';
import { compareText, Outside, Piece, policyWords, RULING_LABELS } from '@wanderon/core';
import { ReactNode, memo } from 'react';
import { FIX_KEYS, Mending, RemarkNote, fixesOf } from './remarkNote';
import { duration } from '../../time';
import { RecordText, ShortText } from '../../ui/recordText';
import { VerdictMark } from '../../ui/verdictMark';
import { ownerBelow } from '../owner';

export const LEDGER_COLUMNS = 'grid-cols-[4.4rem_minmax(7rem,13rem)_minmax(0,1fr)_minmax(0,1fr)_4rem_minmax(0,15rem)]';

interface Props {
  readonly ruling: RulingView;
  readonly domain: string;
  readonly served: LedgerView['served'];
  /** What stood outside of the zone when it was surveyed. */
  readonly outside: Outside | null;
  readonly remarks: LedgerView['remarks'];
  readonly mending?: Mending | undefined;
  /** The zone stays: a row that is left out is deleted, one that is kept is not ours to judge. */
  readonly inPlace?: boolean;
  readonly current: boolean;
  readonly marked: boolean;
  /** Who else stands on it. */
  readonly others: readonly string[] | undefined;
  readonly onPoint: (id: string) => void;
  readonly onEdit: ((ruling: RulingView) => void) | undefined;
  /** What lies behind it, below everything else that is shown of the row under the cursor. */
  readonly story?: ReactNode;
}

/** One record set on one line; the row under the cursor whole. Drawn anew only where anything of it is otherwise: a key changes two of sixty. */
export const LedgerRow = memo(function LedgerRow(props: Props) {
  const { ruling, current, marked, others, onPoint, onEdit } = props;
  return (
    <div
      onClick={() => onPoint(ruling.id)}
      onDoubleClick={onEdit && (() => onEdit(ruling))}
      data-row
      aria-current={current || undefined}
      className={`relative grid ${LEDGER_COLUMNS} items-baseline gap-x-3 border-b border-rule pr-3 leading-[1.35rem] ${current ? 'bg-shade py-1 shadow-[inset_3px_0_0_var(--accent)]' : 'hover:bg-sheet'}`}
    >
      <span className={`truncate pl-2 ${RULING_LOOKS[ruling.ruling]}`} title={whyOf(ruling)}>
        {marked && <span aria-label="marked">● </span>}
        {RULING_LABELS[ruling.ruling]}
      </span>
      {others && (
        <span
          title={`${others.join(', ')} ${others.length === 1 ? 'is' : 'are'} here`}
          className="absolute top-0 right-0 max-w-48 truncate border border-ink bg-sheet px-1.5 text-sm leading-[1.2rem]"
        >
          {others.join(', ')}
        </span>
      )}
      {current ? <Whole {...props} /> : <Folded {...props} />}
    </div>
  );
});

const RULING_LOOKS: Readonly<Record<RulingView['ruling'], string>> = {
  carry: 'text-faded',
  drop: 'text-faded italic',
  repoint: 'font-semibold text-accent',
  new: 'font-semibold text-accent',
};

function whyOf({ reason, decidedBy }: RulingView): string {
  return `${reason}${decidedBy ? ` (${decidedBy})` : ''}`;
}

/** What is the same before and after is said once, over both columns. */
function Folded({ ruling, domain, served, remarks, inPlace = false }: Props) {
  const [found, planned] = sides(ruling);
  const slips = inPlace ? [] : slipsAt(served, ruling, false);
  const owner = ownerBelow(ruling.owner, domain);
  const same = ruling.ruling === 'carry';
  const open = remarks.filter((one) => one.waived === null);
  const notes = [...open.map((one) => one.text), ...slips];
  const stop = open.some((one) => one.weight === 'stop') || slips.length > 0;
  return (
    <>
      <span className="mono flex min-w-0 gap-2 whitespace-pre" title={`${owner} ${ruling.type}`}>
        <b className="truncate font-semibold">{owner}</b>
        <span className="shrink-0 text-faded">{ruling.type}</span>
      </span>
      <Line pieces={found} faded={ruling.ruling !== 'repoint'} className={same ? 'col-span-2' : ''} note={same ? frontingNote(ruling) : undefined} />
      {!same && <Line pieces={planned} none={ruling.ruling === 'drop' ? (inPlace ? 'deleted' : 'not rebuilt') : ''} note={frontingNote(ruling)} />}
      <Served ruling={ruling} served={inPlace && same ? null : served} />
      <span className={`truncate text-sm leading-[1.35rem] ${stop ? 'font-semibold text-rust' : ''}`} title={notes.join('\n')}>
        {notes.length > 1 && `${notes.length}: `}
        {notes[0] ?? ''}
      </span>
    </>
  );
}

function Line({
  pieces,
  faded = false,
  none = '',
  note,
  className = '',
}: {
  pieces: readonly Piece[][];
  faded?: boolean;
  none?: string;
  note?: string | undefined;
  className?: string;
}) {
  if (pieces.length === 0) return <span className={`text-faded italic ${className}`}>{none}</span>;
  return (
    <span className={`flex min-w-0 gap-2 ${faded ? 'text-faded' : ''} ${className}`}>
      <ShortText pieces={pieces[0]!} />
      {pieces.length > 1 && <span className="shrink-0 text-sm text-faded">+{pieces.length - 1}</span>}
      {note && <span className="shrink-0 text-sm text-accent">{note}</span>}
    </span>
  );
}

/** The row under the cursor: every value and TTL, what it rests on, what is said of it, and what each server answers. */
function Whole({ ruling, domain, served, outside, remarks, mending, inPlace = false, story }: Props) {
  const fixes = fixesOf(remarks);
  const policies = policyWords(ruling.planned ?? ruling.found!, outside);
  const [found, planned] = sides(ruling);
  const slips = inPlace ? [] : slipsAt(served, ruling, false);
  const same = ruling.ruling === 'carry';
  return (
    <>
      <span className="min-w-0">
        <span className="mono block [overflow-wrap:anywhere]">
          <b className="font-semibold">{ownerBelow(ruling.owner, domain)}</b> <span className="text-faded">{ruling.type}</span>
        </span>
        <span className="block text-sm leading-snug text-faded">{whyOf(ruling)}</span>
      </span>
      <Values pieces={found} ttl={ruling.found?.ttl} className={same ? 'col-span-2' : ''} note={same ? frontingNote(ruling) : undefined} />
      {!same && (
        <Values
          pieces={planned}
          ttl={ruling.planned?.ttl}
          none={ruling.ruling === 'drop' ? (inPlace ? 'deleted' : 'not rebuilt') : ''}
          note={frontingNote(ruling)}
        />
      )}
      <Served ruling={ruling} served={inPlace && same ? null : served} />
      <span />
      <span className="col-span-4 col-start-3 text-sm leading-snug">
        {remarks.map((remark) => (
          <RemarkNote
            key={remark.code + remark.fact}
            remark={remark}
            keys={remark.fixes.map((fix) => FIX_KEYS[fixes.findIndex((one) => one.fix === fix)] ?? '')}
            domain={domain}
            mending={mending}
          />
        ))}
        {policies.map((words) => (
          <span key={words} className="block text-faded">
            {words}
          </span>
        ))}
        {slips.map((slip) => (
          <span key={slip} className="block text-rust">
            {slip}
          </span>
        ))}
        {inPlace && same ? null : <Otherwise ruling={ruling} served={served} />}
        {story}
      </span>
    </>
  );
}

/** Values of the whole row that are shown; a set of more is looked at in the editor. */
const SHOWN = 12;

function Values({
  pieces,
  ttl,
  none = '',
  note,
  className = '',
}: {
  pieces: readonly Piece[][];
  ttl: number | undefined;
  none?: string;
  note?: string | undefined;
  className?: string;
}): ReactNode {
  if (pieces.length === 0) return <span className={`text-faded italic ${className}`}>{none}</span>;
  return (
    <span className={`min-w-0 ${className}`}>
      {pieces.slice(0, SHOWN).map((one, index) => (
        <span key={index} className="block">
          <RecordText pieces={one} />
        </span>
      ))}
      {pieces.length > SHOWN && <span className="block text-faded">and {pieces.length - SHOWN} more</span>}
      <span className="block text-sm text-faded">
        {ttl !== undefined && <span title={`${ttl} s`}>TTL {duration(ttl)}</span>}
        {note && <span className="text-accent"> · {note}</span>}
      </span>
    </span>
  );
}

/** What servers answer in its place. */
function Otherwise({ ruling, served }: { ruling: RulingView; served: LedgerView['served'] }) {
  const answers = new Map<string, string[]>();
  for (const { server, differs } of served?.servers ?? []) {
    const set = differs.find((one) => one.owner === ruling.owner && one.type === ruling.type);
    if (!set) continue;
    const words = set.data.join(', ') || 'nothing';
    answers.set(words, [...(answers.get(words) ?? []), server.replace(/\.$/, '')]);
  }
  return [...answers].map(([words, servers]) => (
    <span key={words} className="block text-faded">
      {servers.join(', ')}: <span className="mono [overflow-wrap:anywhere]">{words}</span>
    </span>
  ));
}

const FRONTING_NOTES = { off: undefined, later: 'answered by the host once verified', on: 'answered by the host' } as const;

function frontingNote({ fronting }: RulingView): string | undefined {
  return fronting === null ? undefined : FRONTING_NOTES[fronting];
}

/** Slips that explain a row; that it is not there at all is one only where somebody says that it was typed. */
export function slipsAt(served: LedgerView['served'], row: { owner: string; type: string }, typed: boolean): string[] {
  const differs =
    served?.servers.flatMap((server) => server.differs.filter((set) => set.owner === row.owner && set.type === row.type && (typed || !set.forgotten))) ?? [];
  return [...new Set(differs.flatMap((set) => set.slip ?? []))];
}

/** True where some server does not answer the row as planned, or none was asked. */
export function isUnserved(ruling: RulingView, served: LedgerView['served']): boolean {
  if (!served || !ruling.planned) return false;
  return served.servers.some((server) => server.problem !== null || server.differs.some((set) => set.owner === ruling.owner && set.type === ruling.type));
}

/** How many new servers serve this row as planned. */
function Served({ ruling, served }: { ruling: RulingView; served: LedgerView['served'] }) {
  if (!served || !ruling.planned) return <span className="text-faded">{ruling.planned ? '—' : ''}</span>;
  const differs = (server: (typeof served.servers)[number]): boolean => server.differs.some((set) => set.owner === ruling.owner && set.type === ruling.type);
  const good = served.servers.filter((server) => server.problem === null && !differs(server)).length;
  const all = served.servers.length;
  const title = served.servers.map((server) => `${server.server} ${server.problem ?? (differs(server) ? 'differs' : 'as planned')}`).join('\n');
  return (
    <span title={title} className="inline-flex items-baseline gap-1.5 whitespace-nowrap">
      <VerdictMark verdict={good === all ? 'new' : good === 0 ? 'none' : 'mixed'} size={12} /> {good} of {all}
    </span>
  );
}

/** Both sides with what differs marked; the n-th value is compared with the n-th. */
function sides(ruling: RulingView): [Piece[][], Piece[][]] {
  const plain = (text: string): Piece[] => [{ text, changed: false }];
  const found = ruling.found?.data ?? [];
  const planned = ruling.planned?.data ?? [];
  if (ruling.ruling !== 'repoint') return [found.map(plain), planned.map(plain)];
  const pairs = Array.from({ length: Math.max(found.length, planned.length) }, (_, index) => compareText(found[index] ?? '', planned[index] ?? ''));
  return [pairs.map(([left]) => left).filter((pieces) => pieces.length > 0), pairs.map(([, right]) => right).filter((pieces) => pieces.length > 0)];
}
