import { Name } from '../../dns/name';
import { fixedAway } from '../fix';
import { isHostsOwn } from '../ruling';
import { Check, remark } from './check';

/** Data below a DNAME: no server answers it, and some do not take the zone (RFC 6672 §2.4). */
export const belowDname: Check = ({ rulings }) => {
  const owners = rulings.flatMap((row) => (row.type === 'DNAME' && row.planned ? [Name.parse(row.owner)] : []));
  if (owners.length === 0) return [];
  return rulings.flatMap((row) => {
    if (!row.planned || isHostsOwn(row)) return [];
    const owner = Name.parse(row.owner);
    const above = owners.find((one) => owner.isBelow(one));
    return above
      ? [
          remark(
            row,
            'look',
            'below-dname',
            `A DNAME at ${above.toString().replace(/\.$/, '')} answers in its place: what stands here is answered by nobody.`,
            [{ text: 'Take it out.', rows: [fixedAway(row)] }],
          ),
        ]
      : [];
  });
};
