import { MoveView, RulingView } from '@wanderon/contract';
/** Repoints a row or adds one. What is shown while typing is what the server checks on saving. */
export declare function RowEditor({ move, ruling, onClose }: {
    move: MoveView;
    ruling: RulingView | undefined;
    onClose: () => void;
}): import("react").JSX.Element;
