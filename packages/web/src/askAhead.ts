import { askedFirst } from '@wanderon/contract';
import { QueryClient } from '@tanstack/react-query';
import { CLOCK, ME, ledgerQuery, moveQuery } from './api';
import { askLatestLedger } from './readLedger';
import { legOf } from './move/legOf';

/**
 * Asks for what an address needs before any of its page is there: who is here, what time it is, the move that it is about, and the rows of a
 * ledger that its chapter shows. A failure is told by whoever wants it.
 */
export async function askAhead(queries: QueryClient, { pathname, search }: Pick<Location, 'pathname' | 'search'>): Promise<void> {
  const { of, move } = askedFirst(pathname, search);
  if (!of.me) return;
  void queries.prefetchQuery(ME);
  void queries.prefetchQuery(CLOCK);
  if (move === undefined) return;
  if (of.ledger) askLatestLedger(move);
  await queries.prefetchQuery(moveQuery(move));
  const leg = legOf(queries.getQueryData(moveQuery(move).queryKey), null);
  if (leg && of.ledger) await queries.prefetchQuery(ledgerQuery(move, leg.id));
}
