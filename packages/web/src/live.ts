import { CursorTold, MoveSummary } from '@wanderon/contract';
import { compareOnDesk, deskPlaceOf } from '@wanderon/core';
import { QueryClient, useQueryClient } from '@tanstack/react-query';
import { useEffect, useSyncExternalStore } from 'react';
import { MovePages } from './api';
import { takeCursor } from './cursors';
import { readAnew, readNow } from './readAnew';
import { actName, isOwn } from './unsent';

interface Change {
  readonly topic: string;
  readonly move?: string;
  readonly step?: string;
  /** What the page that asked for it calls what a person did. */
  readonly act?: string;
  readonly summary?: MoveSummary;
  readonly sweep?: string;
  readonly domain?: string;
  readonly doing?: string;
  readonly asked?: number;
  readonly left?: number;
}

/** What this page is called where it tells others of itself. */
export const PAGE_NAME = actName();

/** How far a survey or an act under way is. */
export interface Progress {
  readonly doing: string;
  readonly asked: number;
  readonly left: number | undefined;
}

const progress = new Map<string, Progress>();
const listeners = new Set<() => void>();

function takeProgress({ move, step, sweep, domain, doing = '', asked = 0, left }: Change): void {
  const key = move === undefined ? `sweep/${sweep}/${domain}` : progressOfMove(move, step);
  if (doing === '') progress.delete(key);
  else progress.set(key, { doing, asked, left });
  sweeps.clear();
  for (const listener of listeners) listener();
}

/** What `useProgress` calls the survey of a move, or the act of one of its steps. */
export function progressOfMove(move: string, step?: string): string {
  return step === undefined ? `move/${move}` : `move/${move}/${step}`;
}

/** The last word about what is under way. */
export function useProgress(of: string): Progress | undefined {
  return useSyncExternalStore(subscribe, () => progress.get(of));
}

export interface SweepProgress {
  readonly domain: string;
  readonly progress: Progress;
}

/** Lists handed out, kept until anything changes: React wants the same one for the same state. */
const sweeps = new Map<string, readonly SweepProgress[]>();

/** What every domain of a sweep that is in hand is being asked. */
export function useSweepProgress(sweep: string): readonly SweepProgress[] {
  return useSyncExternalStore(subscribe, () => {
    const start = `sweep/${sweep}/`;
    const list =
      sweeps.get(sweep) ?? [...progress].flatMap(([key, one]) => (key.startsWith(start) ? [{ domain: key.slice(start.length), progress: one }] : []));
    sweeps.set(sweep, list);
    return list;
  });
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function keysOf({ topic, move, sweep }: Change): (string | undefined)[][] {
  switch (topic) {
    case 'move':
      // What was being done is done, or begins anew.
      progress.delete(`move/${move}`);
      return [['move', move]];
    case 'sweep':
      return [['sweeps'], ['sweep', sweep]];
    case 'clock':
      return [['clock'], ['moves']];
    case 'hosts':
      return [['hosts']];
    case 'resolvers':
      return [['resolvers']];
    default:
      return [];
  }
}

/**
 * Puts the summary that an event brings into the lists that hold the move; false where a list has to be read: the event has none, or
 * the move comes into the part of the Desk that is on the screen.
 */
function takeSummary(queries: QueryClient, { summary }: Change): boolean {
  if (!summary) return false;
  const put = (data: MovePages | undefined): MovePages | undefined =>
    data && { ...data, pages: data.pages.map((page) => ({ ...page, moves: page.moves.map((one) => (one.id === summary.id ? summary : one)) })) };
  queries.setQueriesData<MovePages>({ queryKey: ['moves', 'all'] }, put);
  const desk = queries.getQueryData<MovePages>(['moves', 'open']);
  if (!desk) return true;
  const shown = desk.pages.flatMap((page) => page.moves);
  const before = shown.find((one) => one.id === summary.id);
  queries.setQueryData<MovePages>(['moves', 'open'], put);
  if (before) return summary.state === 'open' && compareOnDesk(deskPlaceOf(before.next), deskPlaceOf(summary.next)) === 0;
  if (summary.state !== 'open') return true;
  const last = shown.at(-1);
  return desk.pages.at(-1)?.next !== null && last !== undefined && compareOnDesk(deskPlaceOf(summary.next), deskPlaceOf(last.next)) > 0;
}

/** Milliseconds after which the server is asked for its events again, where it refused them. */
const AGAIN = 5000;
/** Milliseconds after the stream was opened for the first time: a change may have been told just before. */
const FIRST = 1500;

/** Hears from the server what changed and has it read anew, a burst of changes at once. */
export function useLive(): void {
  const queries = useQueryClient();
  useEffect(() => {
    const waiting = new Set<string>();
    /** Moves in which somebody else did something. */
    const others = new Set<string>();
    let timer: number | undefined;
    let again: number | undefined;
    let first: number | undefined;
    let isFirst = true;
    let source: EventSource | undefined;
    const flush = (): void => {
      timer = undefined;
      for (const key of waiting) {
        const [topic, id, ...more] = JSON.parse(key) as string[];
        if (topic === 'move' && id !== undefined && more.length === 0) void (others.has(id) ? readNow : readAnew)(queries, id);
        else void queries.invalidateQueries({ queryKey: JSON.parse(key) as string[] });
      }
      waiting.clear();
      others.clear();
    };
    const open = (): void => {
      source?.close();
      source = new EventSource('/api/live');
      source.onmessage = (event: MessageEvent<string>) => {
        if (event.data === '') return;
        const change = JSON.parse(event.data) as Change;
        if (change.topic === 'cursor') return takeCursor(change as Change & CursorTold, PAGE_NAME);
        if (change.topic === 'progress') return takeProgress(change);
        if (change.topic === 'move' && !takeSummary(queries, change)) waiting.add(JSON.stringify(['moves']));
        if (change.move !== undefined && change.act !== undefined && !isOwn(change.act)) others.add(change.move);
        for (const key of keysOf(change)) waiting.add(JSON.stringify(key));
        timer ??= window.setTimeout(flush, 250);
      };
      // After a break anything may have changed; what was read while the stream was being opened is read once more when the page stands.
      source.onopen = () => {
        window.clearTimeout(first);
        first = window.setTimeout(() => void queries.invalidateQueries(), isFirst ? FIRST : 0);
        isFirst = false;
      };
      // The browser comes back by itself where nobody answers, and not where a proxy says so, or the session is over.
      source.onerror = () => {
        if (source?.readyState !== EventSource.CLOSED) return;
        window.clearTimeout(again);
        again = window.setTimeout(() => {
          void queries.invalidateQueries({ queryKey: ['me'] });
          open();
        }, AGAIN);
      };
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
      window.clearTimeout(again);
      window.clearTimeout(first);
      window.removeEventListener('pagehide', close);
      window.removeEventListener('pageshow', shown);
    };
  }, [queries]);
}
