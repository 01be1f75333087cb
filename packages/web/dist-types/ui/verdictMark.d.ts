import { Verdict } from '@wanderon/core';
/** The five shapes, the same everywhere: old hatched, new solid, mixed half and half, other crossed, none an empty outline. */
export declare function VerdictMark({ verdict, size }: {
    verdict: Verdict;
    size?: number;
}): import("react").JSX.Element;
export declare function VerdictWord({ verdict }: {
    verdict: Verdict;
}): import("react").JSX.Element;
