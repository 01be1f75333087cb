import { ipv4, u16 } from '../fields';
import { recordType } from '../recordType';

/** RFC 6742 §2.2 */
export const L32 = recordType('L32', 105, [u16('preference'), ipv4('locator')]);
