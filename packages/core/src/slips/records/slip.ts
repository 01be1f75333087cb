import { Astray } from './astray';

/** What a slip is looked for in: one set as a server answers it, against the plan, with what else that server answers. Data in presentation form, sorted. */
export interface WrongSet {
  /** Absolute, with final dot. */
  readonly zone: string;
  readonly owner: string;
  readonly type: string;
  /** Empty where the plan denies it; before the move, empty where it was not there. */
  readonly planned: readonly string[];
  readonly served: readonly string[];
  readonly found: readonly string[];
  /** What the same server answers of another set; undefined where it was not asked. */
  readonly elsewhere: (owner: string, type: string) => readonly string[] | undefined;
  /** Where else it was found, of rows that somebody says are typed. */
  readonly elsewhereFound?: readonly Astray[];
  /** What else is planned: for values of one row that stand in another. */
  readonly rows: readonly { readonly owner: string; readonly type: string; readonly planned: readonly string[] }[];
  /** Says of an address whether the host fronts names with it. */
  readonly isFront: (address: string) => boolean;
}

export interface RecordSlipFound {
  readonly code: string;
  /** What is wrong and what to change, a sentence or two. */
  readonly text: string;
}

/** One slip of people who type records; undefined where it does not explain the set. */
export type RecordSlip = (wrong: WrongSet) => RecordSlipFound | undefined;

export const sameAll = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((text) => b.some((one) => one.toLowerCase() === text.toLowerCase()));

/** Those of `a` that are not among `b`, letter case aside. */
export const without = (a: readonly string[], b: readonly string[]): string[] => a.filter((text) => !b.some((one) => one.toLowerCase() === text.toLowerCase()));

/** A name as people read it: without the final dot. */
export const shown = (name: string): string => name.replace(/\.$/, '');
