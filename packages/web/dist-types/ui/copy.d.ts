/** A value that has to be typed elsewhere: one press copies it. */
export declare function Copy({ value, label }: {
    value: string;
    label: string;
}): import("react").JSX.Element;
