import { ipv4 } from '../fields';
import { recordType } from '../recordType';

/** RFC 1035 §3.4.1 */
export const A = recordType('A', 1, [ipv4('address')]);
