import { Decision, standing } from '../move/said';
import { setKey } from '../move/plan';
import { RULED_LABELS } from './ruling';
import { rowsOf } from './rowWords';

/** One thing that somebody decided or wrote about a row. */
export interface RowEvent {
  readonly decision: Decision;
  readonly text: string;
  /** It was taken back since. */
  readonly undone: boolean;
}

/** What was decided about one row and what was written beside it, the newest first; takings back stand with what they take back. */
export interface RowHistory {
  readonly events: readonly RowEvent[];
  readonly comments: readonly RowEvent[];
}

/** `id`: the row's own; decisions about its name, and comments, go by owner and type, and outlive the proposals. */
export function rowHistory(
  decisions: readonly Decision[],
  { id, owner, type }: { readonly id: string; readonly owner: string; readonly type: string },
): RowHistory {
  const key = setKey(owner, type);
  const stands = new Set(standing(decisions).map((one) => one.id));
  const as = (decision: Decision, text: string): RowEvent => ({ decision, text, undone: !stands.has(decision.id) });
  const events: RowEvent[] = [];
  const comments: RowEvent[] = [];
  for (const decision of decisions) {
    if (decision.undoes !== null) continue;
    if (decision.kind === 'comment') {
      if (decision.subject === key && stands.has(decision.id)) comments.push(as(decision, (decision.value as { text: string }).text));
      continue;
    }
    const words = wordsOf(decision, id, owner.toLowerCase(), key);
    if (words !== undefined) events.push(as(decision, words));
  }
  return { events: events.reverse(), comments: comments.reverse() };
}

function wordsOf(decision: Decision, id: string, owner: string, key: string): string | undefined {
  const own = rowsOf(decision).find((one) => one.id === id);
  if (own) {
    const many = rowsOf(decision).length;
    const beside = many > 1 ? `, with ${many - 1} more` : '';
    if (!own.row) return `taken out${beside}`;
    const { ruling } = own.row;
    const set = 'owner' in own.row ? own.row.planned : own.row.set;
    const done = RULED_LABELS[ruling];
    return ruling === 'repoint' || ruling === 'new' ? `${done}: ${(set?.data ?? []).join(', ')}${beside}` : `${done}${beside}`;
  }
  if (decision.kind === 'front' && decision.subject === owner) return `answered by the host: ${String(decision.value)}`;
  if (decision.kind === 'purpose' && decision.subject.toLowerCase() === key.replace('/', ' ').toLowerCase()) return `is for ${String(decision.value)}`;
  return undefined;
}
