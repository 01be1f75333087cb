import { domain, u16 } from '../fields';
import { recordType } from '../recordType';

/** RFC 2163 */
export const PX = recordType('PX', 26, [u16('preference'), domain('RFC 822 name'), domain('X.400 name')], 'lowered');
