import { LedgerPage, MOST_ROWS, latestLedger, restOfLedger } from '@wanderon/contract';
import { call } from './call';

/** The page of a ledger that is under way before it is wanted. */
let onTheWay: { readonly address: string; readonly page: Promise<LedgerPage> } | undefined;
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
 * A page of a ledger, that after a row, or the first. The one after it is asked for at once, and not when this one has been drawn; of thousands
 * of rows few questions are made.
 */
export async function ledgerPage(move: string, leg: string, after: string): Promise<LedgerPage> {
  const address = (row: string): string => `/api/legs/${leg}/ledger${row ? `?after=${row}&limit=${MOST_ROWS}` : ''}`;
  const [way, ahead] = [onTheWay, ofLatest];
  onTheWay = ofLatest = undefined;
  const first = after === '' && ahead?.move === move ? await ahead.first : undefined;
  // Another leg may have begun since the page was opened elsewhere.
  const isAhead = first?.leg === leg;
  const page = isAhead ? first : await (way?.address === address(after) ? way.page : read(address(after)));
  const { next } = page;
  if (next === null) return page;
  const more = (rest: LedgerPage): LedgerPage | Promise<LedgerPage> =>
    // Rows may have come in between the two answers.
    rest.leg === leg && rest.after === next ? rest : read(address(next));
  onTheWay = { address: address(next), page: isAhead ? ahead!.rest.then(more) : read(address(next)) };
  onTheWay.page.catch(() => undefined);
  return page;
}
