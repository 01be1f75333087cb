import { hex, u16, u8 } from '../fields';
import { recordType } from '../recordType';

/** IANA registry */
export const TA = recordType('TA', 32768, [u16('key tag'), u8('algorithm'), u8('digest type'), hex('digest')]);
