import { base64 } from '../fields';
import { recordType } from '../recordType';

/** RFC 7929 */
export const OPENPGPKEY = recordType('OPENPGPKEY', 61, [base64('key')]);
