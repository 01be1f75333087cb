import { domain, u16 } from '../fields';
import { recordType } from '../recordType';

/** RFC 1183 §3.3 */
export const RT = recordType('RT', 21, [u16('preference'), domain('host')], 'lowered');
