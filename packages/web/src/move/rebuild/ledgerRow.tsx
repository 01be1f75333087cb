import { LedgerView, RulingView } from '@wanderon/contract';
import { compareText, Piece } from '@wanderon/core';
import { duration } from '../../time';
import { RecordText } from '../../ui/recordText';
import { VerdictMark } from '../../ui/verdictMark';
import { ownerBelow } from '../owner';

export const LEDGER_COLUMNS = 'grid-cols-[4.2rem_minmax(7rem,11rem)_minmax(0,1fr)_minmax(0,1fr)_4.4rem_minmax(0,13rem)]';

export function LedgerRow({
  ruling,
  domain,
  served,
  remarks,
  inPlace = false,
  current,
  onPoint,
  onEdit,
}: {
  ruling: RulingView;
  domain: string;
  served: LedgerView['served'];
  remarks: LedgerView['remarks'];
  /** The zone stays: a row that is dropped is deleted, one that is carried is not ours to judge. */
  inPlace?: boolean;
  current: boolean;
  onPoint: () => void;
  onEdit: (() => void) | undefined;
}) {
  const [found, planned] = sides(ruling);
  const slips = inPlace ? [] : slipsAt(served, ruling);
  return (
    <div
      onClick={onPoint}
      onDoubleClick={onEdit}
      aria-current={current || undefined}
      className={`grid ${LEDGER_COLUMNS} gap-3 border-b border-rule py-1 pr-3 ${current ? 'bg-shade shadow-[inset_3px_0_0_var(--accent)]' : 'hover:bg-sheet'}`}
    >
      <span
        className={`pl-2 ${ruling.ruling === 'carry' ? 'text-faded' : ruling.ruling === 'drop' ? 'text-faded italic' : 'font-semibold text-accent'}`}
        title={`${ruling.reason}${ruling.decidedBy ? ` (${ruling.decidedBy})` : ''}`}
      >
        {ruling.ruling}
      </span>
      <span className="mono break-all">
        <b className="font-semibold">{ownerBelow(ruling.owner, domain)}</b> <span className="text-faded">{ruling.type}</span>
      </span>
      <Side pieces={found} ttl={ruling.found?.ttl} faded={ruling.ruling === 'drop'} />
      <Side
        pieces={planned}
        ttl={ruling.planned?.ttl}
        same={ruling.ruling === 'carry'}
        {...(ruling.ruling === 'drop' ? { none: inPlace ? 'deleted' : 'not rebuilt' } : {})}
      />
      <Served ruling={ruling} served={inPlace && ruling.ruling === 'carry' ? null : served} />
      <span className="text-sm leading-snug">
        {remarks.map((remark) => (
          <span key={remark.code + remark.text} className={`block ${remark.weight === 'stop' ? 'font-semibold text-rust' : ''}`}>
            {remark.weight === 'stop' && 'Stop: '}
            {remark.text}
          </span>
        ))}
        {slips.map((slip) => (
          <span key={slip} className="block text-rust">
            {slip}
          </span>
        ))}
        {remarks.length + slips.length === 0 && ruling.ruling !== 'carry' && <span className="text-faded">{ruling.reason}</span>}
      </span>
    </div>
  );
}

function Side({
  pieces,
  ttl,
  faded = false,
  same = false,
  none = '',
}: {
  pieces: readonly Piece[][];
  ttl: number | undefined;
  faded?: boolean;
  same?: boolean;
  none?: string;
}) {
  if (pieces.length === 0) return <span className="text-faded italic">{none}</span>;
  return (
    <span className={`min-w-0 ${faded || same ? 'text-faded' : ''}`}>
      {pieces.slice(0, 6).map((one, index) => (
        <span key={index} className="line-clamp-3 leading-snug">
          <RecordText pieces={one} />
          {index === 0 && ttl !== undefined && (
            <span className="ml-1.5 text-[0.8rem] whitespace-nowrap text-faded" title={`TTL ${ttl} s`}>
              {duration(ttl)}
            </span>
          )}
        </span>
      ))}
      {pieces.length > 6 && <span className="text-faded">and {pieces.length - 6} more</span>}
    </span>
  );
}

/** Slips that explain why servers do not answer the row as planned, each once. */
export function slipsAt(served: LedgerView['served'], row: { owner: string; type: string }): string[] {
  const differs = served?.servers.flatMap((server) => server.differs.filter((set) => set.owner === row.owner && set.type === row.type)) ?? [];
  return [...new Set(differs.flatMap((set) => set.slip ?? []))];
}

/** How many new servers serve this row as planned. */
function Served({ ruling, served }: { ruling: RulingView; served: LedgerView['served'] }) {
  if (!served || !ruling.planned) return <span className="text-faded">{ruling.planned ? '—' : ''}</span>;
  const good = served.servers.filter(
    (server) => server.problem === null && !server.differs.some((set) => set.owner === ruling.owner && set.type === ruling.type),
  ).length;
  const all = served.servers.length;
  const title = served.servers
    .map(
      (server) =>
        `${server.server} ${server.problem ?? (server.differs.some((set) => set.owner === ruling.owner && set.type === ruling.type) ? 'differs' : 'as planned')}`,
    )
    .join('\n');
  return (
    <span title={title} className="inline-flex items-center gap-1.5 self-start whitespace-nowrap">
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
