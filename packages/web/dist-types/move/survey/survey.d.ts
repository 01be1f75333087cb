import { ChapterProps } from '../movePlace';
/** What exists: the coverage first, then where the domain stands, then every record set with its evidence. */
export declare function Survey({ move, leg, may }: ChapterProps): import("react").JSX.Element;
