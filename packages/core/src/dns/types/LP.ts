import { domain, u16 } from '../fields';
import { recordType } from '../recordType';

/** RFC 6742 §2.4 */
export const LP = recordType('LP', 107, [u16('preference'), domain('target')]);
