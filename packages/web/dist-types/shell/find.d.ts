/** Find anything: moves by name, their chapters, hosts, places. */
export declare function Find({ open, onClose }: {
    open: boolean;
    onClose: () => void;
}): import("react").JSX.Element;
