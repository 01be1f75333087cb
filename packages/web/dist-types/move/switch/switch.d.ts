import { ChapterProps } from '../movePlace';
/** The gate, the handover sheet for the registrar, and what the parent publishes. */
export declare function Switch({ move, leg, me, now, may }: ChapterProps): import("react").JSX.Element;
export declare function Parent({ watch }: {
    watch: ChapterProps['move']['watch'];
}): import("react").JSX.Element;
