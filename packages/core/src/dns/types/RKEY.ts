import { base64, u16, u8 } from '../fields';
import { recordType } from '../recordType';

/** IANA registry */
export const RKEY = recordType('RKEY', 57, [u16('flags'), u8('protocol'), u8('algorithm'), base64('key')]);
