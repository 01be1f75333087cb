import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';

/** Hears from the server what changed and has it read anew, a burst of changes at once. */
export function useLive(): void {
  const queries = useQueryClient();
  useEffect(() => {
    const waiting = new Set<string>();
    let timer: number | undefined;
    const flush = (): void => {
      timer = undefined;
      for (const key of waiting) void queries.invalidateQueries({ queryKey: JSON.parse(key) as string[] });
      waiting.clear();
    };
    const source = new EventSource('/api/live');
    source.onmessage = (event: MessageEvent<string>) => {
      if (event.data === '') return;
      const change = JSON.parse(event.data) as { topic: string; move?: string };
      const keys = change.topic === 'move' ? [['moves'], ['move', change.move!]] : change.topic === 'clock' ? [['clock'], ['moves']] : [['hosts']];
      for (const key of keys) waiting.add(JSON.stringify(key));
      timer ??= window.setTimeout(flush, 250);
    };
    // After a break anything may have changed.
    source.onopen = () => void queries.invalidateQueries();
    return () => {
      source.close();
      window.clearTimeout(timer);
    };
  }, [queries]);
}
