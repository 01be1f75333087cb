import { LegView, MoveView } from '@wanderon/contract';

/** The leg that the address names (`?leg=`), or the latest one. */
export function legOf(move: MoveView | undefined, id: string | null): LegView | undefined {
  return move?.legs.find((leg) => leg.id === id) ?? move?.legs.at(-1);
}
