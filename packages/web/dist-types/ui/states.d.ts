import { ReactNode } from 'react';
export declare function Loading({ what }: {
    what: string;
}): import("react").JSX.Element;
export declare function Failed({ error, retry }: {
    error: unknown;
    retry?: () => void;
}): import("react").JSX.Element;
export declare function Empty({ title, children }: {
    title: string;
    children?: ReactNode;
}): import("react").JSX.Element;
