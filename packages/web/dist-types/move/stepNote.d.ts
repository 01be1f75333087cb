import { StepView } from '@wanderon/contract';
/** Where a step stands when it needs words: stopped, waiting for something, or at work. */
export declare function StepNote({ step, move, may }: {
    step: StepView;
    move: string;
    may: boolean;
}): import("react").JSX.Element | null;
