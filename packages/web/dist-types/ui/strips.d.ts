import { MoveSummary } from '@wanderon/contract';
/** Every move in motion as a strip of its own timeline, all on one axis with one now. */
export declare function Strips({ moves, now }: {
    moves: readonly MoveSummary[];
    now: number;
}): import("react").JSX.Element;
