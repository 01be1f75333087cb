import { domain, u16 } from '../fields';
import { recordType } from '../recordType';

/** RFC 1035 §3.3.9 */
export const MX = recordType('MX', 15, [u16('preference'), domain('exchange')], 'compressed');
