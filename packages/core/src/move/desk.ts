import { Instant } from '../timetable/instant';
import { Next } from './next';

/** Where a move stands on the Desk; the group first, then the moment, the earliest first. */
export interface DeskPlace {
  /** 0: stopped; 1: a person has something to do; 2: Wanderon is at work; 3: nothing is to be done. */
  readonly group: 0 | 1 | 2 | 3;
  /** When it is due; 0: as soon as it can be. */
  readonly due: Instant;
}

/** What comes next of a move, as a place on the Desk. */
export function deskPlaceOf(next: Pick<Next, 'who' | 'failed' | 'dueAt'> | null): DeskPlace {
  if (!next) return { group: 3, due: 0 };
  return { group: next.failed ? 0 : next.who === 'you' ? 1 : 2, due: next.dueAt !== null && Number.isFinite(next.dueAt) ? next.dueAt : 0 };
}

/** For sorting: negative where `a` comes first. */
export function compareOnDesk(a: DeskPlace, b: DeskPlace): number {
  return a.group - b.group || a.due - b.due;
}
