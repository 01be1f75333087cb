import { hex, u16, u8 } from '../fields';
import { recordType } from '../recordType';

/** RFC 4431 */
export const DLV = recordType('DLV', 32769, [u16('key tag'), u8('algorithm'), u8('digest type'), hex('digest')]);
