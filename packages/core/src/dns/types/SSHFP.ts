import { hex, u8 } from '../fields';
import { recordType } from '../recordType';

/** RFC 4255 */
export const SSHFP = recordType('SSHFP', 44, [u8('algorithm'), u8('fingerprint type'), hex('fingerprint')]);
