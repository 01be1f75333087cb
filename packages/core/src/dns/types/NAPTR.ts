import { domain, string, u16 } from '../fields';
import { recordType } from '../recordType';

/** RFC 3403 §4 */
export const NAPTR = recordType(
  'NAPTR',
  35,
  [u16('order'), u16('preference'), string('flags'), string('services'), string('expression'), domain('replacement')],
  true,
);
