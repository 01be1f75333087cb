import { ipv6 } from '../fields';
import { recordType } from '../recordType';

/** RFC 3596 §2 */
export const AAAA = recordType('AAAA', 28, [ipv6('address')]);
