/** At most `most` ticks at local round times between two instants. */
export declare function ticksBetween(from: number, until: number, most: number): number[];
export interface Placed<T> {
    readonly item: T;
    readonly x: number;
    readonly row: number;
    readonly width: number;
}
/**
 * Labels in as few rows as they need: each goes into the first row where it does not touch the one before.
 * `x` is where the label points; widths in pixels.
 */
export declare function placeLabels<T>(items: readonly {
    item: T;
    x: number;
    width: number;
}[], rows: number, right: number): Placed<T>[];
