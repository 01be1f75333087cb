import { RRsetText } from '../dns/record';
import { Entry, enter } from './enter';
import { KnownStyle, styleOf } from './entryStyle';
import { WholeForm, wholeForms } from './wholeForm';

/** What a person does in a panel to one record: `edit` changes `before` into `entry`. */
export interface SheetRow {
  /** Stable: the tick of one row stays with it whatever happens to the others. */
  readonly id: string;
  readonly act: 'delete' | 'edit' | 'add';
  readonly before: Entry | undefined;
  readonly entry: Entry | undefined;
  /** The same in full, where it is not known which of the two the panel wants. */
  readonly whole?: WholeForm | undefined;
}

export interface SheetSet {
  readonly owner: string;
  readonly type: string;
  /** As it stands in the panel now; undefined where it is not there. */
  readonly there: RRsetText | undefined;
  readonly planned: RRsetText | undefined;
  /** Whether the host is to front the name when it is typed. */
  readonly front?: 'on' | 'off' | undefined;
}

/**
 * From what stands in a panel to the plan, in an order that panels allow: what stands in the way goes first (an alias beside addresses,
 * RFC 1034 §3.6.2), then what is there is edited, then the rest is added. Values that stay are left alone.
 */
export function sheetOf(known: KnownStyle | null, zone: string, sets: readonly SheetSet[]): SheetRow[] {
  const style = styleOf(known);
  const rows = sets.flatMap(({ owner, type, there, planned, front }): SheetRow[] => {
    const [before, after] = [there ? enter(style, zone, there) : [], planned ? enter(style, zone, planned) : []];
    const whole = new Map(planned ? wholeForms(known, after, planned) : []);
    const goes = before.filter((one) => !after.some((other) => sameRecord(one, other)));
    const comes = after.filter((one) => !before.some((other) => sameRecord(one, other)));
    const many = Math.max(goes.length, comes.length);
    return Array.from({ length: many }, (_, index): SheetRow => {
      const [was, is] = [goes[index], comes[index]];
      const id = `${owner.toLowerCase()}/${type}/${is ? `${is.priority ?? ''} ${is.value}` : `- ${was!.value}`}`;
      const row = { id, act: was && is ? 'edit' : is ? 'add' : 'delete', before: was, entry: is && front ? { ...is, front } : is } as const;
      return is && whole.has(is) ? { ...row, whole: whole.get(is) } : row;
    });
  });
  const rank = { delete: 0, edit: 1, add: 2 };
  return rows.sort((a, b) => rank[a.act] - rank[b.act]);
}

function sameRecord(a: Entry, b: Entry): boolean {
  return a.name === b.name && a.priority === b.priority && a.value.toLowerCase() === b.value.toLowerCase();
}
