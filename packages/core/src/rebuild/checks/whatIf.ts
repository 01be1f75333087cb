import { keyOfRow, setKey } from '../../move/plan';
import { Ruling } from '../ruling';
import { Check, CheckInput, Remark } from './check';

/** A row as it would be; undefined: taken out. */
export interface RowAsIf {
  readonly owner: string;
  readonly type: string;
  readonly row: Ruling | undefined;
}

/** What would be said of a plan that is not said of it now, and what would no longer be. */
export interface WhatIf {
  readonly comes: readonly Remark[];
  readonly goes: readonly Remark[];
}

/**
 * What some rows would bring if they were so, before they are. `check`: every check there is, for a plan (`checkRulings`). A remark that
 * says the same of the same row in other words is one that goes and one that comes.
 */
export function whatIf(check: Check, input: CheckInput, rows: readonly RowAsIf[]): WhatIf {
  const asIf = new Map(rows.map((one) => [setKey(one.owner, one.type), one.row]));
  const kept = input.rulings.flatMap((row) => {
    const key = keyOfRow(row);
    if (!asIf.has(key)) return [row];
    const other = asIf.get(key);
    asIf.delete(key);
    return other ? [other] : [];
  });
  const rulings = [...kept, ...[...asIf.values()].filter((row) => row !== undefined)];
  const [before, after] = [check(input), check({ ...input, rulings })];
  const [was, is] = [before, after].map((all) => new Set(all.map(wordsOf)));
  return { comes: after.filter((one) => !was!.has(wordsOf(one))), goes: before.filter((one) => !is!.has(wordsOf(one))) };
}

function wordsOf({ owner, type, weight, code, text }: Remark): string {
  return JSON.stringify([owner.toLowerCase(), type, weight, code, text]);
}
