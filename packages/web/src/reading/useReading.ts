import { Subject, TextReading, readText } from '@wanderon/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { ReadAnswer, ReadAsk } from '../workers/reading.worker';

/** Characters that are read on the spot; longer texts are read in a worker, beside the page. */
const SHORT = 30_000;
/** Milliseconds for which nothing is typed before a long text is read. */
const PAUSE = 150;

const NOTHING: TextReading = { finds: [], unread: [], leftOut: 0, serial: undefined };

/** What a text says, while it is typed; of a long one what was read last, until the worker answers. */
export function useReading(text: string, subject: Subject): { readonly reading: TextReading; readonly isReading: boolean } {
  const isShort = text.length <= SHORT;
  const asked = useRef(0);
  const [answer, setAnswer] = useState<ReadAnswer>();
  const short = useMemo(() => (isShort ? readText(text, subject) : undefined), [isShort, text, subject]);
  useEffect(() => {
    if (isShort) return;
    const id = ++asked.current;
    let worker: Worker | undefined;
    const timer = window.setTimeout(() => {
      worker = new Worker(new URL('../workers/reading.worker.ts', import.meta.url), { type: 'module' });
      worker.onmessage = ({ data }: MessageEvent<ReadAnswer>) => setAnswer(data);
      worker.postMessage({ id, text, subject } satisfies ReadAsk);
    }, PAUSE);
    // What is typed on is read anew: nobody waits for the text before it.
    return () => {
      window.clearTimeout(timer);
      worker?.terminate();
    };
  }, [isShort, text, subject]);
  if (short) return { reading: short, isReading: false };
  return { reading: answer?.reading ?? NOTHING, isReading: answer?.id !== asked.current };
}
