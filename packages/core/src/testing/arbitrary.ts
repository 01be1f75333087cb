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

const asSalt = part(fc.uint8Array({ maxLength: 20 }), (out, value) => {
  out.u8(value.length);
  out.bytes(value);
});
const asHash = part(fc.uint8Array({ minLength: 2, maxLength: 32 }), (out, value) => {
  out.u8(value.length);
  out.bytes(value);
});
const asPrecision = part(fc.tuple(fc.integer({ min: 1, max: 9 }), fc.nat(9)), (out, [mantissa, exponent]) => out.u8((mantissa << 4) | exponent));
const asAngle = (most: number): fc.Arbitrary<Part> =>
  part(fc.integer({ min: -most * 3_600_000, max: most * 3_600_000 }), (out, value) => out.u32(0x8000_0000 + value));
const asHip = part(
  fc.tuple(fc.uint8Array({ minLength: 1, maxLength: 30 }), fc.uint8Array({ minLength: 1, maxLength: 40 }), fc.array(name, { maxLength: 3 })),
  (out, [tag, key, servers]) => {
    out.u8(tag.length);
    out.u8(2);
    out.u16(key.length);
    out.bytes(tag);
    out.bytes(key);
    for (const server of servers) server.write(out);
  },
);
const gateway = fc.oneof(
  fc.constant({ kind: 0, write: (): void => undefined }),
  fc.uint8Array({ minLength: 4, maxLength: 4 }).map((octets) => ({ kind: 1, write: (out: ByteWriter): void => out.bytes(octets) })),
  fc.uint8Array({ minLength: 16, maxLength: 16 }).map((octets) => ({ kind: 2, write: (out: ByteWriter): void => out.bytes(octets) })),
  name.map((one) => ({ kind: 3, write: (out: ByteWriter): void => one.write(out) })),
);
const asIpsec = part(fc.tuple(u8, gateway, u8, fc.uint8Array({ maxLength: 40 })), (out, [precedence, { kind, write }, algorithm, key]) => {
  out.u8(precedence);
  out.u8(kind);
  out.u8(algorithm);
  write(out);
  out.bytes(key);
});
const asRelay = part(fc.tuple(u8, fc.boolean(), gateway), (out, [precedence, discovery, { kind, write }]) => {
  out.u8(precedence);
  out.u8((discovery ? 0x80 : 0) | kind);
  write(out);
});
const asPrefixes = part(fc.array(fc.tuple(fc.boolean(), fc.boolean(), fc.uint8Array({ maxLength: 4 }), fc.nat(32)), { maxLength: 4 }), (out, items) => {
  for (const [six, negated, octets, prefix] of items) {
    const used = octets.at(-1) === 0 ? octets.map((octet) => octet || 1) : octets;
    out.u16(six ? 2 : 1);
    out.u8(prefix);
    out.u8((negated ? 0x80 : 0) | used.length);
    out.bytes(used);
  }
});
/** Service parameters: a few of the known ones with a value that fits, and unknown ones with any. */
const asParams = part(
  fc.tuple(
    fc.option(fc.array(fc.uint8Array({ minLength: 1, maxLength: 8 }), { minLength: 1, maxLength: 3 })),
    fc.option(u16),
    fc.option(fc.array(fc.uint8Array({ minLength: 4, maxLength: 4 }), { minLength: 1, maxLength: 3 })),
    fc.option(octets),
    fc.uniqueArray(fc.integer({ min: 8, max: 65_534 }), { maxLength: 3 }),
    string,
  ),
  (out, [protocols, port, hints, ech, others, value]) => {
    const param = (code: number, write: (inner: ByteWriter) => void): void => {
      const inner = new ByteWriter();
      write(inner);
      out.u16(code);
      out.u16(inner.length);
      out.bytes(inner.done());
    };
    if (protocols)
      param(1, (inner) => {
        for (const protocol of protocols) {
          inner.u8(protocol.length);
          inner.bytes(protocol);
        }
      });
    if (port !== null) param(3, (inner) => inner.u16(port));
    if (hints) param(4, (inner) => hints.forEach((hint) => inner.bytes(hint)));
    if (ech) param(5, (inner) => inner.bytes(ech));
    for (const code of others.sort((a, b) => a - b)) param(code, (inner) => inner.bytes(value));
  },
);

const asPlainBits = part(fc.uint8Array({ maxLength: 15 }), (out, value) => {
  out.bytes(value);
  out.u8(1);
});
const asAtm = part(
  fc.oneof(
    octets.map((value) => [0, ...value]),
    fc.stringMatching(/^\d{1,15}$/).map((text) => [1, ...Array.from(text, (digit) => digit.charCodeAt(0))]),
  ),
  (out, value) => out.bytes(Uint8Array.from(value)),
);
const asA6 = part(fc.tuple(fc.nat(128), fc.uint8Array({ minLength: 16, maxLength: 16 }), name), (out, [length, suffix, prefix]) => {
  out.u8(length);
  const rest = suffix.slice(length >> 3);
  // Bits that the prefix gives are 0 here (RFC 2874 §3.1.1).
  if (rest.length > 0) rest[0]! &= 0xff >> (length & 7);
  out.bytes(rest);
  if (length > 0) prefix.write(out);
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
  MB: [asName],
  MG: [asName],
  MR: [asName],
  MINFO: [asName, asName],
  X25: [asString],
  ISDN: [asString, asString],
  RT: [asU16, asName],
  NSAP: [asBytes],
  'NSAP-PTR': [asName],
  SIG: [asU16, asU8, asU8, asU32, asU32, asU32, asU16, asName, asBytes],
  KEY: [asU16, asU8, asU8, asBytes],
  PX: [asU16, asName, asName],
  GPOS: [asString, asString, asString],
  LOC: [part(fc.constant(0), (out, value) => out.u8(value)), asPrecision, asPrecision, asPrecision, asAngle(90), asAngle(180), asU32],
  CERT: [asU16, asU16, asU8, asBytes],
  APL: [asPrefixes],
  IPSECKEY: [asIpsec],
  DHCID: [asBytes],
  NSEC3: [asU8, asU8, asU16, asSalt, asHash, asBits],
  NSEC3PARAM: [asU8, asU8, asU16, asSalt],
  HIP: [asHip],
  NINFO: [asStrings],
  RKEY: [asU16, asU8, asU8, asBytes],
  TALINK: [asName, asName],
  CSYNC: [asU32, asU16, asBits],
  ZONEMD: [asU32, asU8, asU8, asBytes],
  SVCB: [asU16, asName, asParams],
  HTTPS: [asU16, asName, asParams],
  NID: [asU16, asU32, asU32],
  L32: [asU16, asU32],
  L64: [asU16, asU32, asU32],
  LP: [asU16, asName],
  EUI48: [asU32, asU16],
  EUI64: [asU32, asU32],
  AVC: [asStrings],
  AMTRELAY: [asRelay],
  RESINFO: [asStrings],
  WALLET: [asStrings],
  CLA: [asStrings],
  MD: [asName],
  MF: [asName],
  NXT: [asName, asPlainBits],
  EID: [asBytes],
  NIMLOC: [asBytes],
  ATMA: [asAtm],
  A6: [asA6],
  SINK: [asU8, asU8, asU8, asBytes],
  DOA: [asU32, asU32, asU8, asString, asBytes],
  IPN: [asU32, asU32],
  DSYNC: [asU16, asU8, asU16, asName],
  HHIT: [asBytes],
  BRID: [asBytes],
  WKS: [asU32, asU8, asPlainBits],
  TA: [asU16, asU8, asU8, asBytes],
  DLV: [asU16, asU8, asU8, asBytes],
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
