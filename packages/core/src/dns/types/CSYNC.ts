import { u16, u32 } from '../fields';
import { recordType } from '../recordType';
import { typeBits } from '../typeBits';

/** RFC 7477 §2 */
export const CSYNC = recordType('CSYNC', 62, [u32('serial'), u16('flags'), typeBits('types', { empty: true })]);
