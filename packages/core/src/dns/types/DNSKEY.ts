import { base64, u16, u8 } from '../fields';
import { recordType } from '../recordType';

/** RFC 4034 §2 */
export const DNSKEY = recordType('DNSKEY', 48, [u16('flags'), u8('protocol'), u8('algorithm'), base64('key')]);
