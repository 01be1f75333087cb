import { hashedOwner, salt, typeBits, u16, u8 } from '../fields';
import { recordType } from '../recordType';

/** RFC 5155 §3 */
export const NSEC3 = recordType('NSEC3', 50, [
  u8('hash algorithm'),
  u8('flags'),
  u16('iterations'),
  salt('salt'),
  hashedOwner('next hashed owner'),
  typeBits('types'),
]);
