import { useEffect, useRef, useSyncExternalStore } from 'react';
import { call } from '../../api';
import { cursorsOn, forgetGone, onCursors, onNewPage } from '../../cursors';
import { PAGE_NAME } from '../../live';

/** Milliseconds between two words about a cursor that moves. */
const PACE = 300;
/** Milliseconds after which it is said again that somebody is here. */
const BEAT = 20_000;

/** Tells where this page's cursor stands in a ledger, where anything can be done there, and gives who else stands where. */
export function useCursors(leg: string, row: string | undefined, tells: boolean): ReadonlyMap<string, readonly string[]> {
  const others = useSyncExternalStore(onCursors, () => cursorsOn(leg));
  const at = useRef<string | null>(null);
  const said = useRef<() => void>(() => undefined);
  useEffect(() => {
    if (!tells) return;
    let timer: number | undefined;
    let last = -PACE;
    // Where it cannot be told nothing is lost: it is told again soon.
    const tell = (to: string | null): void =>
      void call('POST', `/api/legs/${leg}/cursor`, { page: PAGE_NAME, row: to }, { keepalive: true }).catch(() => undefined);
    const left = (): void => tell(null);
    const now = (): void => {
      timer = undefined;
      last = performance.now();
      if (at.current !== null && document.visibilityState === 'visible') tell(at.current);
    };
    const soon = (): void => {
      timer ??= window.setTimeout(now, Math.max(0, last + PACE - performance.now()));
    };
    said.current = soon;
    const beat = window.setInterval(() => {
      forgetGone();
      soon();
    }, BEAT);
    const greeted = onNewPage(soon);
    window.addEventListener('pagehide', left);
    return () => {
      said.current = () => undefined;
      window.clearTimeout(timer);
      window.clearInterval(beat);
      greeted();
      window.removeEventListener('pagehide', left);
      left();
    };
  }, [leg, tells]);
  useEffect(() => {
    at.current = row ?? null;
    said.current();
  }, [row, leg, tells]);
  return others;
}
