import { ClockView, EventView, Host, HostInput, Me, MoveSummary, MoveView, Problem } from '@wanderon/contract';
import { UseMutationResult, UseQueryResult } from '@tanstack/react-query';
/** What the server refused, in its own words. */
export declare class ProblemError extends Error {
    readonly problem: Problem;
    constructor(problem: Problem);
}
export declare function call<T>(method: string, path: string, body?: unknown): Promise<T>;
export declare function useMe(): UseQueryResult<Me | null>;
export declare const useMoves: () => UseQueryResult<MoveSummary[]>;
export declare const useMove: (id: string) => UseQueryResult<MoveView>;
export declare const useTrail: (id: string) => UseQueryResult<EventView[]>;
export declare const useHosts: () => UseQueryResult<Host[]>;
export declare const useClockState: () => UseQueryResult<ClockView & {
    received: number;
}>;
/** Something done to a move: the answer is the move as it is afterwards. */
export declare function useMoveAction<T>(id: string, method: string, path: (input: T) => string, body?: (input: T) => unknown): UseMutationResult<MoveView, Error, T>;
export declare function useSaveHost(): UseMutationResult<Host, Error, {
    id: string | undefined;
    input: HostInput;
}>;
