import { ChapterProps } from '../movePlace';
/** What every lookout says of every name that changes, until when it may, and when it is over. */
export declare function Watch({ move, leg, now, may }: ChapterProps): import("react").JSX.Element;
