/** Who did what, when, with what stood there before and after. */
export declare function Trail({ id }: {
    id: string;
}): import("react").JSX.Element;
