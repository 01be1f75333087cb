import { ByteReader, ByteWriter, WireError } from './bytes';
import { BADSIG, RCODE } from './codes';
import { Message } from './message';
import { Name } from './name';
import { CLASS_ANY } from './record';
import { TYPE_CODES } from './typeNames';

/** Algorithms of RFC 8945 §6 that are in use. */
export const TSIG_ALGORITHMS = ['hmac-sha1', 'hmac-sha224', 'hmac-sha256', 'hmac-sha384', 'hmac-sha512'] as const;
export type TsigAlgorithm = (typeof TSIG_ALGORITHMS)[number];

export interface TsigKey {
  readonly name: Name;
  readonly algorithm: TsigAlgorithm;
  readonly secret: Uint8Array;
  /** Octets to which MACs are cut, sent and taken (RFC 8945 §5.2.2.1); whole where absent. */
  readonly macLength?: number;
}

/** Keyed hash and constant-time comparison, given by the caller: core has no cryptography of its own. */
export interface Hasher {
  hmac(algorithm: TsigAlgorithm, secret: Uint8Array, data: Uint8Array): Uint8Array;
  equal(a: Uint8Array, b: Uint8Array): boolean;
}

/** Seconds that clocks may differ (RFC 8945 §10). */
export const TSIG_FUDGE = 300;

export interface TsigFields {
  readonly key: Name;
  readonly algorithm: Name;
  readonly time: number;
  readonly fudge: number;
  readonly mac: Uint8Array;
  readonly originalId: number;
  readonly error: number;
  readonly other: Uint8Array;
}

export type TsigFailure = 'unsigned' | 'key' | 'signature' | 'time' | 'truncated';

/** Raised when a signature does not hold; `kind` tells a wrong key from a wrong signature from a wrong clock. */
export class TsigError extends Error {
  override readonly name = 'TsigError';
  constructor(
    readonly kind: TsigFailure,
    message: string,
  ) {
    super(message);
  }
}

export function readTsig(source: Message): TsigFields | undefined {
  if (!source.tsig) return undefined;
  const { record } = source.tsig;
  const reader = new ByteReader(record.data);
  const algorithm = Name.read(reader);
  const time = reader.u48();
  const fudge = reader.u16();
  const mac = reader.bytes(reader.u16());
  const originalId = reader.u16();
  const error = reader.u16();
  const other = reader.bytes(reader.u16());
  if (reader.left > 0) throw new WireError('a TSIG record is longer than its fields');
  return { key: record.owner, algorithm, time, fudge, mac, originalId, error, other };
}

/**
 * Appends a TSIG record to an encoded message (RFC 8945 §5.1). `time` in seconds since 1970; `priorMac` is the
 * request's MAC when an answer is signed, or the MAC before in a stream.
 */
export function signMessage(
  encoded: Uint8Array,
  key: TsigKey,
  time: number,
  hasher: Hasher,
  options: { priorMac?: Uint8Array; timersOnly?: boolean; error?: number; other?: Uint8Array } = {},
): { message: Uint8Array; mac: Uint8Array } {
  const fields: TsigFields = {
    key: key.name,
    algorithm: algorithmName(key.algorithm),
    time,
    fudge: TSIG_FUDGE,
    mac: new Uint8Array(0),
    originalId: (encoded[0]! << 8) | encoded[1]!,
    error: options.error ?? 0,
    other: options.other ?? new Uint8Array(0),
  };
  const covered = digestInput(encoded, fields, options.priorMac, options.timersOnly ?? false);
  // An answer to a key or signature that failed carries no MAC (RFC 8945 §5.3.2).
  const signed = fields.error === 0 || fields.error === RCODE.BADTIME;
  const mac = signed ? hasher.hmac(key.algorithm, key.secret, covered).subarray(0, key.macLength) : new Uint8Array(0);
  const out = new ByteWriter();
  out.bytes(encoded);
  key.name.write(out);
  out.u16(TYPE_CODES.TSIG);
  out.u16(CLASS_ANY);
  out.u32(0);
  const lengthAt = out.length;
  out.u16(0);
  fields.algorithm.write(out);
  out.u48(fields.time);
  out.u16(fields.fudge);
  out.u16(mac.length);
  out.bytes(mac);
  out.u16(fields.originalId);
  out.u16(fields.error);
  out.u16(fields.other.length);
  out.bytes(fields.other);
  out.patchU16(lengthAt, out.length - lengthAt - 2);
  out.patchU16(10, ((encoded[10]! << 8) | encoded[11]!) + 1);
  return { message: out.done(), mac };
}

/**
 * Checks the TSIG of a received message (RFC 8945 §5.2): key, then signature, then time. Returns its MAC.
 * `between` holds unsigned messages of a stream since the last signed one (§5.3.1).
 */
export function verifyMessage(
  raw: Uint8Array,
  decoded: Message,
  key: TsigKey,
  now: number,
  hasher: Hasher,
  options: { priorMac?: Uint8Array; timersOnly?: boolean; between?: readonly Uint8Array[] } = {},
): Uint8Array {
  const fields = readTsig(decoded);
  if (!fields || !decoded.tsig) throw new TsigError('unsigned', 'the answer is not signed');
  if (!fields.key.equals(key.name) || !fields.algorithm.equals(algorithmName(key.algorithm)))
    throw new TsigError('key', 'the answer is signed with another key');
  // RFC 8945 §5.2.3 wants this answer signed; a server that does not sign it is still no reason to look for a wrong secret.
  if (fields.error === RCODE.BADTIME && fields.mac.length === 0) throw new TsigError('time', `${clockApart(now, fields)}, but does not sign that`);
  if (fields.error === RCODE.BADTRUNC) throw new TsigError('truncated', 'the server wants a longer signature than ours');
  if (fields.error === RCODE.BADKEY) throw new TsigError('key', 'the server does not know the key');
  if (fields.error === BADSIG) throw new TsigError('signature', 'the server says that our signature is wrong: the secret differs');
  const unsigned = raw.slice(0, decoded.tsig.at);
  const count = ((raw[10]! << 8) | raw[11]!) - 1;
  unsigned[10] = count >> 8;
  unsigned[11] = count & 0xff;
  unsigned[0] = fields.originalId >> 8;
  unsigned[1] = fields.originalId & 0xff;
  const covered = digestInput(unsigned, fields, options.priorMac, options.timersOnly ?? false, options.between);
  const expected = hasher.hmac(key.algorithm, key.secret, covered);
  // RFC 8945 §5.2.2.1: a shortened MAC keeps at least 10 octets and half of the hash; ours to say is how short it may be.
  const shortest = Math.max(10, Math.ceil(expected.length / 2), key.macLength ?? expected.length);
  if (fields.mac.length > expected.length || fields.mac.length < shortest)
    throw new TsigError('truncated', `the signature has ${fields.mac.length} octets where ${shortest} are wanted`);
  if (!hasher.equal(fields.mac, expected.subarray(0, fields.mac.length))) throw new TsigError('signature', 'the signature of the answer is wrong');
  if (fields.error === RCODE.BADTIME) throw new TsigError('time', clockApart(now, fields));
  if (Math.abs(now - fields.time) > fields.fudge) throw new TsigError('time', `the answer was signed ${Math.abs(now - fields.time)} s away from our clock`);
  return fields.mac;
}

/** With BADTIME the server tells its own time, in seconds since 1970 (RFC 8945 §5.2.3). */
function clockApart(now: number, { other, time }: TsigFields): string {
  const theirs = other.length === 6 ? new ByteReader(other).u48() : time;
  return `the server says that our clock is ${Math.abs(now - theirs)} s away from its own`;
}

function algorithmName(algorithm: TsigAlgorithm): Name {
  return Name.parse(`${algorithm}.`);
}

function digestInput(
  encoded: Uint8Array,
  fields: TsigFields,
  priorMac: Uint8Array | undefined,
  timersOnly: boolean,
  between: readonly Uint8Array[] = [],
): Uint8Array {
  const out = new ByteWriter();
  if (priorMac) {
    out.u16(priorMac.length);
    out.bytes(priorMac);
  }
  for (const earlier of between) out.bytes(earlier);
  out.bytes(encoded);
  if (timersOnly) {
    out.u48(fields.time);
    out.u16(fields.fudge);
    return out.done();
  }
  fields.key.lower.write(out);
  out.u16(CLASS_ANY);
  out.u32(0);
  fields.algorithm.lower.write(out);
  out.u48(fields.time);
  out.u16(fields.fudge);
  out.u16(fields.error);
  out.u16(fields.other.length);
  out.bytes(fields.other);
  return out.done();
}
