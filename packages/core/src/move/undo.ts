import { RowDecision } from '../rebuild/ledgerRow';
import { RulingsValue, rowsOf } from '../rebuild/rowWords';
import { ruleWords } from '../rebuild/standingRule';
import { Decision, DecisionKind, standing } from './said';

/** What undo takes back; acts that went out are set right by other acts. */
const UNDOABLE: ReadonlySet<DecisionKind> = new Set([
  'ruling',
  'rulings',
  'rule over',
  'waive',
  'aside',
  'accept TTLs',
  'hint',
  'purpose',
  'stored',
  'done',
  'front',
  'site',
]);

/** A person's last decision that stands and that undo takes back. Decisions are in the order in which they were made. */
export function undoable(decisions: readonly Decision[], person: string): Decision | undefined {
  return standing(decisions).findLast((one) => UNDOABLE.has(one.kind) && one.person === person);
}

/**
 * A person's last undo, where that person has decided nothing else since that undo could take back. Rulings that went when other hosts were
 * chosen do not come back: their rows are gone.
 */
export function redoable(decisions: readonly Decision[], person: string): Decision | undefined {
  const undoes = new Map(decisions.map((one) => [one.id, one.undoes]));
  const redone = new Set(undoes.values());
  // An undo of an undo says nothing of its own.
  const isRedo = (one: Decision): boolean => one.undoes !== null && (undoes.get(one.undoes) ?? null) !== null;
  const since = decisions.slice(decisions.findLastIndex((one) => one.kind === 'hosts') + 1);
  const last = since.findLast((one) => one.person === person && UNDOABLE.has(one.kind) && !isRedo(one) && !(one.undoes !== null && redone.has(one.id)));
  return last && last.undoes !== null ? last : undefined;
}

/** What a decision was about, in words. */
export function decisionWords(decision: Decision): string {
  if (decision.kind === 'ruling') {
    const row = (decision.value as { row: RowDecision } | null)?.row;
    return row ? `${row.owner} ${row.type}` : 'A row taken out';
  }
  if (decision.kind === 'rulings') {
    const { rule } = decision.value as RulingsValue;
    return rule ? `“${ruleWords(rule)}”` : `${rowsOf(decision).length} rows`;
  }
  if (decision.kind === 'rule over') return 'A rule that is over';
  return decision.subject === '' ? decision.kind : `${decision.kind} ${decision.subject.replace('\n', ': ')}`;
}
