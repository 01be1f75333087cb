import { RRsetText, rrsetRead } from '../../dns/record';
import { isAsFound } from '../ruling';
import { Check, remark } from './check';

/** Octets of an answer that goes through every network unbroken (RFC 9715 §3.2), less what header, question and OPT take. */
const PLAIN = 1232 - 60;

/** A set that grows over what one UDP answer carries: it is asked for again over TCP (RFC 7766 §5), and whose network lets none through has nothing. */
export const largeAnswer: Check = ({ rulings }) =>
  rulings.flatMap((row) => {
    if (!row.planned || isAsFound(row)) return [];
    const octets = octetsOf(row.planned);
    // As large as it was before the move, it has been answered so all along.
    if (octets <= PLAIN || (row.found && octetsOf(row.found) > PLAIN)) return [];
    const text = `This set takes ${octets.toLocaleString('en')} octets, more than one answer over UDP carries: it is asked for a second time, over TCP.`;
    return [remark(row, 'look', 'large-answer', text)];
  });

/** Owner names are compressed to a pointer after the first one. */
export function octetsOf(text: RRsetText): number {
  const set = rrsetRead(text);
  return set.owner.size + set.data.reduce((sum, data) => sum + 12 + data.length, 0);
}
