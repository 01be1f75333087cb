import { eui } from '../fields';
import { recordType } from '../recordType';

/** RFC 7043 §4 */
export const EUI64 = recordType('EUI64', 109, [eui('address', 8)]);
