import { RulingView } from '@wanderon/contract';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { useHosts, useMoveAction } from '../../api';
import { isTyping } from '../../shell/shell';
import { Button } from '../../ui/button';
import { inputLook } from '../../ui/field';
import { useToast } from '../../ui/toast';
import { ChapterProps, stepIn } from '../movePlace';
import { ownerBelow } from '../owner';
import { StepNote } from '../stepNote';
import { ChooseWay } from './chooseWay';
import { LEDGER_COLUMNS, LedgerRow } from './ledgerRow';
import { PushDialog } from './pushDialog';
import { RowEditor } from './rowEditor';

/** The ledger: found on the left, planned in the middle, served by the new host on the right, remarks in the margin. */
export function Rebuild({ move, leg, may }: ChapterProps) {
  const [choosing, setChoosing] = useState(false);
  const [editing, setEditing] = useState<RulingView | 'new'>();
  const [pushing, setPushing] = useState(false);
  const [at, setAt] = useState(0);
  const [filter, setFilter] = useState('');
  const [only, setOnly] = useState<'all' | 'changing' | 'remarks'>('all');
  const { fail, say } = useToast();
  const edit = useMoveAction<{ id: string; ruling: string }>(
    move.id,
    'PUT',
    ({ id }) => `/rulings/${id}`,
    ({ ruling }) => ({ ruling }),
  );
  const hosts = useHosts();
  const undo = useMoveAction<void>(move.id, 'POST', () => '/undo');
  const redo = useMoveAction<void>(move.id, 'POST', () => '/redo');
  const push = stepIn(leg, 'push');
  // Once the push is decided, what changes in the plan goes to the new host by itself; after the switch the plan stands.
  const fixed = leg.seen.ts !== null;
  const mayRule = may && !fixed && leg.chosen;
  const remarksOf = useMemo(() => {
    const map = new Map<string, typeof leg.remarks>();
    for (const remark of leg.remarks) map.set(`${remark.owner}/${remark.type}`, [...(map.get(`${remark.owner}/${remark.type}`) ?? []), remark]);
    return (ruling: RulingView) => map.get(`${ruling.owner}/${ruling.type}`) ?? [];
  }, [leg.remarks]);
  const rows = useMemo(
    () =>
      leg.rulings.filter(
        (ruling) =>
          `${ruling.owner} ${ruling.type} ${ruling.found?.data.join(' ') ?? ''} ${ruling.planned?.data.join(' ') ?? ''}`
            .toLowerCase()
            .includes(filter.toLowerCase()) &&
          (only === 'all' || (only === 'changing' ? ruling.ruling !== 'carry' : remarksOf(ruling).length > 0)),
      ),
    [leg.rulings, filter, only, remarksOf],
  );
  const box = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({ count: rows.length, getScrollElement: () => box.current, estimateSize: () => 34, overscan: 15 });
  const current = rows[Math.min(at, rows.length - 1)];

  useEffect(() => {
    const rule = (ruling: string): void => {
      if (current && mayRule) edit.mutate({ id: current.id, ruling }, { onError: fail });
    };
    const move = (by: number): void => {
      const next = Math.max(0, Math.min(rows.length - 1, at + by));
      setAt(next);
      virtual.scrollToIndex(next);
    };
    const press = (event: KeyboardEvent): void => {
      if (isTyping(event) || document.querySelector('[role=dialog]')) return;
      const keys: Record<string, () => void> = {
        j: () => move(1),
        ArrowDown: () => move(1),
        k: () => move(-1),
        ArrowUp: () => move(-1),
        c: () => rule('carry'),
        d: () => rule('drop'),
        r: () => mayRule && current && setEditing(current),
        Enter: () => mayRule && current && setEditing(current),
        n: () => mayRule && setEditing('new'),
        // The page may not know yet of what was decided a moment ago; the server does.
        u: () => mayRule && undo.mutate(undefined, { onError: fail }),
        U: () => mayRule && redo.mutate(undefined, { onError: fail }),
        y: () => current?.planned && void navigator.clipboard.writeText(current.planned.data.join('\n')).then(() => say('Copied.')),
      };
      const act = keys[event.key];
      if (!act || (event.key === 'Enter' && (event.target as HTMLElement).tagName === 'BUTTON')) return;
      event.preventDefault();
      act();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  });

  if (!leg.chosen || choosing) return <ChooseWay move={move} leg={leg} may={may} onDone={() => setChoosing(false)} cancel={leg.chosen} />;
  const inPlace = leg.kind === 'repoint';
  const { counts } = leg;
  const byHand = !inPlace && hosts.data?.find((one) => one.id === leg.newDnsHost)?.keyName === null;
  const reading = leg.rulings.length < leg.total;
  return (
    <section className="flex h-full flex-col max-md:h-[80vh]">
      <div className="mb-2 flex items-start justify-between gap-6">
        <div>
          <h2 className="text-[1.25rem] leading-tight">{inPlace ? inPlaceWords(leg) : servedWords(leg.served, leg.pushed)}</h2>
          <p className="text-faded">
            {inPlace ? `${counts.carry} stay` : `${counts.carry} carried`}, {counts.repoint} repointed, {counts.drop} dropped, {counts.new} new
            {counts.remarks > 0 && ` · ${counts.remarks} ${counts.remarks === 1 ? 'remark' : 'remarks'}`}
            {reading && ` · ${leg.rulings.length} of ${leg.total} rows are read`}
          </p>
        </div>
        {may && !fixed && (
          <div className="flex shrink-0 gap-2">
            {!leg.pushed && !leg.approved && <Button onClick={() => setChoosing(true)}>Another way</Button>}
            <Button onClick={() => setEditing('new')}>New record set</Button>
            <Button
              disabled={!leg.undoable}
              onClick={() => undo.mutate(undefined, { onError: fail })}
              title={leg.undoable ? `Undo ${leg.undoable}` : 'Nothing to undo'}
            >
              Undo
            </Button>
            <Button
              disabled={!leg.redoable}
              onClick={() => redo.mutate(undefined, { onError: fail })}
              title={leg.redoable ? `Do ${leg.redoable} again` : 'Nothing to do again'}
            >
              Redo
            </Button>
            {byHand && (
              <Link
                to={`/moves/${move.id}/sheet`}
                className="rounded-[3px] border border-accent bg-accent px-2.5 py-1 leading-tight text-on-accent hover:brightness-110"
              >
                Handover sheet
              </Link>
            )}
            {!leg.pushed && !inPlace && !byHand && (
              <Button
                kind="main"
                disabled={counts.stops > 0 || reading}
                title={counts.stops > 0 ? 'A remark stops the push' : undefined}
                onClick={() => setPushing(true)}
              >
                Push
              </Button>
            )}
          </div>
        )}
      </div>
      <StepNote step={push} move={move.id} may={may} />
      <StepNote step={stepIn(leg, 'served')} move={move.id} may={may} />
      {!inPlace && <Extras served={leg.served} domain={move.domain} />}
      <div className="flex flex-wrap items-center gap-3 pb-1">
        <input
          aria-label="Filter the ledger"
          placeholder="Filter"
          value={filter}
          onChange={(event) => setFilter(event.target.value)}
          className={`${inputLook} max-w-48 py-0.5`}
        />
        <div role="group" aria-label="Show" className="flex gap-3">
          {(['all', 'changing', 'remarks'] as const).map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={only === one}
              onClick={() => setOnly(one)}
              className={`cursor-pointer ${only === one ? 'font-semibold underline decoration-accent decoration-2 underline-offset-4' : 'text-faded hover:text-ink'}`}
            >
              {one === 'all' ? 'every row' : one === 'changing' ? 'what changes' : 'with remarks'}
            </button>
          ))}
        </div>
        {mayRule && <span className="ml-auto text-sm text-faded">c carry · r repoint · d drop · n new · u undo · U redo</span>}
      </div>
      <div className={`smallcaps grid ${LEDGER_COLUMNS} gap-3 border-b border-ink pr-3`}>
        <span>Ruling</span>
        <span>Name</span>
        <span>Found</span>
        <span>Planned</span>
        <span>Served</span>
        <span>Remarks</span>
      </div>
      <div ref={box} className="min-h-64 grow overflow-y-auto" tabIndex={0} role="region" aria-label="Ledger">
        <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map((item) => {
            const ruling = rows[item.index]!;
            return (
              <div
                key={ruling.id}
                ref={virtual.measureElement}
                data-index={item.index}
                className="absolute left-0 w-full"
                style={{ transform: `translateY(${item.start}px)` }}
              >
                <LedgerRow
                  ruling={ruling}
                  domain={move.domain}
                  served={leg.served}
                  remarks={remarksOf(ruling)}
                  inPlace={inPlace}
                  current={item.index === at}
                  onPoint={() => setAt(item.index)}
                  onEdit={mayRule ? () => setEditing(ruling) : undefined}
                />
              </div>
            );
          })}
        </div>
        {rows.length === 0 && <p className="py-6 text-center text-faded">No row is like that.</p>}
      </div>
      {editing && <RowEditor move={move} ruling={editing === 'new' ? undefined : editing} onClose={() => setEditing(undefined)} />}
      {pushing && <PushDialog move={move} leg={leg} onClose={() => setPushing(false)} />}
    </section>
  );
}

/** Where records change in place, what is served is old until the change, and that is as it should be. */
function inPlaceWords({ seen, gate, counts }: ChapterProps['leg']): string {
  if (seen.t0) return 'Every authority serves the new values';
  if (seen.ts !== null) return 'The records are being changed';
  const changing = counts.repoint + counts.new;
  return gate.open
    ? 'Ready to be changed where they are'
    : changing === 0
      ? 'Nothing changes yet: rule what is to'
      : 'What changes is planned, and nothing is changed yet';
}

function servedWords(served: ChapterProps['leg']['served'], pushed: boolean): string {
  if (!served) return pushed ? 'The new zone is being pushed' : 'The new zone is planned, not pushed yet';
  const good = served.servers.filter((server) => server.problem === null && server.differs.length === 0).length;
  return good === served.servers.length ? `All ${good} new servers serve the plan` : `${good} of ${served.servers.length} new servers serve the plan`;
}

/** What stands at the new host that the plan does not name: it is left alone, and said. */
function Extras({ served, domain }: { served: ChapterProps['leg']['served']; domain: string }) {
  const extras = new Map((served?.servers ?? []).flatMap((server) => server.extras.map((set) => [`${set.owner} ${set.type}`, set])));
  if (extras.size === 0) return null;
  const names = [...extras.values()].map((set) => `${ownerBelow(set.owner, domain)} ${set.type}`);
  return (
    <p className="my-2 border-l-4 border-rule bg-shade px-3 py-1.5">
      At the new host stands besides, and is left alone: <span className="mono">{names.slice(0, 6).join(', ')}</span>
      {names.length > 6 && ` and ${names.length - 6} more`}.
    </p>
  );
}
