import { ChapterProps } from '../movePlace';
/** The ledger: found on the left, planned in the middle, served by the new host on the right, remarks in the margin. */
export declare function Rebuild({ move, leg, may }: ChapterProps): import("react").JSX.Element;
