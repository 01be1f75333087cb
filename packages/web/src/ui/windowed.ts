import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { RefObject, useEffect, useLayoutEffect, useRef, useState } from 'react';

/** Rows outside the window that are drawn too, so that scrolling shows no gaps. */
const BEYOND = 20;

export interface Windowed<E extends HTMLElement> {
  /** Of the element in which the rows stand. */
  readonly list: RefObject<E | null>;
  /** Rows that are drawn, by their index. */
  readonly rows: readonly number[];
  /** Height of what is left out above and below; pixels. */
  readonly above: number;
  readonly below: number;
  /** Of each row that is drawn, with its index as `data-index`: rows are as high as they are. */
  readonly measure: (row: Element | null) => void;
}

/** The rows of a long list that are in sight of the window, or nearly; `more` is called when its end comes near. */
export function useWindowed<E extends HTMLElement>(count: number, height: number, more?: () => void): Windowed<E> {
  const list = useRef<E>(null);
  const [scrollMargin, setMargin] = useState(0);
  useLayoutEffect(() => {
    if (list.current) setMargin(list.current.getBoundingClientRect().top + window.scrollY);
  }, [count]);
  const virtual = useWindowVirtualizer({ count, estimateSize: () => height, overscan: BEYOND, scrollMargin });
  const items = virtual.getVirtualItems();
  const last = items.at(-1);
  useEffect(() => {
    if (more && last && last.index >= count - 1) more();
  }, [more, last?.index, count]);
  return {
    list,
    rows: items.map((item) => item.index),
    above: items[0] ? items[0].start - scrollMargin : 0,
    below: last ? virtual.getTotalSize() - (last.end - scrollMargin) : 0,
    measure: virtual.measureElement,
  };
}
