import { RecordSlip, shown } from './slip';
import { joined } from './text';

/** Types that stand first in the list of a panel, as which a value is saved when the list was not touched. */
export const TYPES_TAKEN_INSTEAD = ['A', 'CNAME', 'TXT'] as const;

/** The right value, saved as another type. */
export const otherType: RecordSlip = ({ owner, type, planned, served, elsewhere }) => {
  if (served.length > 0) return undefined;
  for (const other of TYPES_TAKEN_INSTEAD) {
    const there = other === type ? undefined : elsewhere(owner, other);
    const is = there?.map((one) => plainValue(one));
    if (is && planned.some((wanted) => is.includes(plainValue(wanted))))
      return { code: 'other type', text: `The value is saved as ${other}: it is to be ${type}. Delete it and add it anew.` };
  }
  return undefined;
};

/** A value as it is typed: text without quotes, names without the final dot. */
function plainValue(data: string): string {
  return shown(data.startsWith('"') ? joined(data) : data).toLowerCase();
}
