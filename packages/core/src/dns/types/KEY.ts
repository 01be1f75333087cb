import { base64, u16, u8 } from '../fields';
import { recordType } from '../recordType';

/** RFC 2535 §3 */
export const KEY = recordType('KEY', 25, [u16('flags'), u8('protocol'), u8('algorithm'), base64('key')]);
