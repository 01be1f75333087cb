import { locator64, u16 } from '../fields';
import { recordType } from '../recordType';

/** RFC 6742 §2.3 */
export const L64 = recordType('L64', 106, [u16('preference'), locator64('locator')]);
