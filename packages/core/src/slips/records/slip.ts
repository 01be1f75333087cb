/** What was found of a set somewhere else than where it belongs: below another domain at the same host, or at another host. */
export interface Astray {
  readonly what: 'domain' | 'host';
  /** The owner that has it there, or the host's name. */
  readonly where: string;
  readonly data: readonly string[];
}

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

/** A slip that explains a whole set; undefined where it does not. */
export type RecordSlip = (wrong: WrongSet) => RecordSlipFound | undefined;

/** One value that is served held against one that is planned and is not: its last field, and what else is known. */
export interface WrongValue {
  readonly wrong: WrongSet;
  readonly type: string;
  /** As served and as planned: the field that is typed last, as a person reads it. */
  readonly is: string;
  readonly was: string;
}

export interface ValueSlipFound extends RecordSlipFound {
  /** How little likely it is: of all values together the explanation that costs least is told. */
  readonly cost: number;
}

/** A slip within one field; undefined where it does not explain how the one became the other. */
export type ValueSlip = (value: WrongValue) => ValueSlipFound | undefined;

/** A name as people read it: without the final dot. */
export const shown = (name: string): string => name.replace(/\.$/, '');

/** A domain or a name below it, as it is typed into a panel that appends the domain. */
export function typedOwner(owner: string, zone: string): string {
  return owner.toLowerCase() === zone.toLowerCase() ? '@, or an empty field,' : owner.slice(0, -zone.length - 1);
}
