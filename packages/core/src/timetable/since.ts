import { Instant, SeenBetween } from './instant';
import { Sight, isGap } from './runs';

/** The sights of one server, in order. */
export interface Watched<V> {
  readonly server: string;
  readonly address: string;
  readonly sightings: readonly Sight<V>[];
}

export type Since = { readonly all: SeenBetween; readonly lacking: readonly [] } | { readonly all: undefined; readonly lacking: readonly Watched<unknown>[] };

/**
 * Since when every server shows something, as the unbroken run that ends now: the latest of each end. What relapses is no
 * longer true, and a gap breaks a run. Servers that were never seen are left out; where none is left, nothing is known.
 */
export function since<V>(servers: readonly Watched<V>[], holds: (value: V) => boolean, now: Instant): Since {
  const seen = servers.filter((server) => server.sightings.length > 0);
  const lacking: Watched<V>[] = [];
  let lastOld = -Infinity;
  let firstNew = -Infinity;
  for (const server of seen) {
    const one = sinceOf(server.sightings, holds, now);
    if (!one) {
      lacking.push(server);
      continue;
    }
    lastOld = Math.max(lastOld, one.lastOld);
    firstNew = Math.max(firstNew, one.firstNew);
  }
  return lacking.length > 0 || seen.length === 0 ? { all: undefined, lacking } : { all: { lastOld, firstNew }, lacking: [] };
}

/** The same of one server; undefined where it does not show it now. */
export function sinceOf<V>(sightings: readonly Sight<V>[], holds: (value: V) => boolean, now: Instant): SeenBetween | undefined {
  let begin = sightings.length;
  let after = now;
  while (begin > 0 && holds(sightings[begin - 1]!.value) && !isGap(sightings[begin - 1]!, after)) {
    begin -= 1;
    after = sightings[begin]!.first;
  }
  const first = sightings[begin];
  if (!first) return undefined;
  return { lastOld: sightings[begin - 1]?.last ?? first.first, firstNew: first.first };
}
