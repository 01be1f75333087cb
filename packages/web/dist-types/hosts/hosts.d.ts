import { Host, Me } from '@wanderon/contract';
export declare const ROLE_TITLES: Record<Host['role'], string>;
/** What the agency knows of the places it moves between. */
export declare function HostsPlace({ me }: {
    me: Me;
}): import("react").JSX.Element;
