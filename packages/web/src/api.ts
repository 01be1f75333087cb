import {
  Acted,
  CLOCK_NOW,
  ClockView,
  EventView,
  HorizonsView,
  Host,
  HostInput,
  HostPageView,
  LegView,
  MadeSheetLink,
  Me,
  MoveSummary,
  MoveSurvey,
  MoveView,
  NewSheetLink,
  OPEN_MOVES,
  SheetLink,
  SweepSummary,
  WatchView,
  WhereInput,
} from '@wanderon/contract';
import { KnownStyle, PlaceAct, SheetKind } from '@wanderon/core';
import { InfiniteData, queryOptions, useInfiniteQuery, useMutation, UseMutationResult, useQuery, useQueryClient, UseQueryResult } from '@tanstack/react-query';
import { createContext, useContext } from 'react';
import { arrival } from './arrival';
import { call, provenBy } from './call';
import { ProblemError } from './problemError';
import { Ledger, readLedger } from './readLedger';
import { readAnew } from './readAnew';
import { inTurn, ownAct, unsent } from './unsent';

export { ProblemError, call };

export const ME = queryOptions<Me | null>({
  queryKey: ['me'],
  queryFn: async () => {
    try {
      const me = await call<Me>('GET', '/api/me');
      provenBy(me.csrf);
      return me;
    } catch (error) {
      if (error instanceof ProblemError && error.problem.status === 401) return null;
      throw error;
    }
  },
  staleTime: 60_000,
});
export const useMe = (): UseQueryResult<Me | null> => useQuery(ME);

export const moveQuery = (id: string) => queryOptions({ queryKey: ['move', id], queryFn: () => call<MoveView>('GET', `/api/moves/${id}`) });

export interface MovePage {
  readonly moves: MoveSummary[];
  readonly next: string | null;
}

/** Moves that are open as they stand on the Desk, a page at a time. */
export const useOpenMoves = () =>
  useInfiniteQuery({
    queryKey: ['moves', 'open'],
    queryFn: ({ pageParam }) => call<MovePage>('GET', `${OPEN_MOVES}${pageParam ? `&after=${pageParam}` : ''}`),
    initialPageParam: '',
    getNextPageParam: (page: MovePage) => page.next ?? undefined,
  });

/** Open moves with a text in their domain. */
export const useFoundMoves = (text: string): UseQueryResult<MoveSummary[]> =>
  useQuery({
    queryKey: ['moves', 'found', text],
    queryFn: async () => (await call<MovePage>('GET', `/api/moves?state=open&limit=20&text=${encodeURIComponent(text)}`)).moves,
    placeholderData: (previous) => previous,
  });

/** Moves of every state, a page at a time; `text` is looked for in their domains. */
export const useAllMoves = (text: string) =>
  useInfiniteQuery({
    queryKey: ['moves', 'all', text],
    queryFn: ({ pageParam }) => call<MovePage>('GET', `/api/moves?text=${encodeURIComponent(text)}${pageParam ? `&after=${pageParam}` : ''}`),
    initialPageParam: '',
    getNextPageParam: (page: MovePage) => page.next ?? undefined,
  });
export type MovePages = InfiniteData<MovePage>;
export const useMove = (id: string): UseQueryResult<MoveView> => useQuery(moveQuery(id));
/** The parts of a leg, each read where a chapter shows it. */
export const ledgerQuery = (move: string, leg: string | undefined) =>
  queryOptions<Ledger>({
    queryKey: ['move', move, 'ledger', leg],
    queryFn: ({ client, queryKey }) => {
      // What is on the screen stays there until all of it is read anew.
      const isNew = client.getQueryData(queryKey) === undefined;
      return readLedger(move, leg!, (some) => isNew && client.setQueryData(queryKey, some));
    },
  });
export const useLedger = (move: string, leg: string | undefined, wanted: boolean): UseQueryResult<Ledger> =>
  useQuery({ ...ledgerQuery(move, leg), enabled: wanted && leg !== undefined });
export const useHorizons = (move: string, leg: string | undefined): UseQueryResult<HorizonsView> =>
  useQuery({
    queryKey: ['move', move, 'horizons', leg],
    queryFn: () => call<HorizonsView>('GET', `/api/legs/${leg}/horizons`),
    enabled: leg !== undefined,
  });
/** A survey never changes: it is read anew only where there is another one, or somebody said something of it. */
export const useLegSurvey = (leg: LegView | undefined, wanted: boolean): UseQueryResult<MoveSurvey | null> =>
  useQuery({
    queryKey: ['survey', leg?.id, leg?.survey, leg?.said],
    queryFn: async () => (await call<{ survey: MoveSurvey | null }>('GET', `/api/legs/${leg!.id}/survey`)).survey,
    enabled: wanted && leg !== undefined,
    // The one before stays on the screen until the new one is there; never that of another move.
    placeholderData: (previous, query) => (query?.queryKey[1] === leg?.id ? previous : undefined),
  });
export const useWatch = (move: string, leg: string | undefined, wanted: boolean): UseQueryResult<WatchView> =>
  useQuery({ queryKey: ['move', move, 'watch', leg], queryFn: () => call<WatchView>('GET', `/api/legs/${leg}/watch`), enabled: wanted && leg !== undefined });
export const useSweeps = (): UseQueryResult<SweepSummary[]> =>
  useQuery({ queryKey: ['sweeps'], queryFn: async () => (await call<{ sweeps: SweepSummary[] }>('GET', '/api/sweeps')).sweeps });
export const useTrail = (id: string): UseQueryResult<EventView[]> =>
  useQuery({ queryKey: ['move', id, 'events'], queryFn: async () => (await call<{ events: EventView[] }>('GET', `/api/moves/${id}/events`)).events });
/** `move`: the places that only this move knows are among them. */
export const useHosts = (move?: string): UseQueryResult<Host[]> =>
  useQuery({
    queryKey: ['hosts', 'list', move ?? ''],
    queryFn: async () => (await call<{ hosts: Host[] }>('GET', `/api/hosts${move === undefined ? '' : `?move=${move}`}`)).hosts,
  });
/** `received`: when the answer came, by the page's own clock in milliseconds. */
export const CLOCK = queryOptions<ClockView & { received: number }>({
  queryKey: ['clock'],
  queryFn: async () => {
    const asked = performance.now();
    const said = await call<ClockView>('GET', CLOCK_NOW);
    return { ...said, received: arrival(CLOCK_NOW, asked) };
  },
  refetchInterval: 30_000,
});
export const useClockState = (): UseQueryResult<ClockView & { received: number }> => useQuery(CLOCK);

/** The leg that a page is about; what is done there is done to it. */
export const LegContext = createContext<string | undefined>(undefined);

/**
 * Milliseconds for which an act that is over is kept: nobody asks for it, and all that are kept are gone through for each that is done. One that
 * waits for its answer is looked at again as often.
 */
const KEPT = 5000;

/** The key of everything that is being done to a move. */
export const actsOn = (move: string): readonly string[] => ['acts', move];

/**
 * Something done to a leg of a move, `leg` or that of the page; what is on the screen of it is read anew. Where the server does not answer
 * it is kept and asked for again, by a name that keeps it from being done twice. `answered` is called before anything is read.
 */
/** Acts on a move as a whole; all others are on one of its legs. */
const OF_THE_MOVE: ReadonlySet<string> = new Set(['', '/close', '/note']);

export function useMoveAction<T>(
  id: string,
  method: string,
  path: (input: T) => string,
  body: (input: T) => unknown = (input) => input,
  leg?: string,
  answered?: (acted: Acted) => void,
): UseMutationResult<Acted, Error, T> {
  const queries = useQueryClient();
  const here = useContext(LegContext);
  const address = (to: string): string => (OF_THE_MOVE.has(to) ? `/api/moves/${id}${to}` : `/api/legs/${leg ?? here}${to}`);
  return useMutation({
    mutationKey: actsOn(id),
    gcTime: KEPT,
    // Also while the browser thinks that it is offline: it is told so, and the acts after it wait.
    networkMode: 'always',
    mutationFn: async (input: T) => {
      const name = { 'x-act': ownAct() };
      const asked = method === 'DELETE' ? undefined : (body(input) ?? {});
      const acted = await inTurn(id, (again) => call<Acted>(method, address(path(input)), asked, { headers: again ? { ...name, 'x-again': '1' } : name }));
      answered?.(acted);
      return acted;
    },
    // What is on the screen of the move is read anew, once where acts follow each other; the button stays down until it is.
    // What was refused is read too: an act before it may not have been.
    onSettled: async () => {
      if (unsent.waiting(id) === 0) await readAnew(queries, id);
    },
  });
}

export const useHostPage = (id: string | undefined) =>
  useQuery({ queryKey: ['hosts', id], enabled: id !== undefined, queryFn: () => call<HostPageView>('GET', `/api/hosts/${id}`) });

const sheetLinks = (leg: string): string => `/api/legs/${leg}/sheet-links`;

export const useSheetLinks = (leg: string, sheet: SheetKind): UseQueryResult<SheetLink[]> =>
  useQuery({
    queryKey: ['sheet links', leg, sheet],
    queryFn: async () => (await call<{ links: SheetLink[] }>('GET', `${sheetLinks(leg)}?sheet=${sheet}`)).links,
  });

export function useMakeSheetLink(leg: string): UseMutationResult<MadeSheetLink, Error, NewSheetLink> {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (input) => call<MadeSheetLink>('POST', sheetLinks(leg), input),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['sheet links', leg] }),
  });
}

export function useWithdrawSheetLink(leg: string): UseMutationResult<unknown, Error, string> {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (id) => call('POST', `${sheetLinks(leg)}/${id}/withdraw`, {}),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['sheet links', leg] }),
  });
}

/** Notes one thing of a host: where something is done in its panel (`where/…`), or how it wants names and values (`habits`). */
export function useNoteOfHost(): UseMutationResult<Host, Error, { id: string; of: `where/${PlaceAct}` | 'habits'; note: WhereInput | KnownStyle }> {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ id, of, note }) => call<Host>('PUT', `/api/hosts/${id}/${of}`, note),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['hosts'] }),
  });
}

export function useSaveHost(): UseMutationResult<Host, Error, { id: string | undefined; input: HostInput }> {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ id, input }) => (id ? call<Host>('PUT', `/api/hosts/${id}`, input) : call<Host>('POST', '/api/hosts', input)),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['hosts'] }),
  });
}
