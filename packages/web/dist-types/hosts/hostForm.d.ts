import { Host } from '@wanderon/contract';
/** Adds or changes a host; the key's secret goes in and never comes out again. */
export declare function HostForm({ host, onClose }: {
    host: Host | undefined;
    onClose: () => void;
}): import("react").JSX.Element;
