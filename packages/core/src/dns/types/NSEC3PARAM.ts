import { salt, u16, u8 } from '../fields';
import { recordType } from '../recordType';

/** RFC 5155 §4 */
export const NSEC3PARAM = recordType('NSEC3PARAM', 51, [u8('hash algorithm'), u8('flags'), u16('iterations'), salt('salt')]);
