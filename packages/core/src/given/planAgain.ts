import { SetKey, keyOfRow } from '../move/plan';
import { LedgerRow, sameRow } from '../rebuild/ledgerRow';
import { Ruling } from '../rebuild/ruling';

/** A plan that is proposed anew. */
export interface PlanAgain {
  /** What is proposed now, each row under the id that it had in the plan so far, if it was there. */
  readonly proposed: readonly (Ruling & { readonly id: string | undefined })[];
  /** Rows of the plan that become otherwise by it. */
  readonly changed: readonly Pick<Ruling, 'owner' | 'type'>[];
  /** Rows that people decided and of which something else is proposed now than then: they become what is proposed; undefined where nothing is. */
  readonly overruled: readonly { readonly id: string; readonly row: Ruling | undefined; readonly before: LedgerRow | undefined }[];
}

/**
 * What becomes of a plan for which something else is proposed: what people decided of a row stands where the same is proposed for it as
 * before, and gives way where it is not. `proposedBefore`: as it was proposed, `rows`: as it is with what people decided.
 */
export function planAgain(proposedBefore: readonly LedgerRow[], rows: readonly LedgerRow[], proposed: readonly Ruling[]): PlanAgain {
  const was = new Map(proposedBefore.map((row) => [keyOfRow(row), row]));
  const stands = new Map(rows.map((row) => [keyOfRow(row), row]));
  const then = new Map(proposed.map((row) => [keyOfRow(row), row]));
  const changed: Pick<Ruling, 'owner' | 'type'>[] = [];
  const overruled: { id: string; row: Ruling | undefined; before: LedgerRow | undefined }[] = [];
  for (const key of new Set([...then.keys(), ...was.keys(), ...stands.keys()])) {
    const [a, now, b] = [was.get(key), stands.get(key), then.get(key)];
    if (isSame(a, b) || isSame(now, b)) continue;
    const { owner, type } = (b ?? now)!;
    changed.push({ owner, type });
    // Where nobody decided it, what is proposed counts by itself.
    if (now === a) continue;
    const id = now?.id ?? a?.id;
    if (id !== undefined) overruled.push({ id, row: b, before: now });
  }
  const idOf = (key: SetKey): string | undefined => stands.get(key)?.id ?? was.get(key)?.id;
  return { proposed: proposed.map((row) => ({ ...row, id: idOf(keyOfRow(row)) })), changed, overruled };
}

/** The same is proposed, for what was found alike. */
function isSame(a: Ruling | undefined, b: Ruling | undefined): boolean {
  if (!a || !b) return a === b;
  return sameRow(a, b) && sameRow({ ruling: 'carry', planned: a.found }, { ruling: 'carry', planned: b.found });
}
