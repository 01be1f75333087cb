import { LedgerView, RulingView } from '@wanderon/contract';
import { LedgerGroup, Outside } from '@wanderon/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ReactNode, memo, useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { unsent } from '../../unsent';
import { Mending } from './remarkNote';
import { LEDGER_COLUMNS, LedgerRow, isUnserved } from './ledgerRow';

/** What stands in the list: a heading, or a row. */
export type LedgerItem =
  | { readonly kind: 'group'; readonly group: LedgerGroup<RulingView>; readonly folded: boolean }
  | { readonly kind: 'row'; readonly ruling: RulingView };

/** Heights in pixels until they are measured, of a row of one line, of the one under the cursor where it has a single value, and of a heading. */
const ROW = 22;
const UNFOLDED = 49;
const HEADING = 21;
/** Pixels of a window that are not the list's. */
const AROUND = 310;

/** The list of a ledger: groups with their rows, of which those in sight are drawn, and beside it where in the whole zone something is. */
export function Ledger({
  items,
  current,
  marked,
  others,
  domain,
  served,
  outside,
  remarksOf,
  openOf,
  mending,
  inPlace,
  onPoint,
  onEdit,
  onFold,
  story,
}: {
  items: readonly LedgerItem[];
  /** The id of the row under the cursor. */
  current: string | undefined;
  /** Rows on which a ruling falls together. */
  marked: ReadonlySet<string>;
  /** Who else stands on which row. */
  others: ReadonlyMap<string, readonly string[]>;
  domain: string;
  served: LedgerView['served'];
  outside: Outside | null;
  /** Every remark of a row; those that nobody let be. */
  remarksOf: (ruling: RulingView) => LedgerView['remarks'];
  openOf: (ruling: RulingView) => LedgerView['remarks'];
  /** Undefined: nothing can be mended. */
  mending: Mending | undefined;
  inPlace: boolean;
  onPoint: (id: string) => void;
  /** Undefined: nothing can be ruled. */
  onEdit: ((ruling: RulingView) => void) | undefined;
  onFold: (group: string) => void;
  /** What lies behind the row under the cursor. */
  story: ReactNode;
}) {
  const box = useRef<HTMLDivElement>(null);
  // Told without drawing anything anew: acts come by the dozen.
  useEffect(() => {
    const tell = (): void => box.current?.setAttribute('aria-busy', String(unsent.waiting() > 0));
    tell();
    return unsent.subscribe(tell);
  }, []);
  const keyAt = useCallback((index: number) => keyOf(items[index]!, current), [items, current]);
  const virtual = useVirtualizer({
    count: items.length,
    getScrollElement: () => box.current,
    getItemKey: keyAt,
    estimateSize: (index) => heightOf(items[index], current),
    // As high as it will be, about: its rows are laid out with the page around them, and not after it.
    initialRect: { width: window.innerWidth, height: Math.max(ROW, window.innerHeight - AROUND) },
    overscan: 4,
    useFlushSync: false,
  });
  const jump = useCallback((index: number) => virtual.scrollToIndex(index, { align: 'center' }), [virtual]);
  const at = items.findIndex((item) => item.kind === 'row' && item.ruling.id === current);
  // Works out where every row lies, which is then known without asking the page.
  const lines = virtual.getVirtualItems();
  const height = at < 0 ? 0 : virtual.measurementsCache[at]!.size;
  // One that unfolds for the first time has its height before it is painted, and covers none below it.
  useLayoutEffect(() => {
    if (at < 0 || virtual.itemSizeCache.has(keyAt(at))) return;
    const unfolded = box.current?.querySelector<HTMLElement>('[aria-current=true]')?.parentElement;
    if (unfolded) virtual.resizeItem(at, unfolded.offsetHeight);
  }, [at, keyAt]);
  const came = useRef(-1);
  useEffect(() => {
    const isNew = came.current !== at;
    came.current = at;
    if (at < 0) return;
    const { start, end } = virtual.measurementsCache[at]!;
    const top = virtual.scrollOffset ?? 0;
    const foot = top + (virtual.scrollRect?.height ?? 0);
    // Where it is whole in sight nothing has to be scrolled, nor laid out for it; one that grows while somebody looks elsewhere stays there.
    const isInSight = start < foot && end > top;
    if ((isNew || isInSight) && (start < top || end > foot)) virtual.scrollToIndex(at);
  }, [at, height]);
  return (
    // On a phone the columns keep their widths, and are pushed sideways.
    <div className="contents max-md:block max-md:overflow-x-auto">
      <div className="contents max-md:flex max-md:h-[75vh] max-md:min-w-[58rem] max-md:flex-col">
        <div className={`smallcaps grid ${LEDGER_COLUMNS} gap-x-3 border-b border-ink pr-6`}>
          <span>Do</span>
          <span>Name</span>
          <span>Found</span>
          <span>Planned</span>
          <span>Served</span>
          <span>Remarks</span>
        </div>
        <div className="flex min-h-64 grow overflow-hidden">
          <div ref={box} className="min-w-0 grow overflow-y-auto [contain:layout_paint_style]" tabIndex={0} role="region" aria-label="Ledger">
            <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
              {lines.map((line) => {
                const item = items[line.index]!;
                return (
                  <div
                    key={keyOf(item, undefined)}
                    ref={virtual.measureElement}
                    data-index={line.index}
                    className="absolute left-0 w-full [contain:layout_style]"
                    style={{ transform: `translateY(${line.start}px)` }}
                  >
                    {item.kind === 'group' ? (
                      <GroupHead group={item.group} folded={item.folded} remarksOf={openOf} onFold={onFold} />
                    ) : (
                      <LedgerRow
                        ruling={item.ruling}
                        domain={domain}
                        served={served}
                        outside={outside}
                        remarks={remarksOf(item.ruling)}
                        mending={item.ruling.id === current ? mending : undefined}
                        inPlace={inPlace}
                        current={item.ruling.id === current}
                        marked={marked.has(item.ruling.id)}
                        others={others.get(item.ruling.id)}
                        onPoint={onPoint}
                        onEdit={onEdit}
                        story={item.ruling.id === current ? story : undefined}
                      />
                    )}
                  </div>
                );
              })}
            </div>
            {items.length === 0 && <p className="py-6 text-center text-faded">No row is like that.</p>}
          </div>
          <LaterOverview items={items} remarksOf={openOf} served={inPlace ? null : served} onJump={jump} />
        </div>
      </div>
    </div>
  );
}

/** What its height is remembered by: a row under the cursor has another one. */
function keyOf(item: LedgerItem, current: string | undefined): string {
  if (item.kind === 'group') return item.group.title;
  return item.ruling.id === current ? `${current} unfolded` : item.ruling.id;
}

function heightOf(item: LedgerItem | undefined, current: string | undefined): number {
  if (item?.kind === 'group') return HEADING;
  return item !== undefined && item.ruling.id === current ? UNFOLDED : ROW;
}

/** A group with what is in it, so that it need not be open to be judged. */
const GroupHead = memo(function GroupHead({
  group,
  folded,
  remarksOf,
  onFold,
}: {
  group: LedgerGroup<RulingView>;
  folded: boolean;
  remarksOf: (ruling: RulingView) => LedgerView['remarks'];
  onFold: (group: string) => void;
}) {
  const counts = { carry: 0, repoint: 0, new: 0, drop: 0 };
  for (const row of group.rows) counts[row.ruling] += 1;
  const remarks = group.rows.flatMap(remarksOf);
  const stops = remarks.filter((one) => one.weight === 'stop').length;
  const parts = [
    `${group.rows.length} ${group.rows.length === 1 ? 'row' : 'rows'}`,
    counts.repoint > 0 && `${counts.repoint} changed`,
    counts.new > 0 && `${counts.new} added`,
    counts.drop > 0 && !group.hostsOwn && `${counts.drop} left out`,
  ].filter((one) => typeof one === 'string');
  return (
    <button
      type="button"
      aria-expanded={!folded}
      onClick={() => onFold(group.title)}
      className="flex w-full cursor-pointer items-baseline gap-2 border-b border-rule bg-sheet pl-2 text-left leading-[1.35rem] hover:text-accent"
    >
      <span className="w-3 text-faded">{folded ? '▸' : '▾'}</span>
      <span className="font-semibold">{group.title}</span>
      <span className="text-sm text-faded">{parts.join(' · ')}</span>
      {remarks.length > 0 && (
        <span className={`text-sm ${stops > 0 ? 'font-semibold text-rust' : ''}`}>
          {stops > 0 ? `${stops} ${stops === 1 ? 'stop' : 'stops'}` : `${remarks.length} to look at`}
        </span>
      )}
    </button>
  );
});

/** Pixels of the bar beside the list. */
const BAR = 12;

interface OverviewProps {
  readonly items: readonly LedgerItem[];
  readonly remarksOf: (ruling: RulingView) => LedgerView['remarks'];
  readonly served: LedgerView['served'];
  readonly onJump: (index: number) => void;
}

/** Milliseconds without a change after which the bar that shows the whole zone follows. */
const REST = 150;
const NOTHING: readonly LedgerItem[] = [];

/** A row is painted with its key; what shows the whole zone follows once nobody works through its rows for a moment. */
function LaterOverview({ items, ...more }: OverviewProps) {
  const [shown, setShown] = useState(NOTHING);
  const isEmpty = shown.length === 0;
  useEffect(() => {
    const timer = window.setTimeout(() => setShown(items), isEmpty ? 0 : REST);
    return () => window.clearTimeout(timer);
  }, [items, isEmpty]);
  return <Overview items={shown} {...more} />;
}

/** The whole zone in one narrow bar: what changes, what is remarked, and what is not served yet. A press leads there. */
const Overview = memo(function Overview({ items, remarksOf, served, onJump }: OverviewProps) {
  const paths = { changes: '', looks: '', stops: '', unserved: '' };
  const counts = { changes: 0, stops: 0, looks: 0, unserved: 0 };
  items.forEach((item, index) => {
    if (item.kind === 'group') return;
    const { ruling } = item;
    const add = (what: keyof typeof paths, x: number, width: number): void => {
      paths[what] += `M${x} ${index}h${width}v1h-${width}z`;
      counts[what] += 1;
    };
    const remarks = remarksOf(ruling);
    if (ruling.ruling === 'repoint' || ruling.ruling === 'new') add('changes', 0, 4);
    if (remarks.some((one) => one.weight === 'stop')) add('stops', 4, 4);
    else if (remarks.length > 0) add('looks', 4, 4);
    if (isUnserved(ruling, served)) add('unserved', 8, 4);
  });
  const words = `${counts.changes} rows change, ${counts.stops} are stopped, ${counts.looks} are to be looked at, ${counts.unserved} are not served as planned`;
  return (
    <svg
      role="img"
      aria-label={`In the whole zone: ${words}`}
      viewBox={`0 0 ${BAR} ${Math.max(1, items.length)}`}
      preserveAspectRatio="none"
      width={BAR}
      style={{ height: `min(100%, ${items.length * ROW}px)` }}
      className="relative shrink-0 cursor-pointer border-l border-rule"
      onClick={(event) => {
        const { top, height } = event.currentTarget.getBoundingClientRect();
        onJump(Math.min(items.length - 1, Math.floor(((event.clientY - top) / height) * items.length)));
      }}
    >
      <title>{`Left what changes, in the middle remarks, right what is not served as planned: ${words}`}</title>
      <path d={paths.changes} fill="var(--accent)" />
      <path d={paths.looks} fill="var(--ink)" />
      <path d={paths.stops} fill="var(--rust)" />
      <path d={paths.unserved} fill="var(--faded)" />
    </svg>
  );
});
