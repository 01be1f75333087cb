import { equalBytes } from './bytes';

/** RFC 4034 appendix B: the key tag of a DNSKEY's data. */
export function keyTag(data: Uint8Array): number {
  // Algorithm 1 takes it from the modulus (appendix B.1).
  if (data[3] === 1) return ((data[data.length - 3] ?? 0) << 8) | (data[data.length - 2] ?? 0);
  let sum = 0;
  for (let i = 0; i < data.length; i++) sum += i & 1 ? data[i]! : data[i]! << 8;
  return (sum + (sum >> 16)) & 0xffff;
}

/** By what a signature, or a CDS, names each of these keys (RFC 4034 §3.1, §5.1): tag and algorithm, as `2371/13`. */
export function keyIds(keys: readonly Uint8Array[]): ReadonlySet<string> {
  return new Set(keys.map((key) => `${keyTag(key)}/${key[3]}`));
}

export interface ChildKeyProblem {
  readonly type: 'CDS' | 'CDNSKEY';
  readonly severity: 'error' | 'warning';
  readonly text: string;
}

/**
 * What is wrong with the CDS and CDNSKEY records at an apex (RFC 7344 §4.1): servers want a key of every algorithm that
 * they name, and that a request to delete stands alone (RFC 8078 §4); a record that stands for no key here is a warning.
 */
export function childKeyProblems(keys: readonly Uint8Array[], cds: readonly Uint8Array[], cdnskeys: readonly Uint8Array[]): ChildKeyProblem[] {
  const tags = keyIds(keys);
  return [
    ...problemsOf('CDS', keys, cds, 2, [0, 0, 0, 0, 0], (record) => tags.has(`${(record[0]! << 8) | record[1]!}/${record[2]}`)),
    ...problemsOf('CDNSKEY', keys, cdnskeys, 3, [0, 0, 3, 0, 0], (record) => keys.some((key) => equalBytes(key, record))),
  ];
}

function problemsOf(
  type: 'CDS' | 'CDNSKEY',
  keys: readonly Uint8Array[],
  records: readonly Uint8Array[],
  algorithmAt: number,
  deletion: readonly number[],
  hasKey: (record: Uint8Array) => boolean,
): ChildKeyProblem[] {
  const deletes = records.filter((record) => equalBytes(record, Uint8Array.from(deletion)));
  if (deletes.length > 0) return records.length > 1 ? [{ type, severity: 'error', text: `a ${type} record that asks to delete does not stand alone` }] : [];
  const algorithms = [...new Set(records.map((record) => record[algorithmAt]!))];
  const lacking = algorithms.filter((algorithm) => !keys.some((key) => key[3] === algorithm));
  if (lacking.length > 0) return [{ type, severity: 'error', text: `no DNSKEY record has algorithm ${lacking.join(', ')} of the ${type} records` }];
  return records.every(hasKey) ? [] : [{ type, severity: 'warning', text: `a ${type} record stands for no DNSKEY record of the zone` }];
}
