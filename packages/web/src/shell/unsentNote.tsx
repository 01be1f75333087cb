import { useEffect, useSyncExternalStore } from 'react';
import { shortTime } from '../time';
import { unsent } from '../unsent';

/** While the server does not answer: how much of what was done waits on this page, which is not left unasked. */
export function UnsentNote() {
  const since = useSyncExternalStore(unsent.subscribe, unsent.since);
  const waiting = useSyncExternalStore(unsent.subscribe, () => unsent.waiting());
  const isAway = since !== undefined && waiting > 0;
  useEffect(() => {
    if (!isAway) return;
    const ask = (event: BeforeUnloadEvent): void => event.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [isAway]);
  if (!isAway) return null;
  // The page's own clock: that of the server cannot be asked.
  const at = (performance.timeOrigin + since) / 1000;
  return (
    <p role="alert" className="fixed inset-x-0 bottom-0 z-30 border-t-2 border-rust bg-shade px-4 py-1.5 print:hidden">
      <b className="font-semibold">Wanderon does not answer since {shortTime(at)}.</b> What you did since is kept on this page ({waiting}{' '}
      {waiting === 1 ? 'act' : 'acts'}) and sent, in its order, as soon as it does. Go on working; leave this page open.
    </p>
  );
}
