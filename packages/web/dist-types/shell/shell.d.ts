import { Me } from '@wanderon/contract';
import { ReactNode } from 'react';
/** True where a key press belongs to a field and not to the page. */
export declare function isTyping(event: KeyboardEvent): boolean;
export declare function Shell({ me, children }: {
    me: Me;
    children: ReactNode;
}): import("react").JSX.Element;
