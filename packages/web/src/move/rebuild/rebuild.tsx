import { Name, isHostsOwn, placedGroups, rebuildsZone } from '@wanderon/core';
import { RemarkView, RulingView } from '@wanderon/contract';
import { useMemo, useState } from 'react';
import { useCopying } from '../../ui/copy';
import { listKeys, useKeys } from '../../ui/useKeys';
import { usePrinting } from '../../ui/usePrinting';
import { AskedNote } from '../asked/askedNote';
import { FrontDoor } from '../front/frontDoor';
import { GivenNames } from '../givenNames';
import { ChapterSteps } from '../chapterSteps';
import { LedgerProps, stepIn } from '../movePlace';
import { Ledger } from './ledger';
import { LedgerBar } from './ledgerBar';
import { LedgerHead } from './ledgerHead';
import { Extras, inPlaceWords, servedWords } from './ledgerWords';
import { ManyEditor } from './manyEditor';
import { usePendingRows } from './pendingRows';
import { PrintedLedger } from './printedLedger';
import { PushDialog } from './pushDialog';
import { LetBeDialog, Mending, fixesOf } from './remarkNote';
import { RowEditor } from './rowEditor';
import { RowStory } from './rowStory';
import { RuleDialog } from './ruleDialog';
import { RuleOffers } from './ruleOffers';
import { useCursors } from './useCursors';
import { useLedgerActs } from './useLedgerActs';
import { useLedgerRows } from './useLedgerRows';

/** Rows by which a page key moves on. */
const PAGE = 20;

/** The ledger: found on the left, planned in the middle, served by the new host on the right, remarks in the margin. */
export function Rebuild({ move, leg, me, may, now }: LedgerProps) {
  const printing = usePrinting();
  const copying = useCopying();
  const [choosing, setChoosing] = useState(false);
  const [editing, setEditing] = useState<RulingView | 'new'>();
  const [pushing, setPushing] = useState(false);
  const [writing, setWriting] = useState<string>();
  const [many, setMany] = useState(false);
  const [byRule, setByRule] = useState(false);
  const [letting, setLetting] = useState<RemarkView>();
  const zone = useMemo(() => Name.parse(`${move.domain}.`), [move.domain]);
  const pending = usePendingRows();
  const acts = useLedgerActs(move, zone, leg.rulings, me.name, pending);
  const shown = useLedgerRows(zone, leg, pending.allAsShown);
  const { rows, current, marks, step, remarksOf, openOf } = shown;
  // Once the push is decided, what changes in the plan goes to the new host by itself; after the switch the plan stands.
  const fixed = leg.seen.ts !== null;
  const mayRule = may && !fixed && leg.chosen;
  const others = useCursors(leg.id, current?.id, mayRule);
  /** A rule is about every row: all of them have to be read. */
  const mayRuleAll = mayRule && leg.rulings.length >= leg.total;
  const isNamed = stepIn(leg, 'named')?.state !== 'ready';
  const mayPush = mayRuleAll && isNamed && !leg.pushed && leg.kind !== 'repoint' && !leg.byHand && leg.counts.stops === 0;
  const mending: Mending | undefined = mayRule
    ? { mend: acts.mend, letBe: (remark) => (remark.waived === null ? setLetting(remark) : acts.noLonger(remark)) }
    : undefined;
  const ruleMarked = async (ruling: 'carry' | 'drop' | 'repoint', data?: string): Promise<void> => {
    if (!(await acts.ruleMany(marks, ruling, data))) return;
    shown.unmark();
    setMany(false);
  };
  /** One key a row: the cursor goes on to the next one. */
  const rule = (ruling: 'carry' | 'drop'): void => {
    if (!mayRule) return;
    if (marks.length > 0) return void ruleMarked(ruling);
    if (!current) return;
    acts.rule(current, ruling);
    step(1);
  };
  const fixAt = (index: number): void => {
    const fixed = current && fixesOf(remarksOf(current))[index];
    if (fixed) mending?.mend(fixed.remark, fixed.fix);
  };
  useKeys({
    ...listKeys(step),
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
      shown.mark([current.id]);
      step(1);
    },
    X: () => mayRule && shown.mark(rows.filter((row) => !isHostsOwn(row)).map((row) => row.id)),
    Escape: shown.unmark,
    Enter: () => mayRule && current && setEditing(current),
    n: () => mayRule && setEditing('new'),
    N: () => may && setWriting(current?.id),
    p: () => mayPush && setPushing(true),
    f: () => mayRule && current && acts.turnFronting(current),
    m: () => fixAt(0),
    M: () => fixAt(1),
    w: () => {
      const [open] = current ? openOf(current) : [];
      if (open) mending?.letBe(open);
    },
    o: () => shown.toRemark(1),
    O: () => shown.toRemark(-1),
    // The page may not know yet of what was decided a moment ago; the server does.
    u: () => mayRule && acts.undo(),
    U: () => mayRule && acts.redo(),
    g: shown.regroup,
    y: () => current?.planned && copying(current.planned.data.join('\n'), 'Copied.'),
  });

  if (!leg.chosen || choosing) return <FrontDoor move={move} leg={leg} may={may} onDone={() => setChoosing(false)} isAgain={leg.chosen} />;
  const inPlace = !rebuildsZone(leg);
  const title = inPlace ? inPlaceWords(leg) : servedWords(leg);
  if (printing) {
    const lacking = leg.total - leg.rulings.length;
    return <PrintedLedger title={title} domain={move.domain} groups={shown.groups} remarksOf={remarksOf} lacking={lacking} now={now} />;
  }
  return (
    <section className="flex h-full flex-col max-md:h-[80vh]">
      <LedgerHead
        title={title}
        move={move}
        leg={leg}
        inPlace={inPlace}
        may={may && !fixed}
        mayPush={mayPush}
        onChoose={() => setChoosing(true)}
        onNew={() => setEditing('new')}
        onUndo={acts.undo}
        onRedo={acts.redo}
        onPush={() => setPushing(true)}
      />
      <AskedNote move={move} leg={leg} of="before" />
      {!isNamed && <GivenNames move={move} leg={leg} may={may} />}
      <ChapterSteps leg={leg} chapter="rebuild" move={move} may={may} elsewhere={['choose', 'named']} />
      {mayRule && <RuleOffers move={move} ledger={leg} />}
      {!inPlace && <Extras served={leg.served} domain={move.domain} />}
      <LedgerBar
        shown={shown}
        onRule={mayRuleAll ? () => setByRule(true) : undefined}
        mayRule={mayRule}
        remarks={leg.counts.remarks}
        isFronting={leg.rulings.some((row) => row.fronting)}
      />
      <Ledger
        items={shown.items}
        current={current?.id}
        marked={shown.marked}
        others={others}
        domain={move.domain}
        served={leg.served}
        outside={leg.checking?.outside ?? null}
        remarksOf={remarksOf}
        openOf={openOf}
        mending={mending}
        inPlace={inPlace}
        onPoint={shown.point}
        onEdit={mayRule ? setEditing : undefined}
        onFold={shown.fold}
        story={
          current && (
            <RowStory
              move={move.id}
              leg={leg.id}
              ruling={current}
              now={now}
              writing={may ? writing === current.id : undefined}
              onWritten={() => setWriting(undefined)}
            />
          )
        }
      />
      {byRule && (
        <RuleDialog
          move={move}
          leg={leg}
          groups={placedGroups(leg.rulings).flatMap((group) => (group.hostsOwn ? [] : [group.title]))}
          start={shown.filter.trim()}
          onClose={() => setByRule(false)}
        />
      )}
      {many && (
        <ManyEditor move={move} rows={marks} busy={acts.isRulingMany} onRepoint={(data) => void ruleMarked('repoint', data)} onClose={() => setMany(false)} />
      )}
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
