import { plain } from '../../survey/words';
import { rowAt } from '../fix';
import { Check, remark } from './check';

/**
 * A server stands in the old set and in the new one, such as a secondary that the client or somebody else runs: it goes on serving what it
 * fetches from the old primary, until it is given the new one, which has to let it. It takes no zone whose serial is not higher (RFC 1982,
 * RFC 5936 §1.1).
 */
export const sharedServers: Check = ({ zone, rulings, sharedServers: names }) => {
  const row = rowAt(rulings, zone.toString(), 'NS');
  if (!row || names.length === 0) return [];
  const who = names.map(plain).join(', ');
  const text = `${who} ${names.length === 1 ? 'serves' : 'serve'} the zone before and after. If fed by transfer: give it the new primary, have that one allow it, with a serial above the old one.`;
  return [remark(row, 'look', 'shared-servers', text)];
};
