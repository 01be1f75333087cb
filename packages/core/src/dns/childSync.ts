import { ByteWriter, equalBytes } from './bytes';
import { Name } from './name';

/** A digest of a DS record's type (1 SHA-1, 2 SHA-256, 4 SHA-384); undefined for a type that is not known. */
export type Digest = (type: number, data: Uint8Array) => Uint8Array | undefined;

/** RFC 4034 appendix B: the key tag of a DNSKEY's data. */
export function keyTag(data: Uint8Array): number {
  // Algorithm 1 takes it from the modulus (appendix B.1).
  if (data[3] === 1) return ((data[data.length - 3] ?? 0) << 8) | (data[data.length - 2] ?? 0);
  let sum = 0;
  for (let i = 0; i < data.length; i++) sum += i & 1 ? data[i]! : data[i]! << 8;
  return (sum + (sum >> 16)) & 0xffff;
}

/** What a DS record of `owner` for this key has for its digest (RFC 4034 §5.1.4). */
export function dsDigest(owner: Name, key: Uint8Array, type: number, digest: Digest): Uint8Array | undefined {
  const out = new ByteWriter();
  owner.lower.write(out);
  out.bytes(key);
  return digest(type, out.done());
}

/**
 * What is wrong with the CDS and CDNSKEY records at an apex (RFC 7344 §4.1): for every algorithm they name there must be
 * a key that one of them stands for; a request to delete stands alone (RFC 8078 §4).
 */
export function cdsProblem(
  owner: Name,
  keys: readonly Uint8Array[],
  cds: readonly Uint8Array[],
  cdnskeys: readonly Uint8Array[],
  digest?: Digest,
): { type: 'CDS' | 'CDNSKEY'; text: string } | undefined {
  const matchesKey = (record: Uint8Array, key: Uint8Array): boolean => {
    if (keyTag(key) !== ((record[0]! << 8) | record[1]!) || key[3] !== record[2]) return false;
    const made = digest && dsDigest(owner, key, record[3]!, digest);
    return made === undefined || equalBytes(made, record.subarray(4));
  };
  return (
    problemOf('CDS', cds, (record) => record[2]!, (record) => keys.some((key) => matchesKey(record, key)), isCdsDelete) ??
    problemOf('CDNSKEY', cdnskeys, (record) => record[3]!, (record) => keys.some((key) => equalBytes(key, record)), isCdnskeyDelete)
  );
}

function problemOf(
  type: 'CDS' | 'CDNSKEY',
  records: readonly Uint8Array[],
  algorithmOf: (record: Uint8Array) => number,
  hasKey: (record: Uint8Array) => boolean,
  isDelete: (record: Uint8Array) => boolean,
): { type: 'CDS' | 'CDNSKEY'; text: string } | undefined {
  if (records.length > 1 && records.some(isDelete)) return { type, text: `a ${type} record that asks to delete does not stand alone` };
  const named = records.filter((record) => !isDelete(record));
  const lacking = named.find((record) => !named.some((other) => algorithmOf(other) === algorithmOf(record) && hasKey(other)));
  return lacking && { type, text: `no DNSKEY record fits the ${type} records of algorithm ${algorithmOf(lacking)}` };
}

function isCdsDelete(record: Uint8Array): boolean {
  return equalBytes(record, Uint8Array.of(0, 0, 0, 0, 0));
}

function isCdnskeyDelete(record: Uint8Array): boolean {
  return equalBytes(record, Uint8Array.of(0, 0, 3, 0, 0));
}
