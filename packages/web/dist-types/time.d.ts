/** The job's time in seconds since 1970, ticking; counts on from the last word of the server. */
export declare function useNow(): number;
/** `Fri 12 Mar 18:26`, in the technician's zone. */
export declare function shortTime(at: number): string;
export declare function clockTime(at: number, seconds?: boolean): string;
/** The same moment in both zones, for a title. */
export declare function fullTime(at: number): string;
/** `3 h 20 min`, `45 s`, `2 d 4 h`: the two largest units. */
export declare function duration(seconds: number): string;
/** `in 3 h 20 min` or `20 min ago`. */
export declare function relative(at: number, now: number): string;
