import { useVirtualizer } from '@tanstack/react-virtual';
import { Name } from '@wanderon/core';
import { MoveSurvey } from '@wanderon/contract';
import { useEffect, useMemo, useRef, useState } from 'react';
import { listKeys, useKeys } from '../../ui/useKeys';
import { inputLook } from '../../ui/field';
import { useCopying } from '../../ui/copy';
import { Exports } from './exports';
import { NameLine } from './nameLine';
import { Item, Line, itemsOf, linesOf, matches } from './surveyRows';

const SHOWN = ['everything', 'what needs a look', 'hints'] as const;

/** Every name as a tree, in the order a person thinks, with what stands there, how it is known, and what it is for. */
export function Names({ survey, zone, domain, move, may }: { survey: MoveSurvey; zone: Name; domain: string; move: string | undefined; may: boolean }) {
  const [filter, setFilter] = useState('');
  const [shown, setShown] = useState<(typeof SHOWN)[number]>('everything');
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set());
  const [at, setAt] = useState(-1);
  const copying = useCopying();
  const items = useMemo(() => itemsOf(survey, zone), [survey, zone]);
  const lines = useMemo(
    () =>
      linesOf(
        items.filter((item) => matches(item, filter) && fits(item, shown)),
        zone,
        closed,
      ),
    [items, zone, closed, filter, shown],
  );
  const list = useRef<HTMLDivElement>(null);
  const finder = useRef<HTMLInputElement>(null);
  const [margin, setMargin] = useState(0);
  // The list scrolls with the page; what stands above it may grow.
  useEffect(() => {
    const scroller = scrollerOf(list.current);
    if (!scroller || !list.current) return;
    const measure = (): void => {
      if (list.current) setMargin(Math.round(list.current.getBoundingClientRect().top - scroller.getBoundingClientRect().top + scroller.scrollTop));
    };
    measure();
    const watcher = new ResizeObserver(measure);
    for (const part of list.current.parentElement?.parentElement?.children ?? []) watcher.observe(part);
    return () => watcher.disconnect();
  }, []);
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scrollerOf(list.current),
    estimateSize: (index) => heightOf(lines[index]!),
    getItemKey: (index) => lines[index]!.key,
    scrollMargin: margin,
    // Room for the heading that stays in place.
    scrollPaddingStart: 64,
    scrollPaddingEnd: 12,
    overscan: 12,
  });
  const toggle = (set: ReadonlySet<string>, key: string): ReadonlySet<string> => {
    const next = new Set(set);
    if (!next.delete(key)) next.add(key);
    return next;
  };

  const step = (by: number): void => {
    for (let next = at + by; next >= 0 && next < lines.length; next += by) {
      if (lines[next]!.kind === 'section') continue;
      setAt(next);
      virtual.scrollToIndex(next);
      return;
    }
  };
  const line = lines[at];
  const name = line?.kind === 'item' ? line.item.name : line?.kind === 'name' ? line.name : undefined;
  const fold = (shut: boolean): void => {
    if (name && closed.has(name.key) !== shut) setClosed(toggle(closed, name.key));
  };
  useKeys({
    ...listKeys(step),
    ArrowLeft: () => fold(true),
    ArrowRight: () => fold(false),
    Enter: () => line?.kind === 'item' && setOpen(toggle(open, line.key)),
    y: () => line?.kind === 'item' && copying(line.item.kind === 'set' ? line.item.text.data.join('\n') : line.item.hint.owner, 'Copied.'),
    '/': () => finder.current?.focus(),
  });

  return (
    <div>
      <div className="sticky -top-4 z-10 flex flex-wrap items-end justify-between gap-x-4 gap-y-1 border-b border-ink bg-paper pt-2.5 pb-1 max-md:static">
        <h3 className="smallcaps">Names</h3>
        <span className="ml-auto">
          <Exports survey={survey} items={items} zone={zone} domain={domain} />
        </span>
        <select
          aria-label="Which names are shown"
          value={shown}
          onChange={(event) => setShown(event.target.value as (typeof SHOWN)[number])}
          className="rounded-[3px] border border-rule bg-sheet px-1 py-0.5"
        >
          {SHOWN.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
        <input
          ref={finder}
          aria-label="Filter names"
          placeholder="Filter  ( / )"
          value={filter}
          onChange={(event) => setFilter(event.target.value)}
          onKeyDown={(event) => event.key === 'Escape' && (filter === '' ? event.currentTarget.blur() : setFilter(''))}
          className={`${inputLook} w-48 max-w-48 py-0.5`}
        />
      </div>
      <div ref={list} role="treegrid" aria-label="Record sets found" className="max-md:max-h-[70vh] max-md:overflow-y-auto">
        <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map((item) => {
            const line = lines[item.index]!;
            return (
              <div
                key={item.key}
                ref={virtual.measureElement}
                data-index={item.index}
                className="absolute left-0 w-full"
                style={{ transform: `translateY(${item.start - virtual.options.scrollMargin}px)` }}
              >
                <NameLine
                  line={line}
                  move={move}
                  may={may}
                  current={item.index === at}
                  open={open.has(line.key)}
                  closed={line.kind !== 'section' && closed.has((line.kind === 'item' ? line.item.name : line.name).key)}
                  onPoint={() => setAt(item.index)}
                  onOpen={() => setOpen(toggle(open, line.key))}
                  onFold={(name) => setClosed(toggle(closed, name.key))}
                />
              </div>
            );
          })}
        </div>
      </div>
      {lines.length === 0 && (
        <p className="py-4 text-faded">
          {items.length === 0 ? 'Nothing was found in the zone.' : filter === '' ? 'There is nothing of that kind.' : `Nothing matches “${filter}”.`}
        </p>
      )}
    </div>
  );
}

function fits(item: Item, shown: (typeof SHOWN)[number]): boolean {
  if (shown === 'everything') return true;
  if (item.kind === 'hint') return shown === 'hints' || item.hint.answer === null;
  return (
    shown === 'what needs a look' && (item.conflicts.length > 0 || item.text.varying !== null || (item.text.fronted !== null && item.text.stored === null))
  );
}

function heightOf(line: Line): number {
  if (line.kind === 'section') return 34;
  return line.kind === 'item' && line.item.kind === 'set' ? 9 + 20 * line.item.text.data.length : 29;
}

/** What scrolls: the page beside the chapters, or on a phone the list itself. */
function scrollerOf(list: HTMLElement | null): HTMLElement | null {
  if (!list) return null;
  return window.matchMedia('(max-width: 47.99rem)').matches ? list : list.closest<HTMLElement>('[data-scrolls]');
}
