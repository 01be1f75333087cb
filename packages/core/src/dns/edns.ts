import { ByteReader, ByteWriter, fromUtf8 } from './bytes';
import { ResourceRecord } from './record';
import { TYPE_CODES } from './typeNames';

export interface EdnsOption {
  readonly code: number;
  readonly data: Uint8Array;
}

/** What an OPT record carries (RFC 6891 §6.1), the upper bits of the response code aside, which belong to the message. */
export interface Edns {
  /** Octets that the sender can take over UDP. */
  readonly udpSize: number;
  readonly version: number;
  readonly dnssecOk: boolean;
  /** The flags that have no meaning yet: 15 bits. */
  readonly reserved?: number;
  readonly options: readonly EdnsOption[];
}

/** Throws a WireError where options run past their end. */
export function readEdns(record: ResourceRecord): Edns {
  const reader = new ByteReader(record.data);
  const options: EdnsOption[] = [];
  while (reader.left > 0) {
    const code = reader.u16();
    options.push({ code, data: reader.bytes(reader.u16()) });
  }
  const reserved = record.ttl & 0x7fff;
  return {
    udpSize: record.cls,
    version: (record.ttl >>> 16) & 0xff,
    dnssecOk: (record.ttl & 0x8000) !== 0,
    options,
    ...(reserved === 0 ? {} : { reserved }),
  };
}

/** Writes the OPT record, with the upper eight bits of a response code of twelve. */
export function writeEdns(edns: Edns, rcode: number, out: ByteWriter): void {
  out.u8(0);
  out.u16(TYPE_CODES.OPT);
  out.u16(edns.udpSize);
  out.u8(rcode >> 4);
  out.u8(edns.version);
  out.u16((edns.dnssecOk ? 0x8000 : 0) | (edns.reserved ?? 0));
  const lengthAt = out.length;
  out.u16(0);
  for (const option of edns.options) {
    out.u16(option.code);
    out.u16(option.data.length);
    out.bytes(option.data);
  }
  out.patchU16(lengthAt, out.length - lengthAt - 2);
}

/** Option codes that are used here. */
export const EDNS_OPTION = { nsid: 3, cookie: 10, padding: 12, extendedError: 15 } as const;

export interface ExtendedError {
  readonly code: number;
  /** The code in words, of RFC 8914 §4 and the registry after it. */
  readonly meaning: string;
  /** What the server added; may be empty. For people, never for the program. */
  readonly text: string;
}

/** The extended errors of a message (RFC 8914 §2); options too short to be one are passed over. */
export function extendedErrors(edns: Edns | undefined): ExtendedError[] {
  return (edns?.options ?? [])
    .filter((option) => option.code === EDNS_OPTION.extendedError && option.data.length >= 2)
    .map(({ data }) => {
      const code = (data[0]! << 8) | data[1]!;
      // RFC 8914 §2: the text may end in a NUL, which is no part of it.
      let end = data.length;
      while (end > 2 && data[end - 1] === 0) end -= 1;
      return { code, meaning: EXTENDED_ERRORS[code] ?? `code ${code}`, text: fromUtf8(data.subarray(2, end)) };
    });
}

const EXTENDED_ERRORS: readonly string[] = [
  'other error',
  'unsupported DNSKEY algorithm',
  'unsupported DS digest type',
  'stale answer',
  'forged answer',
  'DNSSEC indeterminate',
  'DNSSEC bogus',
  'signature expired',
  'signature not yet valid',
  'DNSKEY missing',
  'RRSIGs missing',
  'no zone key bit set',
  'NSEC missing',
  'cached error',
  'not ready',
  'blocked',
  'censored',
  'filtered',
  'prohibited',
  'stale NXDOMAIN answer',
  'not authoritative',
  'not supported',
  'no nameserver that can be reached',
  'network error',
  'invalid data',
  'signature expired before valid',
  'too early',
  'unsupported NSEC3 iterations value',
  'unable to conform to policy',
  'synthesized',
  'invalid query type',
];
