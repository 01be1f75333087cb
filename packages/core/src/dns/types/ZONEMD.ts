import { hex, u32, u8 } from '../fields';
import { recordType } from '../recordType';

/** RFC 8976 §2 */
export const ZONEMD = recordType('ZONEMD', 63, [u32('serial'), u8('scheme'), u8('hash algorithm'), hex('digest')]);
