import { string } from '../fields';
import { recordType } from '../recordType';

/** RFC 1712 */
export const GPOS = recordType('GPOS', 27, [string('longitude'), string('latitude'), string('altitude')]);
