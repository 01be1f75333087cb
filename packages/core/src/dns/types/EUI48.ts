import { eui } from '../fields';
import { recordType } from '../recordType';

/** RFC 7043 §3 */
export const EUI48 = recordType('EUI48', 108, [eui('address', 6)]);
