import { domain, u16 } from '../fields';
import { recordType } from '../recordType';

/** RFC 1183 §1 */
export const AFSDB = recordType('AFSDB', 18, [u16('subtype'), domain('host')], 'lowered');
