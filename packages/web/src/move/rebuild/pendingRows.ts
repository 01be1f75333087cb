import { RulingView } from '@wanderon/contract';
import { useCallback, useRef, useState } from 'react';
import { DecidedRow } from './rowViews';

/** Rows as they will be once the server has answered, held until what it says is read. */
export interface PendingRows {
  /** A row as it is shown; undefined where it is taken out. */
  readonly asShown: (row: RulingView) => RulingView | undefined;
  /** Rows as they are shown, without those that are taken out; the same list where nothing is held of it. */
  readonly allAsShown: (rows: readonly RulingView[]) => readonly RulingView[];
  /** Shows rows as decided; gives what ends that: the server refused, or its own word is there. */
  readonly hold: (decided: readonly DecidedRow[]) => () => void;
}

/**
 * A ruling is on the screen with the key that makes it, and not when the server has answered. Core says what it makes of the row, as it does at the
 * server. Of several decisions on one row the latest is shown, each until its own answer is read.
 */
export function usePendingRows(): PendingRows {
  const [held, setHeld] = useState<ReadonlyMap<string, DecidedRow>>(new Map());
  /** Rows as they are shown, each the same object for as long as it is: it is drawn anew only where it changes. */
  const made = useRef(new WeakMap<DecidedRow, { readonly of: RulingView; readonly shown: RulingView }>());
  const hold = useCallback<PendingRows['hold']>((decided) => {
    const mine = new Map(decided.map((one) => [one.id, one]));
    setHeld((before) => new Map([...before, ...mine]));
    return () => setHeld((before) => new Map([...before].filter(([id, one]) => mine.get(id) !== one)));
  }, []);
  const asShown = useCallback(
    (row: RulingView): RulingView | undefined => {
      const decided = held.get(row.id);
      if (!decided) return row;
      if (decided.row === null) return undefined;
      const known = made.current.get(decided);
      if (known?.of === row) return known.shown;
      const { ruling, planned, reason } = decided.row;
      const shown: RulingView = { ...row, ruling, planned: planned ? { ...planned, data: [...planned.data] } : null, reason, decidedBy: decided.by };
      made.current.set(decided, { of: row, shown });
      return shown;
    },
    [held],
  );
  const allAsShown = useCallback(
    (rows: readonly RulingView[]) => (held.size > 0 && rows.some((row) => held.has(row.id)) ? rows.flatMap((row) => asShown(row) ?? []) : rows),
    [held, asShown],
  );
  return { asShown, allAsShown, hold };
}
