import {
  Fronting,
  Grouping,
  LedgerRow,
  Name,
  RowDecision,
  RulingEdit,
  editRows,
  isHostsOwn,
  ledgerFilter,
  ledgerGroups,
  namedGroups,
  rebuildsZone,
  rowSeen,
} from '@wanderon/core';
import { Acted, EditRulings, MendInput, RemarkView, RulingView } from '@wanderon/contract';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import { actsOn, useMoveAction } from '../../api';
import { isShown } from '../../readAnew';
import { isTyping } from '../../shell/shell';
import { unsent } from '../../unsent';
import { Button } from '../../ui/button';
import { useCopying } from '../../ui/copy';
import { inputLook } from '../../ui/field';
import { useToast } from '../../ui/toast';
import { usePrinting } from '../../ui/usePrinting';
import { AskedNote } from '../asked/askedNote';
import { GivenNames } from '../givenNames';
import { asRuling } from '../asRuling';
import { ChapterProps, stepIn } from '../movePlace';
import { StepNote } from '../stepNote';
import { ChooseWay } from './chooseWay';
import { Ledger, LedgerItem } from './ledger';
import { isUnserved } from './ledgerRow';
import { Extras, inPlaceWords, servedWords } from './ledgerWords';
import { ManyEditor } from './manyEditor';
import { usePendingRows } from './pendingRows';
import { PlanExports } from './planExports';
import { PrintedLedger } from './printedLedger';
import { PushDialog } from './pushDialog';
import { RuleDialog } from './ruleDialog';
import { RuleOffers } from './ruleOffers';
import { LetBeDialog, Mending, fixesOf, said, useLetBe } from './remarkNote';
import { RowEditor } from './rowEditor';
import { useCursors } from './useCursors';
import { RowStory } from './rowStory';

const ONLY = ['all', 'changing', 'remarks', 'unserved'] as const;
type Only = (typeof ONLY)[number];
const ONLY_WORDS: Readonly<Record<Only, string>> = { all: 'every row', changing: 'what changes', remarks: 'with remarks', unserved: 'not served yet' };
/** Rows by which a page key moves on. */
const PAGE = 20;

function shows(only: Only, row: RulingView, remarks: number, served: ChapterProps['leg']['served']): boolean {
  if (only === 'changing') return row.ruling !== 'carry';
  if (only === 'remarks') return remarks > 0;
  return only === 'all' || isUnserved(row, served);
}

function asLedgerRow(row: RulingView): LedgerRow {
  return { ...asRuling(row), id: row.id, decidedBy: row.decidedBy };
}

/** A row as it is on the screen: what somebody else makes of it meanwhile is not overwritten unseen. */
function seenOf(row: RulingView): string {
  return rowSeen(asRuling(row));
}

/** Remarks by the row that they are about. */
function byRow(rows: readonly RulingView[], remarks: ChapterProps['leg']['remarks']): (row: RulingView) => ChapterProps['leg']['remarks'] {
  const of = new Map<string, ChapterProps['leg']['remarks']>();
  for (const remark of remarks) {
    const at = of.get(`${remark.owner}/${remark.type}`);
    if (at) at.push(remark);
    else of.set(`${remark.owner}/${remark.type}`, [remark]);
  }
  // By the row's id from then on: a name is not put together again for each of thousands of rows at each key.
  const ids = new Map(of.size === 0 ? [] : rows.map((row) => [row.id, of.get(`${row.owner}/${row.type}`)]));
  return (row) => ids.get(row.id) ?? NONE;
}
const NONE: ChapterProps['leg']['remarks'] = [];

function asDecided({ id, row }: NonNullable<Acted['rows']>[number]): { readonly id: string; readonly row: RowDecision } {
  return { id, row: row && { ...row, found: row.found ?? undefined, planned: row.planned ?? undefined } };
}
const noBody = (): object => ({});

/** What one key makes of it. */
const NEXT_FRONTING: Readonly<Record<Fronting, Fronting>> = { off: 'later', later: 'on', on: 'off' };

/** The ledger: found on the left, planned in the middle, served by the new host on the right, remarks in the margin. */
export function Rebuild({ move, leg, me, may, now }: ChapterProps) {
  const { asShown, hold } = usePendingRows(me.name);
  const printing = usePrinting();
  const [choosing, setChoosing] = useState(false);
  const [editing, setEditing] = useState<RulingView | 'new'>();
  const [pushing, setPushing] = useState(false);
  const [at, setAt] = useState<string>();
  const [writing, setWriting] = useState<string>();
  const [filter, setFilter] = useState('');
  const [only, setOnly] = useState<Only>('all');
  /** Groups that were folded, or unfolded, by hand. */
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const [many, setMany] = useState(false);
  const [byRule, setByRule] = useState(false);
  const [by, setBy] = useState<Grouping>('purpose');
  const regroup = (): void => setBy(by === 'name' ? 'purpose' : 'name');
  const [turned, setTurned] = useState<ReadonlySet<string>>(new Set());
  const { fail, say } = useToast();
  const copying = useCopying();
  const edit = useMoveAction<{ id: string; ruling: string; seen: string }>(
    move.id,
    'PUT',
    ({ id }) => `/rulings/${id}`,
    ({ ruling, seen }) => ({ ruling, seen }),
  );
  const queries = useQueryClient();
  const releases = useRef<(() => void)[]>([]);
  /** Rows as an undo left them, at once; not where more was done since, which is shown already. */
  const showAnswer = ({ rows: now }: Acted): void => {
    if (now) isShown(move.id);
    if (now && unsent.waiting(move.id) === 0) releases.current.push(hold(now.map(asDecided)));
  };
  const undo = useMoveAction<void>(move.id, 'POST', () => '/undo', noBody, undefined, showAnswer);
  const editMany = useMoveAction<EditRulings>(move.id, 'PUT', () => '/rulings');
  const front = useMoveAction<{ owner: string; state: Fronting }>(move.id, 'POST', () => '/fronting');
  const mend = useMoveAction<MendInput>(move.id, 'POST', () => '/mend');
  const letBe = useLetBe(move.id);
  const [letting, setLetting] = useState<RemarkView>();
  const redo = useMoveAction<void>(move.id, 'POST', () => '/redo', noBody, undefined, showAnswer);
  const push = stepIn(leg, 'push');
  // Once the push is decided, what changes in the plan goes to the new host by itself; after the switch the plan stands.
  const fixed = leg.seen.ts !== null;
  const mayRule = may && !fixed && leg.chosen;
  /** A rule is about every row: all of them have to be read. */
  const mayRuleAll = mayRule && leg.rulings.length >= leg.total;
  const mayPush =
    mayRule &&
    stepIn(leg, 'named')?.state !== 'ready' &&
    !leg.pushed &&
    leg.kind !== 'repoint' &&
    !leg.byHand &&
    leg.counts.stops === 0 &&
    leg.rulings.length >= leg.total;
  const { all: remarksOf, open: openOf } = useMemo(() => {
    const all = byRow(leg.rulings, leg.remarks);
    const open = byRow(
      leg.rulings,
      leg.remarks.filter((remark) => remark.waived === null),
    );
    return { all, open };
  }, [leg.rulings, leg.remarks]);
  const zone = useMemo(() => Name.parse(`${move.domain}.`), [move.domain]);
  const groups = useMemo(
    () => (by === 'name' ? namedGroups(zone, leg.rulings) : ledgerGroups(zone, leg.rulings, leg.purposes)),
    [by, zone, leg.rulings, leg.purposes],
  );
  const asRows = useMemo(() => leg.rulings.map(asLedgerRow), [leg.rulings]);
  const items = useMemo(() => {
    const isLike = ledgerFilter(filter);
    const narrowed = filter !== '' || only !== 'all';
    return groups.flatMap((group): LedgerItem[] => {
      const rows = group.rows.flatMap((one) => {
        const row = asShown(one);
        return row && isLike(row) && shows(only, row, openOf(row).length, leg.served) ? [row] : [];
      });
      if (rows.length === 0) return [];
      // What is looked for is shown, folded or not.
      const folded = !narrowed && turned.has(group.title) !== group.hostsOwn;
      return [{ kind: 'group', group: { ...group, rows }, folded }, ...(folded ? [] : rows.map((ruling): LedgerItem => ({ kind: 'row', ruling })))];
    });
  }, [groups, filter, only, openOf, asShown, leg.served, turned]);
  const rows = useMemo(() => items.flatMap((item) => (item.kind === 'row' ? [item.ruling] : [])), [items]);
  const place = Math.max(
    0,
    rows.findIndex((row) => row.id === at),
  );
  const current = rows[place];
  const others = useCursors(leg.id, current?.id, mayRule);
  /** Marked rows that are still there. */
  const marks = useMemo(() => leg.rulings.filter((row) => marked.has(row.id)), [leg.rulings, marked]);
  const mark = (ids: readonly string[]): void => {
    const next = new Set(marked);
    // All of them are marked already: the marks go.
    const all = ids.every((one) => next.has(one));
    for (const one of ids)
      if (all) next.delete(one);
      else next.add(one);
    setMarked(next);
  };
  /** Rows as they will be, at once; nothing where core would not have them so, which the server says in words. */
  const shown = (changed: readonly RulingView[], change: RulingEdit): (() => void) => {
    const result = editRows(zone, changed.map(asLedgerRow), change);
    return hold(result.ok ? result.rows : []);
  };
  const ruleAll = async (all: EditRulings): Promise<void> => {
    const { rows: ids, ruling, data } = all;
    const change = { ruling, ...(data === undefined ? {} : { data }) };
    const release = shown(marks, change);
    try {
      await editMany.mutateAsync(all);
      say(`${ids.length} ${ids.length === 1 ? 'row is' : 'rows are'} ruled; u takes all of it back.`);
      setMarked(new Set());
      setMany(false);
    } catch (error) {
      fail(error);
    } finally {
      release();
    }
  };
  const ruleMany = (ruling: EditRulings['ruling'], data?: string): void =>
    void ruleAll({ rows: marks.map((row) => row.id), seen: marks.map(seenOf), ruling, ...(data === undefined ? {} : { data }) });
  const mending: Mending | undefined = mayRule
    ? {
        mend: ({ owner, type, code }, fix) =>
          mend.mutate({ owner, type, code, fix: fix.key }, { onError: fail, onSuccess: () => say(`${fix.text} u takes it back.`) }),
        letBe: (remark) => (remark.waived === null ? setLetting(remark) : letBe.mutate(said(remark, null), { onError: fail })),
      }
    : undefined;
  /** What is on the screen stays until the last of several acts is read back, whichever it is. */
  const readBack = useCallback((): void => {
    if (queries.isMutating({ mutationKey: actsOn(move.id) }) === 0) for (const one of releases.current.splice(0)) one();
  }, [queries, move.id]);
  useEffect(() => queries.getMutationCache().subscribe(readBack), [queries, readBack]);
  const takeBack = (act: typeof undo): void => void act.mutateAsync().catch(fail).finally(readBack);
  const turn = useCallback(
    (group: string): void =>
      setTurned((before) => {
        const next = new Set(before);
        if (!next.delete(group)) next.add(group);
        return next;
      }),
    [],
  );

  useEffect(() => {
    const step = (by: number): void => {
      setAt(rows[Math.max(0, Math.min(rows.length - 1, place + by))]?.id);
    };
    /** One key a row: the cursor goes on to the next one. */
    const rule = (ruling: 'carry' | 'drop'): void => {
      if (!mayRule) return;
      if (marks.length > 0) return ruleMany(ruling);
      if (!current) return;
      const release = shown([current], { ruling });
      isShown(move.id);
      void edit
        .mutateAsync({ id: current.id, ruling, seen: seenOf(current) })
        .catch(fail)
        .finally(() => {
          releases.current.push(release);
          readBack();
        });
      step(1);
    };
    const fixAt = (index: number): void => {
      const fixed = current && fixesOf(remarksOf(current))[index];
      if (fixed) mending?.mend(fixed.remark, fixed.fix);
    };
    /** To the next row that somebody has to look at, from the other end after the last one. */
    const toRemark = (by: 1 | -1): void => {
      const next = rows.map((_, step) => rows[(place + by * (step + 1) + 2 * rows.length) % rows.length]!).find((row) => openOf(row).length > 0);
      setAt(next?.id ?? at);
    };
    const press = (event: KeyboardEvent): void => {
      if (isTyping(event) || document.querySelector('[role=dialog]')) return;
      const keys: Record<string, () => void> = {
        j: () => step(1),
        ArrowDown: () => step(1),
        k: () => step(-1),
        ArrowUp: () => step(-1),
        PageDown: () => step(PAGE),
        PageUp: () => step(-PAGE),
        Home: () => step(-rows.length),
        End: () => step(rows.length),
        c: () => rule('carry'),
        d: () => rule('drop'),
        R: () => mayRuleAll && setByRule(true),
        r: () => mayRule && (marks.length > 0 ? setMany(true) : current && setEditing(current)),
        x: () => {
          if (!mayRule || !current) return;
          mark([current.id]);
          step(1);
        },
        X: () => mayRule && mark(rows.filter((row) => !isHostsOwn(row)).map((row) => row.id)),
        Escape: () => setMarked(new Set()),
        Enter: () => mayRule && current && setEditing(current),
        n: () => mayRule && setEditing('new'),
        N: () => may && setWriting(current?.id),
        p: () => mayPush && setPushing(true),
        f: () => mayRule && current?.fronting && front.mutate({ owner: current.owner, state: NEXT_FRONTING[current.fronting] }, { onError: fail }),
        m: () => fixAt(0),
        M: () => fixAt(1),
        w: () => {
          const [open] = current ? openOf(current) : [];
          if (open) mending?.letBe(open);
        },
        o: () => toRemark(1),
        O: () => toRemark(-1),
        // The page may not know yet of what was decided a moment ago; the server does.
        u: () => mayRule && takeBack(undo),
        U: () => mayRule && takeBack(redo),
        g: regroup,
        y: () => current?.planned && void copying(current.planned.data.join('\n'), 'Copied.'),
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
  const inPlace = !rebuildsZone(leg);
  const { counts } = leg;
  const byHand = !inPlace && leg.byHand;
  const reading = leg.rulings.length < leg.total;
  const title = inPlace ? inPlaceWords(leg) : servedWords(leg);
  if (printing) return <PrintedLedger title={title} domain={move.domain} groups={groups} remarksOf={remarksOf} now={now} />;
  return (
    <section className="flex h-full flex-col max-md:h-[80vh]">
      <div className="mb-2 flex items-start justify-between gap-6">
        <div>
          <h2 className="text-[1.25rem] leading-tight">{title}</h2>
          <p className="text-faded">
            {inPlace ? `${counts.carry} stay` : `${counts.carry} carried`}, {counts.repoint} repointed, {counts.drop} dropped, {counts.new} new
            {counts.remarks > 0 && ` · ${counts.remarks} ${counts.remarks === 1 ? 'remark' : 'remarks'}`}
            {reading && ` · ${leg.rulings.length} of ${leg.total} rows are read`}
            {!reading && <PlanExports rulings={leg.rulings} domain={move.domain} />}
          </p>
        </div>
        {may && !fixed && (
          <div className="flex shrink-0 gap-2">
            {!leg.isBack && <Button onClick={() => setChoosing(true)}>Another way</Button>}
            <Button onClick={() => setEditing('new')}>New record set</Button>
            <Button disabled={!leg.undoable} onClick={() => takeBack(undo)} title={leg.undoable ? `Undo ${leg.undoable}` : 'Nothing to undo'}>
              Undo
            </Button>
            <Button disabled={!leg.redoable} onClick={() => takeBack(redo)} title={leg.redoable ? `Do ${leg.redoable} again` : 'Nothing to do again'}>
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
              <Button kind="main" disabled={!mayPush} title={counts.stops > 0 ? 'A remark stops the push' : undefined} onClick={() => setPushing(true)}>
                Push
              </Button>
            )}
          </div>
        )}
      </div>
      <AskedNote move={move} leg={leg} of="before" />
      {stepIn(leg, 'named')?.state === 'ready' && <GivenNames move={move} leg={leg} may={may} />}
      <StepNote step={push} move={move.id} may={may} />
      <StepNote step={stepIn(leg, 'served')} move={move.id} may={may} />
      {mayRule && <RuleOffers move={move} ledger={leg} rows={asRows} />}
      {!inPlace && <Extras served={leg.served} domain={move.domain} />}
      <div className="flex items-center gap-3 pb-1 max-md:flex-wrap">
        <input
          aria-label="Filter the ledger"
          placeholder="name, type, value, range"
          value={filter}
          onChange={(event) => setFilter(event.target.value)}
          className={`${inputLook} max-w-56 shrink-0 py-0.5`}
        />
        {mayRuleAll && filter.trim() !== '' && (
          <Button kind="quiet" onClick={() => setByRule(true)} title="R">
            Rule all like this
          </Button>
        )}
        <div role="group" aria-label="Show" className="flex shrink-0 gap-3">
          {ONLY.map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={only === one}
              onClick={() => setOnly(one)}
              className={`cursor-pointer ${only === one ? 'font-semibold underline decoration-accent decoration-2 underline-offset-4' : 'text-faded hover:text-ink'}`}
            >
              {ONLY_WORDS[one]}
            </button>
          ))}
        </div>
        <button type="button" onClick={regroup} title="g" className="shrink-0 cursor-pointer text-faded hover:text-ink">
          group by {by === 'name' ? 'purpose' : 'name'}
        </button>
        {mayRule && marks.length > 0 && (
          <span role="status" className="ml-auto min-w-0 truncate text-sm">
            <b className="font-semibold text-accent">{marks.length} marked</b>{' '}
            <span className="text-faded">c carry · r repoint to … · d drop · x X mark · Esc none</span>
          </span>
        )}
        {mayRule && marks.length === 0 && (
          <span className="ml-auto min-w-0 truncate text-sm text-faded">
            c carry · r repoint · d drop · n new · N comment · x mark · R rule for many{counts.remarks > 0 ? ' · o next remark · m mend' : ''}
            {leg.rulings.some((row) => row.fronting) ? ' · f fronting' : ''}
          </span>
        )}
      </div>
      <Ledger
        items={items}
        current={current?.id}
        marked={marked}
        others={others}
        domain={move.domain}
        served={leg.served}
        outside={leg.checking?.outside ?? null}
        remarksOf={remarksOf}
        openOf={openOf}
        mending={mending}
        inPlace={inPlace}
        onPoint={setAt}
        onEdit={mayRule ? setEditing : undefined}
        onFold={turn}
        storyOf={(ruling) => (
          <RowStory
            move={move.id}
            leg={leg.id}
            ruling={ruling}
            now={now}
            writing={may ? writing === ruling.id : undefined}
            onWritten={() => setWriting(undefined)}
          />
        )}
      />
      {byRule && (
        <RuleDialog
          move={move}
          leg={leg}
          rows={asRows}
          groups={ledgerGroups(zone, leg.rulings, leg.purposes).flatMap((group) => (group.hostsOwn ? [] : [group.title]))}
          start={filter.trim()}
          onClose={() => setByRule(false)}
        />
      )}
      {many && <ManyEditor move={move} rows={marks} busy={editMany.isPending} onRepoint={(data) => ruleMany('repoint', data)} onClose={() => setMany(false)} />}
      {editing && (
        <RowEditor
          move={move}
          ruling={editing === 'new' ? undefined : editing}
          rows={leg.rulings}
          checking={leg.checking}
          leaves={leg.oldWebHost}
          onClose={() => setEditing(undefined)}
        />
      )}
      {letting && <LetBeDialog move={move.id} remark={letting} onClose={() => setLetting(undefined)} />}
      {pushing && <PushDialog move={move} leg={leg} onClose={() => setPushing(false)} />}
    </section>
  );
}
