import { useVirtualizer } from '@tanstack/react-virtual';
import { ReactNode, useEffect, useRef } from 'react';

/** A table of which only the rows in sight are drawn, as high as its place; `from` another one: it begins at the top again. */
export function VirtualTable<T>({
  label,
  columns,
  head,
  rows,
  height,
  keyOf,
  from,
  className,
  children,
}: {
  label: string;
  /** Classes of the grid that its rows stand in. */
  columns: string;
  head: ReactNode;
  rows: readonly T[];
  /** Of a row, about, in pixels. */
  height: number;
  keyOf?: (row: T) => string;
  from?: string;
  className: string;
  children: (row: T) => ReactNode;
}) {
  const box = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => box.current,
    estimateSize: () => height,
    overscan: 15,
    ...(keyOf && { getItemKey: (index: number) => keyOf(rows[index]!) }),
  });
  useEffect(() => virtual.scrollToOffset(0), [from, virtual]);
  return (
    <div ref={box} role="table" aria-label={label} tabIndex={0} className={`grow overflow-y-auto ${className}`}>
      <div role="row" className={`${columns} smallcaps sticky top-0 z-10 border-b border-ink bg-paper pb-0.5`}>
        {head}
      </div>
      <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
        {virtual.getVirtualItems().map((item) => (
          <div
            key={item.key}
            ref={virtual.measureElement}
            data-index={item.index}
            className="absolute left-0 w-full"
            style={{ transform: `translateY(${item.start}px)` }}
          >
            {children(rows[item.index]!)}
          </div>
        ))}
      </div>
    </div>
  );
}
