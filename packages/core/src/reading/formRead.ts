import { Name } from '../dns/name';
import { RawRecord, Subject } from './find';

/** What stands around the lines that a form reads. */
export interface Around {
  readonly subject: Subject;
  readonly zone: Name;
  /** The type that the heading above says. */
  readonly type: string | undefined;
  /** The name that stood above, alone in its line. */
  readonly name: string | undefined;
  /** Cells of a heading that stood above, parted from its rows. */
  readonly head: readonly string[] | undefined;
}

export interface FormRead {
  readonly records: readonly RawRecord[];
  /** Lines that were accounted for. */
  readonly read: ReadonlySet<number>;
  /** The heading of a table that has no rows here. */
  readonly head?: readonly string[] | undefined;
}

export interface Row {
  readonly line: number;
  readonly lastLine: number;
  readonly cells: readonly string[];
  /** What stood in brackets behind a value. */
  readonly beside?: { readonly ttl?: string; readonly priority?: string };
}

export const NOTHING: FormRead = { records: [], read: new Set() };
