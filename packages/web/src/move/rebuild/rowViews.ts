import { Acted, LedgerView, RulingView } from '@wanderon/contract';
import { LedgerRow, RowDecision, rowSeen } from '@wanderon/core';
import { asRuling } from '../asRuling';
import { isUnserved } from './ledgerRow';

type Remarks = LedgerView['remarks'];

export const ONLY = ['all', 'changing', 'remarks', 'unserved'] as const;
/** Which rows of a ledger are shown. */
export type Only = (typeof ONLY)[number];

export function shows(only: Only, row: RulingView, remarks: number, served: LedgerView['served']): boolean {
  if (only === 'changing') return row.ruling !== 'carry';
  if (only === 'remarks') return remarks > 0;
  return only === 'all' || isUnserved(row, served);
}

export function asLedgerRow(row: RulingView): LedgerRow {
  return { ...asRuling(row), id: row.id, decidedBy: row.decidedBy };
}

/** A row as it is on the screen: what somebody else makes of it meanwhile is not overwritten unseen. */
export function seenOf(row: RulingView): string {
  return rowSeen(asRuling(row));
}

/** A row and what it becomes; null: it is taken out. */
export interface DecidedRow {
  readonly id: string;
  readonly row: RowDecision;
  /** Who is shown to have decided it; null: nobody has. */
  readonly by: string | null;
}

/** As the server's answer tells of it. */
export function asDecided({ id, row }: NonNullable<Acted['rows']>[number], by: string): DecidedRow {
  return { id, row: row && { ...row, found: row.found ?? undefined, planned: row.planned ?? undefined }, by };
}

/** Remarks by the row that they are about. */
export function byRow(rows: readonly RulingView[], remarks: Remarks): (row: RulingView) => Remarks {
  const of = new Map<string, Remarks>();
  for (const remark of remarks) {
    const at = of.get(`${remark.owner}/${remark.type}`);
    if (at) at.push(remark);
    else of.set(`${remark.owner}/${remark.type}`, [remark]);
  }
  // By the row's id from then on: a name is not put together again for each of thousands of rows at each key.
  const ids = new Map(of.size === 0 ? [] : rows.map((row) => [row.id, of.get(`${row.owner}/${row.type}`)]));
  return (row) => ids.get(row.id) ?? NONE;
}
const NONE: Remarks = [];
