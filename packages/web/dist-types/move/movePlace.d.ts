import { LegView, Me, MoveView, StepView } from '@wanderon/contract';
export declare const CHAPTERS: readonly ["survey", "rebuild", "timetable", "switch", "watch"];
export interface ChapterProps {
    readonly move: MoveView;
    readonly leg: LegView;
    readonly me: Me;
    readonly now: number;
    /** False for viewers and for moves that have ended. */
    readonly may: boolean;
}
export declare function stepIn(leg: LegView, kind: StepView['kind']): StepView;
export declare function MovePlace({ me }: {
    me: Me;
}): import("react").JSX.Element;
