import { askedFirst } from '@wanderon/contract';
import { QueryClient } from '@tanstack/react-query';
import { CLOCK, ME, ledgerQuery, moveQuery } from './api';
import { askLatestLedger } from './readLedger';
import { legOf } from './move/legOf';

/**
 * Asks for what an address needs before any of its page is there: who is here, what time it is, the move that it is about, and the rows of a
 * ledger that its chapter shows. Ends where all of it but the rows is there, or has failed, of which whoever wants it is told.
 */
export async function askAhead(queries: QueryClient, { pathname, search }: Pick<Location, 'pathname' | 'search'>): Promise<void> {
  const { of, move } = askedFirst(pathname, search);
  if (!of.me) return;
  const always = [queries.prefetchQuery(ME), queries.prefetchQuery(CLOCK)];
  if (move !== undefined) {
    if (of.ledger) askLatestLedger(move);
    await queries.prefetchQuery(moveQuery(move));
    const leg = legOf(queries.getQueryData(moveQuery(move).queryKey), null);
    if (leg && of.ledger) void queries.prefetchQuery(ledgerQuery(move, leg.id));
  }
  await Promise.all(always);
}
