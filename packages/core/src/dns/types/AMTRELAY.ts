import { amtRelay } from '../gateway';
import { recordType } from '../recordType';

/** RFC 8777 §4 */
export const AMTRELAY = recordType('AMTRELAY', 260, [amtRelay]);
