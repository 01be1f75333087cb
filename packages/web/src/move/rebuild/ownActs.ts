import { LedgerRow, RowDecision, sameRow } from '@wanderon/core';
import { DecidedRow } from './rowViews';

/** What one act made of a row, and who had decided it before. */
export interface RowChange {
  readonly before: DecidedRow;
  readonly after: DecidedRow;
}

/** A row as it is shown; null: taken out, undefined: not known. */
type Shown = Pick<LedgerRow, 'ruling' | 'planned' | 'decidedBy'> | null | undefined;

/** Acts that are remembered; of one further back the server says what its undo makes. */
const MOST = 200;

/**
 * What this page itself did to rows, so that an undo of it is on the screen with the key and not with the server's answer. What else a person
 * decided meanwhile, and what others made of the rows, is for the server to say: then nothing is foretold.
 */
export class OwnActs {
  private done: (readonly RowChange[])[] = [];
  private undone: (readonly RowChange[])[] = [];

  /** `me`: as who has decided something is said. */
  constructor(private readonly me: string) {}

  did(changes: readonly RowChange[]): void {
    this.done = [...this.done, changes].slice(-MOST);
    this.undone = [];
  }

  /** Rows as an undo leaves them; undefined where that is not known. */
  undo(now: (id: string) => Shown): readonly DecidedRow[] | undefined {
    const last = this.done.pop();
    if (last) this.undone.push(last);
    return this.turned(last, 'after', 'before', now);
  }

  /** Rows as doing it again leaves them. */
  redo(now: (id: string) => Shown): readonly DecidedRow[] | undefined {
    const last = this.undone.pop();
    if (last) this.done.push(last);
    // What somebody else had decided may have been decided by them once more, which looks the same and outlasts it.
    const isOurs = last?.every(({ before }) => before.by === null || before.by === this.me);
    return this.turned(isOurs ? last : undefined, 'before', 'after', now);
  }

  /** Something else was decided, or refused: what comes next is not known here. */
  forget(): void {
    this.done = [];
    this.undone = [];
  }

  private turned(
    changes: readonly RowChange[] | undefined,
    from: keyof RowChange,
    to: keyof RowChange,
    now: (id: string) => Shown,
  ): readonly DecidedRow[] | undefined {
    if (changes?.every((change) => isStill(now(change.after.id), change[from]))) return changes.map((change) => change[to]);
    this.forget();
    return undefined;
  }
}

function isStill(shown: Shown, { row, by }: DecidedRow): boolean {
  return isSameRow(shown, row) && (!shown || shown.decidedBy === by);
}

/** Whether a row is shown as it was decided; both may be of one that was taken out. */
export function isSameRow(shown: Shown, row: RowDecision): boolean {
  return shown && row ? sameRow(shown, row) : shown === row;
}
