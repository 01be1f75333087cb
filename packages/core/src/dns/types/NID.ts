import { locator64, u16 } from '../fields';
import { recordType } from '../recordType';

/** RFC 6742 §2.1 */
export const NID = recordType('NID', 104, [u16('preference'), locator64('node identifier')]);
