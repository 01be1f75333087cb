import { keyFields } from '../keyFields';
import { recordType } from '../recordType';

/** RFC 7344 */
export const CDNSKEY = recordType('CDNSKEY', 60, keyFields);
