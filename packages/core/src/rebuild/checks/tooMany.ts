import { isHostsOwn } from '../ruling';
import { Check, remark } from './check';

/** More records than the new DNS host takes in one zone: the last ones that are typed are refused there. Its own do not count. */
export const tooMany: Check = ({ zone, rulings, most }) => {
  if (most === null) return [];
  const records = rulings.reduce((sum, row) => sum + (isHostsOwn(row) ? 0 : (row.planned?.data.length ?? 0)), 0);
  if (records <= most) return [];
  const text = `Its new DNS host takes ${most} records in a zone, and the plan has ${records}: leave ${records - most} of them out, or choose another host.`;
  return [remark({ owner: zone.toString(), type: 'SOA' }, 'stop', 'too-many', text)];
};
