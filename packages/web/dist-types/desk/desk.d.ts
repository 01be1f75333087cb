import { Me } from '@wanderon/contract';
/** What is due, in the order of time; above it every move in motion on one axis. */
export declare function DeskPlace({ me }: {
    me: Me;
}): import("react").JSX.Element;
