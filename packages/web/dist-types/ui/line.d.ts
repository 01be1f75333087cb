import { Mark, MoveSummary } from '@wanderon/contract';
export declare function useWidth(): [React.RefObject<HTMLDivElement | null>, number];
/** The line: a move's own time axis with what was done, what is planned, the horizons, the draining of old answers, and now. */
export declare function Line({ move, now }: {
    move: Pick<MoveSummary, 'marks' | 'drain'>;
    now: number;
}): import("react").JSX.Element;
/** A step is a full dot, a planned one an open dot, a horizon an upright bar. */
export declare function MarkShape({ kind, x, y, past }: {
    kind: Mark['kind'];
    x: number;
    y: number;
    past: boolean;
}): import("react").JSX.Element;
/** Old answers draining away: a hatched wedge from all of them to none at the last horizon. */
export declare function Drain({ drain, x, base, height, now }: {
    drain: MoveSummary['drain'];
    x: (at: number) => number;
    base: number;
    height: number;
    now: number;
}): import("react").JSX.Element | null;
