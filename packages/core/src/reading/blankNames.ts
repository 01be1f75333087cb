import { isEmptyCell } from './columns';
import { RawRecord, Subject } from './find';
import { readOwner } from './owner';

/**
 * A row without a name is of the domain itself, or of the name above it, as in zone files: below a name that is not the domain itself both
 * are asked. Where the first row has none, there is no name above, and rows without one are of the domain itself.
 *
 *     www A 192.0.2.1
 *         AAAA 2001:db8::1   // www, or the domain itself
 */
export function withNamesAbove(records: readonly RawRecord[], subject: Subject): RawRecord[] {
  if (isNameless(records[0])) return [...records];
  let above: string | undefined;
  return records.map((record) => {
    if (!isNameless(record)) {
      above = record.owner;
      return record;
    }
    const owner = above === undefined ? undefined : readOwner(above, subject);
    if (above === undefined || (owner?.is === 'ours' && owner.owner === '@')) return record;
    return {
      ...record,
      owner: above,
      doubts: [...record.doubts, `No name stands there: is it ${above}, as above, or the domain itself?`],
      other: { owner: '@', value: record.value },
    };
  });
}

function isNameless(record: RawRecord | undefined): boolean {
  return record?.owner !== undefined && isEmptyCell(record.owner);
}
