import { QueryClient } from '@tanstack/react-query';
import { ME, ledgerQuery, moveQuery } from './api';
import { PARTS, legOf } from './move/parts';

/**
 * Asks for what an address needs before any of its page is there: who is here, the move that it is about, and the rows of a ledger that its
 * chapter shows. A failure is told by whoever wants it.
 */
export async function askAhead(queries: QueryClient, { pathname, search }: Pick<Location, 'pathname' | 'search'>): Promise<void> {
  // Who has a link to a sheet is asked for no session.
  if (pathname.startsWith('/sheet/')) return;
  void queries.prefetchQuery(ME);
  const [, id, chapter = ''] = /^\/moves\/([0-9a-f]{8}-[0-9a-f-]{27})(?:\/(\w+))?/.exec(pathname) ?? [];
  if (!id) return;
  await queries.prefetchQuery(moveQuery(id));
  const leg = legOf(queries.getQueryData(moveQuery(id).queryKey), new URLSearchParams(search).get('leg'));
  if (leg && PARTS[chapter]?.includes('ledger')) await queries.prefetchInfiniteQuery(ledgerQuery(id, leg.id));
}
