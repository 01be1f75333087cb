import { LegView, MoveView } from '@wanderon/contract';
/** Where the domain goes: a DNS host and, where the website moves too, a web host. */
export declare function ChooseHosts({ move, leg, may, onDone, cancel }: {
    move: MoveView;
    leg: LegView;
    may: boolean;
    onDone: () => void;
    cancel: boolean;
}): import("react").JSX.Element;
