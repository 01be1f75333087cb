import { RecordSlip } from '../slip';
import { lastOf, typedValue } from '../typedValue';

/** Types that stand first in the list of a panel, as which a value is saved when the list was not touched; and those that are taken for another. */
export const TYPES_TAKEN_INSTEAD = ['A', 'CNAME', 'TXT', 'MX', 'NS', 'AAAA', 'SPF', 'SRV'] as const;

/** The right value, saved as another type. */
export const otherType: RecordSlip = ({ owner, type, planned, served, elsewhere, rows }) => {
  if (served.length > 0) return undefined;
  const wanted = planned.map((data) => lastOf(typedValue(type, data)).toLowerCase());
  for (const other of TYPES_TAKEN_INSTEAD) {
    if (other === type) continue;
    const own = rows.find((row) => row.type === other && row.owner.toLowerCase() === owner.toLowerCase())?.planned ?? [];
    const there = (elsewhere(owner, other) ?? []).filter((data) => !own.some((one) => one.toLowerCase() === data.toLowerCase()));
    const saved = there.map((data) => lastOf(typedValue(other, data)).toLowerCase());
    // As text a value may stand with all its fields.
    const whole = planned.map((data) => data.replace(/\.$/, '').toLowerCase());
    if (saved.some((text) => wanted.includes(text) || whole.includes(text.replace(/\.$/, ''))))
      return { code: 'other type', text: `The value is saved as ${other}: it is to be ${type}. Delete it and add it anew, as ${type}.` };
  }
  return undefined;
};
