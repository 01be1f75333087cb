import { ChapterProps } from '../movePlace';
/** When what happens, and why not sooner; the one place where Wanderon is told to act by itself. */
export declare function Timetable({ move, leg, now, may }: ChapterProps): import("react").JSX.Element;
