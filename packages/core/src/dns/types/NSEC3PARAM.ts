import { mnemonicNumber, salt, u16, u8 } from '../fields';
import { HASHES } from '../mnemonics';
import { recordType } from '../recordType';

/** RFC 5155 §4 */
export const NSEC3PARAM = recordType('NSEC3PARAM', 51, [mnemonicNumber('hash algorithm', HASHES, 1), u8('flags'), u16('iterations'), salt('salt')]);
