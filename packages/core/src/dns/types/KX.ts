import { domain, u16 } from '../fields';
import { recordType } from '../recordType';

/** RFC 2230 */
export const KX = recordType('KX', 36, [u16('preference'), domain('exchanger')], 'lowered');
