import { RRset, compareSets, rrsetKey, sameData } from '../dns/record';
import { Evidence, Source } from './evidence';

/** Everything that one source said of a zone. */
export interface Sighting {
  readonly source: Source;
  readonly sets: readonly RRset[];
  /** The source holds the zone whole: what it does not have is not there. */
  readonly complete: boolean;
  readonly because?: (set: RRset) => string | undefined;
}

/** A record set with all that is known of it. */
export interface MergedSet {
  readonly set: RRset;
  readonly evidence: readonly Evidence[];
}

/**
 * One record set for each owner and type, as the strongest source has it, with what every other source says of it.
 * Sources come strongest first. What a person gave is evidence for sets that are served, and adds none; where nothing is served it is
 * all there is.
 */
export function mergeSightings(sightings: readonly Sighting[]): MergedSet[] {
  const chosen = new Map<string, RRset>();
  const maps = sightings.map((sighting) => ({ ...sighting, byKey: new Map(sighting.sets.map((set) => [rrsetKey(set.owner, set.type), set])) }));
  const served = maps.filter(({ source, sets }) => source.kind !== 'given' && sets.length > 0);
  for (const { byKey } of served.length > 0 ? served : maps) {
    for (const [key, set] of byKey) if (!chosen.has(key)) chosen.set(key, set);
  }
  return [...chosen]
    .map(([key, set]) => ({
      set,
      evidence: maps.flatMap(({ source, byKey, complete, because }): Evidence[] => {
        const seen = byKey.get(key);
        if (!seen) return complete ? [{ source, because: undefined, seen: undefined, agrees: false }] : [];
        return [{ source, because: because?.(seen), seen: { ttl: seen.ttl, data: seen.data }, agrees: sameData(set.type, set.data, seen.data) }];
      }),
    }))
    .sort((a, b) => compareSets(a.set, b.set));
}
