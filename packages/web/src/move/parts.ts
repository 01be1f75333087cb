import { LegView, MoveView } from '@wanderon/contract';

/** What each chapter shows beside the head of the move. */
export const PARTS: Readonly<Record<string, readonly ('survey' | 'ledger' | 'watch')[]>> = {
  survey: ['survey'],
  rebuild: ['ledger'],
  timetable: [],
  switch: ['watch', 'ledger'],
  sheet: ['ledger'],
  watch: ['watch'],
  compare: ['survey', 'ledger'],
};

/** The leg that the address names (`?leg=`), or the latest one. */
export function legOf(move: MoveView | undefined, id: string | null): LegView | undefined {
  return move?.legs.find((leg) => leg.id === id) ?? move?.legs.at(-1);
}
