import { ClockView, EventView, Host, HostInput, Me, MoveSummary, MoveView, Problem, SweepSummary, problemSchema } from '@wanderon/contract';
import { useMutation, UseMutationResult, useQuery, useQueryClient, UseQueryResult } from '@tanstack/react-query';

/** What the server refused, in its own words. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.title);
  }
}

let csrf = '';

export async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      headers: { 'x-csrf-token': csrf, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
  } catch {
    throw new ProblemError({
      type: 'about:blank',
      title: 'Wanderon does not answer.',
      status: 0,
      detail: 'Check the connection and try again.',
      kept: 'Nothing was changed.',
    });
  }
  const answer: unknown = await response.json().catch(() => null);
  if (response.ok) return answer as T;
  const problem = problemSchema.safeParse(answer);
  throw new ProblemError(
    problem.success ? problem.data : { type: 'about:blank', title: 'Wanderon gave an answer that cannot be read.', status: response.status },
  );
}

export function useMe(): UseQueryResult<Me | null> {
  return useQuery({
    queryKey: ['me'],
    queryFn: async () => {
      try {
        const me = await call<Me>('GET', '/api/me');
        csrf = me.csrf;
        return me;
      } catch (error) {
        if (error instanceof ProblemError && error.problem.status === 401) return null;
        throw error;
      }
    },
    staleTime: 60_000,
  });
}

export const useMoves = (): UseQueryResult<MoveSummary[]> =>
  useQuery({ queryKey: ['moves'], queryFn: async () => (await call<{ moves: MoveSummary[] }>('GET', '/api/moves')).moves });
export const useMove = (id: string): UseQueryResult<MoveView> => useQuery({ queryKey: ['move', id], queryFn: () => call<MoveView>('GET', `/api/moves/${id}`) });
export const useSweeps = (): UseQueryResult<SweepSummary[]> =>
  useQuery({ queryKey: ['sweeps'], queryFn: async () => (await call<{ sweeps: SweepSummary[] }>('GET', '/api/sweeps')).sweeps });
export const useTrail = (id: string): UseQueryResult<EventView[]> =>
  useQuery({ queryKey: ['move', id, 'events'], queryFn: async () => (await call<{ events: EventView[] }>('GET', `/api/moves/${id}/events`)).events });
export const useHosts = (): UseQueryResult<Host[]> =>
  useQuery({ queryKey: ['hosts'], queryFn: async () => (await call<{ hosts: Host[] }>('GET', '/api/hosts')).hosts });
export const useClockState = (): UseQueryResult<ClockView & { received: number }> =>
  useQuery({
    queryKey: ['clock'],
    queryFn: async () => ({ ...(await call<ClockView>('GET', '/api/clock')), received: performance.now() }),
    refetchInterval: 30_000,
  });

/** Something done to a move: the answer is the move as it is afterwards. */
export function useMoveAction<T>(
  id: string,
  method: string,
  path: (input: T) => string,
  body: (input: T) => unknown = (input) => input,
): UseMutationResult<MoveView, Error, T> {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (input: T) => call<MoveView>(method, `/api/moves/${id}${path(input)}`, method === 'DELETE' ? undefined : (body(input) ?? {})),
    onSuccess: (move) => {
      queries.setQueryData(['move', id], move);
      void queries.invalidateQueries({ queryKey: ['moves'] });
    },
  });
}

export function useSaveHost(): UseMutationResult<Host, Error, { id: string | undefined; input: HostInput }> {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ id, input }) => (id ? call<Host>('PUT', `/api/hosts/${id}`, input) : call<Host>('POST', '/api/hosts', input)),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['hosts'] }),
  });
}
