import { DerivedView } from '@wanderon/contract';
import { ReactNode } from 'react';
/** A moment that can be opened: the sum that led to it. */
export declare function DerivedTime({ derived, children }: {
    derived: DerivedView;
    children?: ReactNode;
}): import("react").JSX.Element;
