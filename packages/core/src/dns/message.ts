import { ByteReader, ByteWriter, WireError } from './bytes';
import { OPCODE } from './codes';
import { Compressor } from './compressor';
import { Edns, readEdns, writeEdns } from './edns';
import { Name } from './name';
import { NamesRead } from './namesRead';
import { expandRdata } from './rdata';
import { CLASS_IN, ResourceRecord } from './record';
import { TYPE_CODES } from './typeNames';
import { RecordType } from './recordType';
import { RECORD_TYPES } from './types';

export interface Question {
  readonly name: Name;
  readonly type: number;
  readonly cls: number;
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
  /** The header bit that has no meaning (RFC 1035 §4.1.1, Z). */
  readonly reserved: boolean;
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
  reserved: false,
  rcode: 0,
  questions: [],
  answers: [],
  authorities: [],
  additionals: [],
};

export function message(parts: Partial<Message>): Message {
  return { ...EMPTY, ...parts };
}

export function query(name: Name, type: number, parts?: Partial<Message>): Message {
  const asked = { ...EMPTY, questions: [{ name, type, cls: CLASS_IN }], edns: OFFERED };
  return parts ? { ...asked, ...parts } : asked;
}

/** What a question offers: a size that passes most paths unbroken (RFC 9715 §3.1 has the reasons). */
const OFFERED: Edns = { udpSize: 1232, version: 0, dnssecOk: false, options: [] };

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
  NAMES.begin();
  reader.names = NAMES;
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
    reserved: (flags & 0x40) !== 0,
    rcode: (flags & 15) | upperRcode,
    questions,
    answers,
    authorities,
    additionals,
    edns,
    tsig,
  };
}

/** For the message being read. */
const NAMES = new NamesRead();

/** For messages being written; nothing that is called while one is written uses them. */
const OUT = new ByteWriter(4096);
const COMPRESSOR = new Compressor();

/** Encodes with owner names compressed, and names in the data of those types where every reader expects it (RFC 3597 §4). `id` takes the place of the message's own. */
export function encodeMessage(source: Message, id = source.id): Uint8Array {
  const out = OUT;
  out.cut(0);
  COMPRESSOR.begin();
  out.u16(id);
  out.u16(
    (source.response ? 0x8000 : 0) |
      (source.opcode << 11) |
      (source.authoritative ? 0x400 : 0) |
      (source.truncated ? 0x200 : 0) |
      (source.recursionDesired ? 0x100 : 0) |
      (source.recursionAvailable ? 0x80 : 0) |
      (source.authenticData ? 0x20 : 0) |
      (source.checkingDisabled ? 0x10 : 0) |
      (source.reserved ? 0x40 : 0) |
      (source.rcode & 15),
  );
  out.u16(source.questions.length);
  out.u16(source.answers.length);
  out.u16(source.authorities.length);
  out.u16(source.additionals.length + (source.edns ? 1 : 0));
  for (const question of source.questions) {
    COMPRESSOR.write(question.name, out);
    out.u16(question.type);
    out.u16(question.cls);
  }
  for (const record of source.answers) writeRecord(record, out);
  for (const record of source.authorities) writeRecord(record, out);
  for (const record of source.additionals) writeRecord(record, out);
  if (source.edns) writeEdns(source.edns, source.rcode, out);
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

function writeRecord(record: ResourceRecord, out: ByteWriter): void {
  const { type, data } = record;
  COMPRESSOR.write(record.owner, out);
  out.u16(type);
  out.u16(record.cls);
  out.u32(record.ttl);
  const known = data.length > 0 ? RECORD_TYPES.get(type) : undefined;
  if (known?.compressed) {
    const lengthAt = out.length;
    out.u16(0);
    if (writeCompressed(known, data, out)) return out.patchU16(lengthAt, out.length - lengthAt - 2);
    out.cut(lengthAt);
  }
  out.u16(data.length);
  out.bytes(data);
}

/** False where the data does not fit its type, and so cannot be told apart from names. */
function writeCompressed(known: RecordType, data: Uint8Array, out: ByteWriter): boolean {
  const reader = new ByteReader(data);
  try {
    for (const field of known.fields) {
      const from = reader.at;
      if (field.skip) {
        field.skip(reader);
        out.slice(data, from, reader.at);
      } else for (const name of field.names(reader)) COMPRESSOR.write(name, out);
    }
  } catch (error) {
    if (error instanceof WireError) return false;
    throw error;
  }
  return reader.left === 0;
}

function readRecord(reader: ByteReader): ResourceRecord {
  const owner = Name.read(reader);
  const type = reader.u16();
  const cls = reader.u16();
  const ttl = reader.u32();
  const length = reader.u16();
  return { owner, type, cls, ttl, data: expandRdata(type, reader, length) };
}
