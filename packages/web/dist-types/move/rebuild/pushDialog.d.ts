import { LegView, MoveView } from '@wanderon/contract';
/** The decision to push, with what will happen said before it does. */
export declare function PushDialog({ move, leg, onClose }: {
    move: MoveView;
    leg: LegView;
    onClose: () => void;
}): import("react").JSX.Element;
