import type { LedgerView, ServedView } from './legs';

/** Rows of a page. A page of a zone of thousands is some 300 KB, and a browser asks for it anew only where it has changed. */
export const PAGE_ROWS = 500;
/** Rows of a page at most. */
export const MOST_ROWS = 5000;

/** Pages that follow one another, as one. */
export function joinedLedger(pages: readonly LedgerView[]): LedgerView {
  const last = pages.findLast((page) => page.served)?.served;
  const of = (address: string): ServedView['servers'] => pages.flatMap((page) => page.served?.servers.filter((one) => one.address === address) ?? []);
  return {
    shown: pages[0]?.shown ?? null,
    purposes: pages[0]?.purposes ?? [],
    rules: pages[0]?.rules ?? [],
    checking: pages[0]?.checking ?? null,
    // As they stand in the plan, which sheets and files follow; the ledger has places of its own.
    rulings: pages.flatMap((page) => page.rulings).sort((a, b) => a.index - b.index),
    remarks: pages.flatMap((page) => page.remarks),
    served: last
      ? {
          servers: last.servers.map((server) => ({
            ...server,
            differs: of(server.address).flatMap((one) => one.differs),
            extras: of(server.address).flatMap((one) => one.extras),
          })),
          lessons: pages.find((page) => page.served)!.served!.lessons,
        }
      : null,
  };
}
