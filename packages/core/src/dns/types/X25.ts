import { string } from '../fields';
import { recordType } from '../recordType';

/** RFC 1183 §3.1 */
export const X25 = recordType('X25', 19, [string('address')]);
