import { domain } from '../fields';
import { recordType } from '../recordType';
import { typeBits } from '../typeBits';

/** RFC 4034 §4 */
export const NSEC = recordType('NSEC', 47, [domain('next name'), typeBits('types', { empty: false })]);
