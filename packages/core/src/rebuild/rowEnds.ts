import { RRset, rrsetFromText } from '../dns/record';
import { End, Follower } from '../survey/ends';
import { Ruling, isHostsOwn } from './ruling';
import { plannedSets } from './propose';

/** What the values of one row lead to in the end, by the zone as it was found and as it is planned. */
export interface RowEnds {
  readonly before: readonly End[];
  readonly after: readonly End[];
}

/** `outside`: what names outside the zone had as addresses when it was surveyed; nothing else is known of them. */
export function rowEnds(row: Pick<Ruling, 'found' | 'planned'>, rulings: readonly Ruling[], outside: readonly End[]): RowEnds {
  const of = (set: Ruling['found'], sets: () => readonly RRset[]): readonly End[] => (set ? new Follower(sets(), outside).endsOf(rrsetFromText(set)) : []);
  return {
    before: of(row.found, () => rulings.flatMap(({ found }) => (found ? [rrsetFromText(found)] : []))),
    after: of(row.planned, () =>
      plannedSets(
        rulings.filter((one) => !isHostsOwn(one)),
        'settled',
      ),
    ),
  };
}
