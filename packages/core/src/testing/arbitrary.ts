import fc from 'fast-check';
import { Name } from '../dns/name';
import { ByteWriter } from '../dns/bytes';

/** Generated DNS data for property tests: any octets, any lengths that the standards allow. */
const label = fc.uint8Array({ minLength: 1, maxLength: 20 });
const hostLabel = fc.stringMatching(/^[a-z0-9]{1,12}$/).map((text) => Uint8Array.from(text, (character) => character.charCodeAt(0)));

export const name = fc.array(fc.oneof(label, hostLabel), { maxLength: 6 }).map((labels) => Name.fromLabels(labels));

const u8 = fc.nat(0xff);
const u16 = fc.nat(0xffff);
const u32 = fc.integer({ min: 0, max: 0xffffffff });
const octets = fc.uint8Array({ minLength: 1, maxLength: 60 });
const string = fc.uint8Array({ maxLength: 255 });

type Part = (out: ByteWriter) => void;
const part = <T>(source: fc.Arbitrary<T>, write: (out: ByteWriter, value: T) => void): fc.Arbitrary<Part> =>
  source.map((value) => (out: ByteWriter) => write(out, value));
const asU8 = part(u8, (out, value) => out.u8(value));
const asU16 = part(u16, (out, value) => out.u16(value));
const asU32 = part(u32, (out, value) => out.u32(value));
const asName = part(name, (out, value) => value.write(out));
const asBytes = part(octets, (out, value) => out.bytes(value));
const asString = part(string, (out, value) => {
  out.u8(value.length);
  out.bytes(value);
});
const asStrings = part(fc.array(string, { minLength: 1, maxLength: 20 }), (out, values) => {
  for (const value of values) {
    out.u8(value.length);
    out.bytes(value);
  }
});
const asTag = part(fc.stringMatching(/^[A-Za-z0-9]{1,15}$/), (out, value) => {
  out.u8(value.length);
  for (const character of value) out.u8(character.charCodeAt(0));
});
const asBits = part(fc.uniqueArray(fc.integer({ min: 1, max: 600 }), { minLength: 1, maxLength: 12 }), (out, codes) => {
  for (let window = 0; window < 3; window++) {
    const here = codes.filter((code) => code >> 8 === window);
    if (here.length === 0) continue;
    const bits = new Uint8Array((Math.max(...here.map((code) => code & 0xff)) >> 3) + 1);
    for (const code of here) bits[(code & 0xff) >> 3]! |= 0x80 >> (code & 7);
    out.u8(window);
    out.u8(bits.length);
    out.bytes(bits);
  }
});

/** How each type's data is laid out, written down from its RFC and not from the code under test. */
const LAYOUTS: Record<string, readonly fc.Arbitrary<Part>[]> = {
  A: [asU32],
  AAAA: [asU32, asU32, asU32, asU32],
  NS: [asName],
  CNAME: [asName],
  DNAME: [asName],
  PTR: [asName],
  SOA: [asName, asName, asU32, asU32, asU32, asU32, asU32],
  MX: [asU16, asName],
  TXT: [asStrings],
  SPF: [asStrings],
  HINFO: [asString, asString],
  RP: [asName, asName],
  AFSDB: [asU16, asName],
  KX: [asU16, asName],
  SRV: [asU16, asU16, asU16, asName],
  NAPTR: [asU16, asU16, asString, asString, asString, asName],
  DS: [asU16, asU8, asU8, asBytes],
  CDS: [asU16, asU8, asU8, asBytes],
  DNSKEY: [asU16, asU8, asU8, asBytes],
  CDNSKEY: [asU16, asU8, asU8, asBytes],
  RRSIG: [asU16, asU8, asU8, asU32, asU32, asU32, asU16, asName, asBytes],
  NSEC: [asName, asBits],
  SSHFP: [asU8, asU8, asBytes],
  TLSA: [asU8, asU8, asU8, asBytes],
  SMIMEA: [asU8, asU8, asU8, asBytes],
  OPENPGPKEY: [asBytes],
  URI: [asU16, asU16, asBytes],
  CAA: [asU8, asTag, asBytes],
  TYPE65400: [asBytes],
  HTTPS: [asU16, asName, asBytes],
};

export const layoutTypes = Object.keys(LAYOUTS);

/** Data of one type, valid on the wire. */
export function dataOf(type: string): fc.Arbitrary<Uint8Array> {
  return fc.tuple(...LAYOUTS[type]!).map((parts) => {
    const out = new ByteWriter();
    for (const write of parts) write(out);
    return out.done();
  });
}
