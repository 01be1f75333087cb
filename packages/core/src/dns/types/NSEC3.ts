import { hashedOwner, mnemonicNumber, salt, typeBits, u16, u8 } from '../fields';
import { HASHES } from '../mnemonics';
import { recordType } from '../recordType';

/** RFC 5155 §3 */
export const NSEC3 = recordType('NSEC3', 50, [
  mnemonicNumber('hash algorithm', HASHES, 1),
  u8('flags'),
  u16('iterations'),
  salt('salt'),
  hashedOwner('next hashed owner'),
  typeBits('types', { empty: true }),
]);
