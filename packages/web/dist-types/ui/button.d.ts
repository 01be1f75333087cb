import { ButtonHTMLAttributes } from 'react';
type Kind = 'main' | 'plain' | 'quiet';
/** `main` is the one next action of a screen. */
export declare function Button({ kind, className, ...rest }: ButtonHTMLAttributes<HTMLButtonElement> & {
    kind?: Kind;
}): import("react").JSX.Element;
export {};
