import { Instant, SeenBetween } from '@wanderon/core';
import { Facts, ServerAt } from '../moves/leg';

/**
 * Keeps, per server, when it was last seen old and first seen new, under a heading in the facts. Once every server was
 * seen new, gives the interval for all of them: the latest of each end.
 */
export function markSeen(
  facts: Facts,
  heading: string,
  at: Instant,
  servers: readonly (ServerAt & { readonly isNew: boolean })[],
): { facts: Facts; all: SeenBetween | undefined } {
  const seen = { ...facts.seen };
  for (const server of servers) {
    const key = `${heading} ${server.address}`;
    const before = seen[key];
    if (!server.isNew) seen[key] = { lastOld: at };
    else if (before?.firstNew === undefined) seen[key] = { lastOld: before?.lastOld ?? at, firstNew: at };
  }
  const mine = servers.map((server) => seen[`${heading} ${server.address}`]!);
  const complete = mine.length > 0 && mine.every((one) => one.firstNew !== undefined);
  return {
    facts: { seen },
    all: complete ? { lastOld: Math.max(...mine.map((one) => one.lastOld)), firstNew: Math.max(...mine.map((one) => one.firstNew!)) } : undefined,
  };
}
