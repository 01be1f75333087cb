import { LedgerPage, LedgerView, MOST_ROWS, joinedLedger, latestLedger, restOfLedger } from '@wanderon/contract';
import { call } from './call';

/** Rows of a leg, of which some may still be read; `total`: how many there are. */
export type Ledger = LedgerView & { readonly total: number };

/** Milliseconds for which the first rows wait for the others, to be drawn with them at once. */
const SOON = 60;
/** How often a ledger is read anew that changed while its pages were read. */
const AGAIN = 2;

/** The rows of a move of which no leg was known when they were asked for. */
let ofLatest: { readonly move: string; readonly first: Promise<LedgerPage>; readonly rest: Promise<LedgerPage> } | undefined;

const read = (address: string): Promise<LedgerPage> => {
  const page = call<LedgerPage>('GET', address);
  // Whoever wants it hears of a failure.
  page.catch(() => undefined);
  return page;
};

/** Asks for all rows of a move of which nothing is known yet. */
export function askLatestLedger(move: string): void {
  ofLatest = { move, first: read(latestLedger(move)), rest: read(restOfLedger(move)) };
}

/**
 * All rows of a leg. `partly` is given those that are there already where the others take longer. Of thousands of rows few questions are made,
 * and the next one as soon as an answer has come.
 */
export async function readLedger(move: string, leg: string, partly: (ledger: Ledger) => void): Promise<Ledger> {
  let ledger = await readOnce(move, leg, partly);
  for (let again = 0; again < AGAIN && ledger.rulings.length < ledger.total; again++) ledger = await readOnce(move, leg, () => undefined);
  return ledger;
}

async function readOnce(move: string, leg: string, partly: (ledger: Ledger) => void): Promise<Ledger> {
  const address = (after: string | null): string => `/api/legs/${leg}/ledger${after === null ? '' : `?after=${after}&limit=${MOST_ROWS}`}`;
  const ahead = ofLatest?.move === move ? ofLatest : undefined;
  ofLatest = undefined;
  const asked = await ahead?.first;
  // Another leg may have begun since the page was opened elsewhere.
  const isAhead = asked?.leg === leg;
  const pages = [isAhead ? asked : await read(address(null))];
  for (let { next } = pages[0]!; next !== null; next = pages.at(-1)!.next) {
    // Rows may have come in between the two answers.
    const isNext = (page: LedgerPage): boolean => page.leg === leg && page.after === next;
    const coming = isAhead && pages.length === 1 ? ahead!.rest.then((page) => (isNext(page) ? page : read(address(next)))) : read(address(next));
    if (!(await isSoon(coming))) partly(joined(pages));
    pages.push(await coming);
  }
  return joined(pages);
}

/** Pages of which one was read before a change and the next one after it may have a row twice, and lack another: each is there once. */
function joined(pages: readonly LedgerPage[]): Ledger {
  const ledger = joinedLedger(pages);
  const { rulings } = ledger;
  const isTwice = new Set(rulings.map(({ id }) => id)).size < rulings.length;
  return { ...ledger, rulings: isTwice ? [...new Map(rulings.map((row) => [row.id, row])).values()] : rulings, total: pages.at(-1)!.total };
}

async function isSoon(coming: Promise<unknown>): Promise<boolean> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<boolean>((resolve) => {
    timer = setTimeout(resolve, SOON, false);
  });
  const soon = coming.then(
    () => true,
    () => false,
  );
  return Promise.race([soon, late]).finally(() => clearTimeout(timer));
}
