import { ReactNode } from 'react';
export declare function Dialog({ open, onClose, title, children, wide, }: {
    open: boolean;
    onClose: () => void;
    title: string;
    children: ReactNode;
    wide?: boolean;
}): import("react").JSX.Element;
