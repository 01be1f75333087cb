export declare function KeysHelp({ open, onClose }: {
    open: boolean;
    onClose: () => void;
}): import("react").JSX.Element;
