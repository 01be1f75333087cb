import { optionalString, string } from '../fields';
import { recordType } from '../recordType';

/** RFC 1183 §3.2 */
export const ISDN = recordType('ISDN', 20, [string('address'), optionalString('subaddress')]);
