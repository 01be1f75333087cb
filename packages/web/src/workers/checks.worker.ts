import { CheckBasis, Name, Remark, RowAsIf, Ruling, checkInputOf, checkRulings, inScope, whatIf } from '@wanderon/core';

/** A plan to hold rows against, and rows as they would be. */
export type CheckAsk =
  | { readonly plan: { readonly zone: string; readonly basis: CheckBasis; readonly rulings: readonly Ruling[] } }
  | { readonly id: number; readonly rows: readonly RowAsIf[] };

export interface CheckAnswer {
  readonly id: number;
  readonly comes: readonly Remark[];
  readonly goes: readonly Remark[];
}

let plan: Extract<CheckAsk, { plan: unknown }>['plan'] | undefined;

/** Every check over the plan as it would be, beside the page: thousands of rows take longer than a key. */
self.onmessage = ({ data }: MessageEvent<CheckAsk>): void => {
  if ('plan' in data) {
    plan = data.plan;
    return;
  }
  if (!plan) return;
  const { zone, basis, rulings } = plan;
  const { comes, goes } = whatIf(checkRulings, checkInputOf(basis, Name.parse(zone), rulings), data.rows);
  const said = (all: readonly Remark[]): Remark[] => all.filter((one) => inScope(basis.scope, one.owner, one.type));
  self.postMessage({ id: data.id, comes: said(comes), goes: said(goes) } satisfies CheckAnswer);
};
