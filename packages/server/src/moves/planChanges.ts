import { randomUUID } from 'node:crypto';
import { FixedRow, RowDecision, keyOfRow, setKey } from '@wanderon/core';
import { NotNow } from '../refusals';
import { Act, KEPT } from './moveActs';

/** Decides what becomes of a row of the ledger, with its word in the trail. */
export async function rule(
  act: Act,
  id: string,
  row: RowDecision,
  text: string,
  before: unknown,
  meets?: { readonly requirement: string; readonly data: string },
): Promise<void> {
  await act.decide({ kind: 'ruling', subject: id, value: meets ? { row, meets } : { row } }, { kind: 'ruling', text, before, after: row });
}

/** Decides what becomes of rows that are named by owner and type, those that are new included: one decision, which one undo takes back. */
export async function ruleFixed(act: Act, fixed: readonly FixedRow[], text: string): Promise<void> {
  const known = new Map(act.leg.rows.map((row) => [keyOfRow(row), row]));
  const before = fixed.map(({ owner, type }) => known.get(setKey(owner, type)) ?? null);
  const rows = fixed.map(({ row }, index) => ({ id: before[index]?.id ?? randomUUID(), row }));
  await act.decide({ kind: 'rulings', value: { rows } }, { kind: 'ruling', text, before, after: rows });
}

/** The plan may change until the switch; afterwards only what is served is taken into it. Throws a NotNow. */
export function refuseAfterSwitch({ leg }: Act): void {
  if (leg.leg.plan.chosen && leg.leg.ts !== undefined) throw switched();
}

export function switched(): NotNow {
  return new NotNow('The switch is under way: the plan stands.', {
    detail: 'What is served otherwise can be taken into the plan where it is reported.',
    kept: KEPT,
  });
}
