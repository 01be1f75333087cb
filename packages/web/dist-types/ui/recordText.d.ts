import { Piece } from '@wanderon/core';
/** Record data with the changed characters marked. */
export declare function RecordText({ pieces }: {
    pieces: readonly Piece[];
}): import("react").JSX.Element;
