import { domain, u16 } from '../fields';
import { recordType } from '../recordType';

/** RFC 2782 */
export const SRV = recordType('SRV', 33, [u16('priority'), u16('weight'), u16('port'), domain('target')], 'lowered');
