import { base64 } from '../fields';
import { recordType } from '../recordType';

/** RFC 4701 */
export const DHCID = recordType('DHCID', 49, [base64('digest')]);
