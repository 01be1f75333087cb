import { hashedOwner, mnemonicNumber, salt, u16, u8 } from '../fields';
import { WireError } from '../bytes';
import { HASHES } from '../mnemonics';
import { recordType } from '../recordType';
import { typeBits } from '../typeBits';

/** RFC 5155 §3 */
export const NSEC3 = recordType(
  'NSEC3',
  50,
  [
    mnemonicNumber('hash algorithm', HASHES, 1),
    u8('flags'),
    u16('iterations'),
    salt('salt'),
    hashedOwner('next hashed owner'),
    typeBits('types', { empty: true }),
  ],
  'as they are',
  (data) => {
    // Hash algorithm 1 is SHA-1 (RFC 5155 §11).
    const length = data[5 + data[4]!]!;
    if (data[0] === 1 && length !== 20) throw new WireError(`a hash of algorithm 1 has 20 octets, this one has ${length}`);
  },
);
