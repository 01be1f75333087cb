import { CheckBasis, RowAsIf, Ruling, WhatIf } from '@wanderon/core';
import { useEffect, useRef, useState } from 'react';
import { CheckAnswer, CheckAsk } from '../../workers/checks.worker';

/** Milliseconds for which nothing is typed before it is checked. */
const PAUSE = 120;

/**
 * What the checks would say if some rows were as they are being typed; undefined until that is known, and while `rows` is. One worker
 * checks for as long as the caller is on the page; of what is typed meanwhile the last is checked.
 */
export function useWhatIf(zone: string, basis: CheckBasis | null, rulings: readonly Ruling[], rows: readonly RowAsIf[] | undefined): WhatIf | undefined {
  const worker = useRef<Worker>(undefined);
  const asked = useRef(0);
  const [answer, setAnswer] = useState<CheckAnswer>();
  useEffect(() => {
    const made = new Worker(new URL('../../workers/checks.worker.ts', import.meta.url), { type: 'module' });
    made.onmessage = ({ data }: MessageEvent<CheckAnswer>) => setAnswer(data);
    worker.current = made;
    return () => made.terminate();
  }, []);
  // Somebody else may change the plan while this one types.
  useEffect(() => {
    if (basis) worker.current?.postMessage({ plan: { zone, basis, rulings } } satisfies CheckAsk);
  }, [zone, basis, rulings]);
  const key = JSON.stringify(rows);
  useEffect(() => {
    const id = ++asked.current;
    if (!rows) return;
    const timer = window.setTimeout(() => worker.current?.postMessage({ id, rows } satisfies CheckAsk), PAUSE);
    return () => window.clearTimeout(timer);
    // The rows are the same as long as they read the same.
  }, [key, zone, basis, rulings]);
  return rows && answer?.id === asked.current ? answer : undefined;
}
