import { sha1 } from '@noble/hashes/legacy.js';
import { sha256, sha384 } from '@noble/hashes/sha2.js';
import { equalBytes } from './bytes';
import { keyTag } from './childSync';
import { Name } from './name';

/** Digests that resolvers check by, by their number (RFC 8624 §3.3). */
const DIGESTS: ReadonlyMap<number, (data: Uint8Array) => Uint8Array> = new Map([
  [1, sha1],
  [2, sha256],
  [4, sha384],
]);

/** Flags of a DNSKEY: it signs zones (RFC 4034 §2.1.1), and it was revoked (RFC 5011 §3). */
const ZONE_KEY = 0x0100;
const REVOKED = 0x0080;

/**
 * Whether a DS stands for a key of the zone `owner`, by tag, algorithm and digest (RFC 4034 §5.1.4, RFC 4509 §2, RFC 6605 §2); data as
 * in a message. Undefined where its digest is of a type that resolvers do not check by: they take the DS for none (RFC 6840 §5.2).
 */
export function dsFits(owner: Name, ds: Uint8Array, key: Uint8Array): boolean | undefined {
  const digest = DIGESTS.get(ds[3] ?? -1);
  if (!digest) return undefined;
  const flags = (key[0]! << 8) | key[1]!;
  if ((flags & ZONE_KEY) === 0 || (flags & REVOKED) !== 0) return false;
  if (((ds[0]! << 8) | ds[1]!) !== keyTag(key) || ds[2] !== key[3]) return false;
  const name = owner.lower.wire;
  const data = new Uint8Array(name.length + key.length);
  data.set(name);
  data.set(key, name.length);
  return equalBytes(digest(data), ds.subarray(4));
}
