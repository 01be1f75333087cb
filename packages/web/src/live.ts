import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';

/** Hears from the server what changed and has it read anew, a burst of changes at once. */
export function useLive(): void {
  const queries = useQueryClient();
  useEffect(() => {
    const waiting = new Set<string>();
    let timer: number | undefined;
    let source: EventSource | undefined;
    const flush = (): void => {
      timer = undefined;
      for (const key of waiting) void queries.invalidateQueries({ queryKey: JSON.parse(key) as string[] });
      waiting.clear();
    };
    const open = (): void => {
      source?.close();
      source = new EventSource('/api/live');
      source.onmessage = (event: MessageEvent<string>) => {
        if (event.data === '') return;
        const change = JSON.parse(event.data) as { topic: string; move?: string };
        const keys = change.topic === 'move' ? [['moves'], ['move', change.move!]] : change.topic === 'clock' ? [['clock'], ['moves']] : [['hosts']];
        for (const key of keys) waiting.add(JSON.stringify(key));
        timer ??= window.setTimeout(flush, 250);
      };
      // After a break anything may have changed.
      source.onopen = () => void queries.invalidateQueries();
    };
    // A page that the browser keeps for going back would hold its connection, and a browser has six for a server.
    const close = (): void => source?.close();
    const shown = (event: PageTransitionEvent): void => {
      if (event.persisted) open();
    };
    open();
    window.addEventListener('pagehide', close);
    window.addEventListener('pageshow', shown);
    return () => {
      close();
      window.clearTimeout(timer);
      window.removeEventListener('pagehide', close);
      window.removeEventListener('pageshow', shown);
    };
  }, [queries]);
}
