import { WatchView } from '@wanderon/contract';
/** The observed share of old answers, stepwise, over the share expected of caches that are asked all the time. */
export declare function Curve({ curve, from, until, now }: {
    curve: WatchView['curve'];
    from: number;
    until: number;
    now: number;
}): import("react").JSX.Element;
