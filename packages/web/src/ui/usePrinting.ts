import { useSyncExternalStore } from 'react';

/** True while the page is put on paper: what is drawn only in sight must then be drawn whole. */
export function usePrinting(): boolean {
  return useSyncExternalStore(subscribe, () => PRINT.matches);
}

const PRINT = window.matchMedia('print');

function subscribe(listener: () => void): () => void {
  PRINT.addEventListener('change', listener);
  return () => PRINT.removeEventListener('change', listener);
}
