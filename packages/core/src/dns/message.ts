import { ByteReader, ByteWriter, WireError } from './bytes';
import { Name } from './name';
import { expandRdata } from './rdata';
import { CLASS_IN, ResourceRecord } from './record';
import { TYPE_CODES } from './typeNames';

export const OPCODE = { query: 0, notify: 4, update: 5 } as const;

export const RCODE = {
  NOERROR: 0,
  FORMERR: 1,
  SERVFAIL: 2,
  NXDOMAIN: 3,
  NOTIMP: 4,
  REFUSED: 5,
  YXDOMAIN: 6,
  YXRRSET: 7,
  NXRRSET: 8,
  NOTAUTH: 9,
  NOTZONE: 10,
  BADVERS: 16,
  BADKEY: 17,
  BADTIME: 18,
  BADTRUNC: 22,
} as const;

export function rcodeName(code: number): string {
  return Object.entries(RCODE).find(([, value]) => value === code)?.[0] ?? `RCODE${code}`;
}

export interface Question {
  readonly name: Name;
  readonly type: number;
  readonly cls: number;
}

export interface Edns {
  /** Octets that the sender can take over UDP. */
  readonly udpSize: number;
  readonly version: number;
  readonly dnssecOk: boolean;
  readonly options: readonly { readonly code: number; readonly data: Uint8Array }[];
}

/** A DNS message (RFC 1035 §4). In an update (RFC 2136 §2) the sections are zone, prerequisite, update and additional. */
export interface Message {
  readonly id: number;
  readonly response: boolean;
  readonly opcode: number;
  readonly authoritative: boolean;
  readonly truncated: boolean;
  readonly recursionDesired: boolean;
  readonly recursionAvailable: boolean;
  readonly authenticData: boolean;
  readonly checkingDisabled: boolean;
  /** With the upper bits of EDNS where the message carries it. */
  readonly rcode: number;
  readonly questions: readonly Question[];
  readonly answers: readonly ResourceRecord[];
  readonly authorities: readonly ResourceRecord[];
  readonly additionals: readonly ResourceRecord[];
  readonly edns?: Edns | undefined;
  /** A TSIG record stood last (RFC 8945 §5.1); `at` is where it begins. */
  readonly tsig?: { readonly record: ResourceRecord; readonly at: number } | undefined;
}

const EMPTY: Message = {
  id: 0,
  response: false,
  opcode: OPCODE.query,
  authoritative: false,
  truncated: false,
  recursionDesired: false,
  recursionAvailable: false,
  authenticData: false,
  checkingDisabled: false,
  rcode: 0,
  questions: [],
  answers: [],
  authorities: [],
  additionals: [],
};

export function message(parts: Partial<Message>): Message {
  return { ...EMPTY, ...parts };
}

export function query(name: Name, type: number, parts: Partial<Message> = {}): Message {
  return message({
    questions: [{ name, type, cls: CLASS_IN }],
    edns: { udpSize: 1232, version: 0, dnssecOk: false, options: [] },
    ...parts,
  });
}

/** The answer to a message: same id, opcode and question. */
export function reply(to: Message, parts: Partial<Message> = {}): Message {
  return message({
    id: to.id,
    response: true,
    opcode: to.opcode,
    recursionDesired: to.recursionDesired,
    questions: to.questions,
    edns: to.edns ? { udpSize: 1232, version: 0, dnssecOk: to.edns.dnssecOk, options: [] } : undefined,
    ...parts,
  });
}

/** Decodes a whole message. Throws a WireError on anything that is cut off, loops, or runs past its end. */
export function decodeMessage(data: Uint8Array): Message {
  if (data.length < 12) throw new WireError('a message is at least 12 octets');
  const reader = new ByteReader(data);
  const id = reader.u16();
  const flags = reader.u16();
  const counts = [reader.u16(), reader.u16(), reader.u16(), reader.u16()];
  const questions: Question[] = [];
  for (let i = 0; i < counts[0]!; i++) questions.push({ name: Name.read(reader), type: reader.u16(), cls: reader.u16() });
  const section = (count: number): ResourceRecord[] => {
    const records: ResourceRecord[] = [];
    for (let i = 0; i < count; i++) records.push(readRecord(reader));
    return records;
  };
  const answers = section(counts[1]!);
  const authorities = section(counts[2]!);
  const additionals: ResourceRecord[] = [];
  let edns: Edns | undefined;
  let tsig: Message['tsig'];
  let upperRcode = 0;
  for (let i = 0; i < counts[3]!; i++) {
    const at = reader.at;
    const record = readRecord(reader);
    if (tsig) throw new WireError('a TSIG record does not stand last');
    if (record.type === TYPE_CODES.OPT) {
      if (edns) throw new WireError('two OPT records stand in one message');
      edns = readEdns(record);
      upperRcode = Math.floor(record.ttl / 0x1_00_0000) << 4;
    } else if (record.type === TYPE_CODES.TSIG) tsig = { record, at };
    else additionals.push(record);
  }
  if (reader.left > 0) throw new WireError('octets stand after the message');
  return {
    id,
    response: (flags & 0x8000) !== 0,
    opcode: (flags >> 11) & 15,
    authoritative: (flags & 0x400) !== 0,
    truncated: (flags & 0x200) !== 0,
    recursionDesired: (flags & 0x100) !== 0,
    recursionAvailable: (flags & 0x80) !== 0,
    authenticData: (flags & 0x20) !== 0,
    checkingDisabled: (flags & 0x10) !== 0,
    rcode: (flags & 15) | upperRcode,
    questions,
    answers,
    authorities,
    additionals,
    edns,
    tsig,
  };
}

/** Encodes with owner names compressed (RFC 1035 §4.1.4); data is written as it is, which every reader accepts. */
export function encodeMessage(source: Message): Uint8Array {
  const out = new ByteWriter();
  const seen = new Map<string, number>();
  out.u16(source.id);
  out.u16(
    (source.response ? 0x8000 : 0) |
      (source.opcode << 11) |
      (source.authoritative ? 0x400 : 0) |
      (source.truncated ? 0x200 : 0) |
      (source.recursionDesired ? 0x100 : 0) |
      (source.recursionAvailable ? 0x80 : 0) |
      (source.authenticData ? 0x20 : 0) |
      (source.checkingDisabled ? 0x10 : 0) |
      (source.rcode & 15),
  );
  out.u16(source.questions.length);
  out.u16(source.answers.length);
  out.u16(source.authorities.length);
  out.u16(source.additionals.length + (source.edns ? 1 : 0));
  for (const question of source.questions) {
    writeName(question.name, out, seen);
    out.u16(question.type);
    out.u16(question.cls);
  }
  for (const record of [...source.answers, ...source.authorities, ...source.additionals]) writeRecord(record, out, seen);
  if (source.edns) {
    out.u8(0);
    out.u16(TYPE_CODES.OPT);
    out.u16(source.edns.udpSize);
    out.u8(source.rcode >> 4);
    out.u8(source.edns.version);
    out.u16(source.edns.dnssecOk ? 0x8000 : 0);
    const lengthAt = out.length;
    out.u16(0);
    for (const option of source.edns.options) {
      out.u16(option.code);
      out.u16(option.data.length);
      out.bytes(option.data);
    }
    out.patchU16(lengthAt, out.length - lengthAt - 2);
  }
  if (out.length > 0xffff) throw new WireError('a message is at most 65,535 octets');
  return out.done();
}

/**
 * The answer cut to what fits over UDP: whole sections are left out and TC is set (RFC 2181 §9).
 * `size` in octets.
 */
export function encodeWithin(source: Message, size: number): Uint8Array {
  const whole = encodeMessage(source);
  if (whole.length <= size) return whole;
  const withoutExtras = encodeMessage({ ...source, additionals: [] });
  if (withoutExtras.length <= size) return withoutExtras;
  return encodeMessage({ ...source, truncated: true, answers: [], authorities: [], additionals: [] });
}

export function writeRecord(record: ResourceRecord, out: ByteWriter, seen: Map<string, number>): void {
  writeName(record.owner, out, seen);
  out.u16(record.type);
  out.u16(record.cls);
  out.u32(record.ttl);
  out.u16(record.data.length);
  out.bytes(record.data);
}

function readRecord(reader: ByteReader): ResourceRecord {
  const owner = Name.read(reader);
  const type = reader.u16();
  const cls = reader.u16();
  const ttl = reader.u32();
  const length = reader.u16();
  return { owner, type, cls, ttl, data: expandRdata(type, reader, length) };
}

function readEdns(record: ResourceRecord): Edns {
  const reader = new ByteReader(record.data);
  const options: { code: number; data: Uint8Array }[] = [];
  while (reader.left > 0) {
    const code = reader.u16();
    options.push({ code, data: reader.bytes(reader.u16()) });
  }
  return { udpSize: record.cls, version: (record.ttl >> 16) & 0xff, dnssecOk: (record.ttl & 0x8000) !== 0, options };
}

function writeName(name: Name, out: ByteWriter, seen: Map<string, number>): void {
  let rest = name;
  while (rest.labels.length > 0) {
    const at = seen.get(spelling(rest));
    if (at !== undefined) {
      out.u16(0xc000 | at);
      return;
    }
    if (out.length < 0x4000) seen.set(spelling(rest), out.length);
    out.u8(rest.labels[0]!.length);
    out.bytes(rest.labels[0]!);
    rest = rest.parent;
  }
  out.u8(0);
}

/** Names are compressed only onto the same spelling, so that letter case survives. */
function spelling(name: Name): string {
  return name.toString();
}
