import { hex, u16, u8 } from '../fields';
import { recordType } from '../recordType';

/** RFC 7344 */
export const CDS = recordType('CDS', 59, [u16('key tag'), u8('algorithm'), u8('digest type'), hex('digest')]);
