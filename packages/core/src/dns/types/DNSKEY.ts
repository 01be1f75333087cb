import { keyFields } from '../keyFields';
import { recordType } from '../recordType';

/** RFC 4034 §2 */
export const DNSKEY = recordType('DNSKEY', 48, keyFields);
