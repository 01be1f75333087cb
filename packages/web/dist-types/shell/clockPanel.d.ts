import { Me } from '@wanderon/contract';
/** The time by which the job runs; in the lab it can be paused, hurried and jumped forward. */
export declare function ClockPanel({ me }: {
    me: Me;
}): import("react").JSX.Element | null;
