import { base64, u16, u8 } from '../fields';
import { recordType } from '../recordType';

/** RFC 7344 */
export const CDNSKEY = recordType('CDNSKEY', 60, [u16('flags'), u8('protocol'), u8('algorithm'), base64('key')]);
