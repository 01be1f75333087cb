import { LegView, RulingView } from '@wanderon/contract';
export declare const LEDGER_COLUMNS = "grid-cols-[4.2rem_minmax(7rem,11rem)_minmax(0,1fr)_minmax(0,1fr)_4.4rem_minmax(0,13rem)]";
export declare function LedgerRow({ ruling, domain, served, remarks, current, onPoint, onEdit, }: {
    ruling: RulingView;
    domain: string;
    served: LegView['served'];
    remarks: LegView['remarks'];
    current: boolean;
    onPoint: () => void;
    onEdit: (() => void) | undefined;
}): import("react").JSX.Element;
