import { ResolverInput, ResolverTrial, ResolverView } from '@wanderon/contract';
import { useMutation, UseMutationResult, useQuery, useQueryClient, UseQueryResult } from '@tanstack/react-query';
import { call } from '../api';

/** Milliseconds for which what a resolver answered counts as new. */
const FRESH = 30_000;

interface Listed {
  readonly resolvers: ResolverView[];
}

/** The resolvers that moves are watched from. */
export const useResolvers = (): UseQueryResult<ResolverView[]> =>
  useQuery({ queryKey: ['resolvers'], queryFn: async () => (await call<Listed>('GET', '/api/resolvers')).resolvers });

/** Whether one of them answers, asked when its row is shown. */
export const useTrial = (name: string, may: boolean): UseQueryResult<ResolverTrial> =>
  useQuery({
    queryKey: ['resolver trial', name],
    queryFn: () => call<ResolverTrial>('POST', '/api/resolvers/try', { name }),
    staleTime: FRESH,
    enabled: may,
  });

export type ResolverAct =
  | { readonly kind: 'add'; readonly input: ResolverInput }
  | { readonly kind: 'remove'; readonly id: string }
  | { readonly kind: 'order'; readonly ids: readonly string[] };

/** Adds one, takes one out, or puts them in another order. */
export function useResolverAct(): UseMutationResult<Listed, Error, ResolverAct> {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (act: ResolverAct) =>
      act.kind === 'add'
        ? call<Listed>('POST', '/api/resolvers', act.input)
        : act.kind === 'remove'
          ? call<Listed>('DELETE', `/api/resolvers/${act.id}`)
          : call<Listed>('PUT', '/api/resolvers/order', { ids: act.ids }),
    onSuccess: ({ resolvers }) => queries.setQueryData(['resolvers'], resolvers),
  });
}
