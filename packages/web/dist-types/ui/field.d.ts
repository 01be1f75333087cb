import { InputHTMLAttributes, ReactNode } from 'react';
export declare const inputLook = "w-full border border-rule bg-sheet px-2 py-1 rounded-[3px] focus:border-accent aria-invalid:border-rust";
export declare function Field({ label, hint, problem, mono, ...rest }: InputHTMLAttributes<HTMLInputElement> & {
    label: string;
    hint?: ReactNode;
    problem?: string | undefined;
    mono?: boolean;
}): import("react").JSX.Element;
