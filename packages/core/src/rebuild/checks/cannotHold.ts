import { fixedAway } from '../fix';
import { Check, remark } from './check';

/** Sets that the panel of the DNS host has no type for: they are lost there, unless it takes them some other way. */
export const cannotHold: Check = ({ rulings, lacks }) =>
  rulings
    .filter((ruling) => ruling.planned !== undefined && lacks.includes(ruling.type))
    .map((ruling) =>
      remark(ruling, 'stop', 'cannot-hold', `Its new DNS host cannot hold ${ruling.type} records: leave it out if nobody needs it, or choose another host.`, [
        { text: 'Take it out.', rows: [fixedAway(ruling)] },
      ]),
    );
