import { Grouping, LedgerGroup, Name, ledgerFilter, namedGroups, placedGroups } from '@wanderon/core';
import { LedgerView, RulingView } from '@wanderon/contract';
import { useCallback, useMemo, useState } from 'react';
import { LedgerItem } from './ledger';
import { PendingRows } from './pendingRows';
import { Only, byRow, shows } from './rowViews';

/** Which rows of a ledger are on the screen, where the cursor stands, and which are marked. */
export interface LedgerRows {
  readonly filter: string;
  readonly setFilter: (filter: string) => void;
  readonly only: Only;
  readonly setOnly: (only: Only) => void;
  readonly by: Grouping;
  readonly regroup: () => void;
  readonly groups: readonly LedgerGroup<RulingView>[];
  readonly items: readonly LedgerItem[];
  readonly rows: readonly RulingView[];
  readonly current: RulingView | undefined;
  readonly point: (id: string | undefined) => void;
  /** Moves the cursor by so many rows. */
  readonly step: (by: number) => void;
  /** To the next row that somebody has to look at, from the other end after the last one. */
  readonly toRemark: (by: 1 | -1) => void;
  readonly fold: (group: string) => void;
  readonly marked: ReadonlySet<string>;
  /** Marked rows that are still there. */
  readonly marks: readonly RulingView[];
  /** Marks rows; where all of them are marked already the marks go. */
  readonly mark: (ids: readonly string[]) => void;
  readonly unmark: () => void;
  /** Every remark of a row; those that nobody let be. */
  readonly remarksOf: (row: RulingView) => LedgerView['remarks'];
  readonly openOf: (row: RulingView) => LedgerView['remarks'];
}

export function useLedgerRows(zone: Name, { rulings, remarks, served }: LedgerView, allAsShown: PendingRows['allAsShown']): LedgerRows {
  const [filter, setFilter] = useState('');
  const [only, setOnly] = useState<Only>('all');
  const [by, setBy] = useState<Grouping>('purpose');
  /** Groups that were folded, or unfolded, by hand. */
  const [turned, setTurned] = useState<ReadonlySet<string>>(new Set());
  const [at, setAt] = useState<string>();
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const { remarksOf, openOf } = useMemo(() => {
    const open = remarks.filter((remark) => remark.waived === null);
    return { remarksOf: byRow(rulings, remarks), openOf: byRow(rulings, open) };
  }, [rulings, remarks]);
  const groups = useMemo(() => (by === 'name' ? namedGroups(zone, rulings) : placedGroups(rulings)), [by, zone, rulings]);
  const { items, rows } = useMemo(() => {
    const isLike = ledgerFilter(filter);
    const narrowed = filter !== '' || only !== 'all';
    const items: LedgerItem[] = [];
    const shown: (readonly RulingView[])[] = [];
    for (const group of groups) {
      const all = allAsShown(group.rows);
      const rows = narrowed ? all.filter((row) => isLike(row) && shows(only, row, openOf(row).length, served)) : all;
      if (rows.length === 0) continue;
      // What is looked for is shown, folded or not.
      const folded = !narrowed && turned.has(group.title) !== group.hostsOwn;
      items.push({ kind: 'group', group: rows === group.rows ? group : { ...group, rows }, folded });
      if (folded) continue;
      shown.push(rows);
      for (const ruling of rows) items.push(lineOf(ruling));
    }
    return { items, rows: shown.flat() };
  }, [groups, filter, only, openOf, allAsShown, served, turned]);
  const place = Math.max(
    0,
    rows.findIndex((row) => row.id === at),
  );
  const marks = useMemo(() => (marked.size === 0 ? NO_MARKS : rulings.filter((row) => marked.has(row.id))), [rulings, marked]);
  const fold = useCallback((group: string): void => setTurned((before) => toggled(before, group)), []);
  return {
    ...{ filter, setFilter, only, setOnly, by, groups, items, rows, fold, marked, marks, remarksOf, openOf },
    regroup: () => setBy(by === 'name' ? 'purpose' : 'name'),
    current: rows[place],
    point: setAt,
    step: (by) => setAt(rows[Math.max(0, Math.min(rows.length - 1, place + by))]?.id),
    toRemark: (by) => {
      const next = rows.map((_, step) => rows[(place + by * (step + 1) + 2 * rows.length) % rows.length]!).find((row) => openOf(row).length > 0);
      setAt(next?.id ?? at);
    },
    mark: (ids) => setMarked(ids.every((one) => marked.has(one)) ? without(marked, ids) : new Set([...marked, ...ids])),
    unmark: () => setMarked(new Set()),
  };
}

/** The line of a row, the same one for as long as the row is: of thousands a key changes two. */
const lines = new WeakMap<RulingView, LedgerItem>();

function lineOf(ruling: RulingView): LedgerItem {
  let line = lines.get(ruling);
  if (!line) lines.set(ruling, (line = { kind: 'row', ruling }));
  return line;
}

const NO_MARKS: readonly RulingView[] = [];

function toggled(set: ReadonlySet<string>, one: string): ReadonlySet<string> {
  const next = new Set(set);
  if (!next.delete(one)) next.add(one);
  return next;
}

function without(set: ReadonlySet<string>, all: readonly string[]): ReadonlySet<string> {
  const next = new Set(set);
  for (const one of all) next.delete(one);
  return next;
}
