import { WireError } from '../bytes';
import { hex, u32, u8 } from '../fields';
import { recordType } from '../recordType';

/** Octets of a digest, by hash algorithm: SHA-384, SHA-512 (RFC 8976 §5.3). */
const LENGTHS: Readonly<Record<number, number>> = { 1: 48, 2: 64 };

/** RFC 8976 §2; a digest of an unknown algorithm has at least 12 octets (§2.2.4). */
export const ZONEMD = recordType('ZONEMD', 63, [u32('serial'), u8('scheme'), u8('hash algorithm'), hex('digest')], 'as they are', (data) => {
  const wanted = LENGTHS[data[5]!];
  if (wanted !== undefined && data.length - 6 !== wanted)
    throw new WireError(`a digest of algorithm ${data[5]} has ${wanted} octets, this one has ${data.length - 6}`);
  if (data.length - 6 < 12) throw new WireError('a digest has at least 12 octets');
});
