import { string } from '../fields';
import { recordType } from '../recordType';

/** RFC 1035 §3.3.2 */
export const HINFO = recordType('HINFO', 13, [string('CPU'), string('OS')]);
