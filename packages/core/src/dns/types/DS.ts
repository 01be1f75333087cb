import { hex, u16, u8 } from '../fields';
import { recordType } from '../recordType';

/** RFC 4034 §5 */
export const DS = recordType('DS', 43, [u16('key tag'), u8('algorithm'), u8('digest type'), hex('digest')]);
