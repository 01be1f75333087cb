import { ReactNode } from 'react';
export declare const useToast: () => {
    say: (title: string) => void;
    fail: (error: unknown) => void;
};
/** Short words at the foot of the screen: what was done, or what was refused and what was kept. */
export declare function ToastPlace({ children }: {
    children: ReactNode;
}): import("react").JSX.Element;
