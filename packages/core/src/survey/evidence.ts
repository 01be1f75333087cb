import { RRset } from '../dns/record';
import { plain } from './words';

/** Where record sets were seen, and how. */
export interface Source {
  readonly kind: 'transfer' | 'walk' | 'answer' | 'given';
  /** The server's name and address; undefined for what a person gave, unless it is a server that they named. */
  readonly server: string | undefined;
  readonly address: string | undefined;
  /** The zone's serial at that server then. */
  readonly serial: number | undefined;
}

/** One sighting of a record set, or of its absence. */
export interface Evidence {
  readonly source: Source;
  /** Why its name was asked for, where it was found by questions. */
  readonly because: string | undefined;
  /** What stood there; undefined where the source holds the zone whole and has no such set. */
  readonly seen: Pick<RRset, 'ttl' | 'data'> | undefined;
  /** It is the same data as the inventory's. */
  readonly agrees: boolean;
}

/** A source in words, such as `transfer from ns1.host.example (192.0.2.1) at serial 7`. */
export function sourceWords({ kind, server, address, serial }: Source): string {
  const at = `${plain(server ?? '')} (${address ?? ''})`;
  const serially = serial === undefined ? '' : ` at serial ${serial}`;
  switch (kind) {
    case 'transfer':
      return `transfer from ${at}${serially}`;
    case 'walk':
      return `walk along the chain of ${at}${serially}`;
    case 'answer':
      return `answer of ${at}`;
    case 'given':
      return server === undefined ? 'what you have in hand' : `${at}, which you named`;
  }
}
