import { domain, typeBits } from '../fields';
import { recordType } from '../recordType';

/** RFC 4034 §4 */
export const NSEC = recordType('NSEC', 47, [domain('next name'), typeBits('types', { empty: false })]);
