import { WireError } from './bytes';
import { hex, mnemonicNumber, u16 } from './fields';
import { ALGORITHMS, DIGESTS } from './mnemonics';

/** What DS and the types laid out like it hold (RFC 4034 §5.1). */
export const dsFields = [u16('key tag'), mnemonicNumber('algorithm', ALGORITHMS, 1), mnemonicNumber('digest type', DIGESTS, 1), hex('digest')];

/** Octets of a digest, by type: SHA-1, SHA-256, SHA-384 (RFC 4509 §2.1, RFC 6605 §2). */
const DIGEST_LENGTHS: Readonly<Record<number, number>> = { 1: 20, 2: 32, 4: 48 };

export function dsLength(data: Uint8Array): void {
  const wanted = DIGEST_LENGTHS[data[3]!];
  if (wanted !== undefined && data.length - 4 !== wanted)
    throw new WireError(`a digest of type ${data[3]} has ${wanted} octets, this one has ${data.length - 4}`);
}
