import { WireError } from '../bytes';
import { hex, u8 } from '../fields';
import { recordType } from '../recordType';

/** Octets of a fingerprint, by type: SHA-1, SHA-256 (RFC 4255 §3.1.2, RFC 6594). */
const LENGTHS: Readonly<Record<number, number>> = { 1: 20, 2: 32 };

/** RFC 4255 */
export const SSHFP = recordType('SSHFP', 44, [u8('algorithm'), u8('fingerprint type'), hex('fingerprint')], 'as they are', (data) => {
  const wanted = LENGTHS[data[1]!];
  if (wanted !== undefined && data.length - 2 !== wanted)
    throw new WireError(`a fingerprint of type ${data[1]} has ${wanted} octets, this one has ${data.length - 2}`);
});
