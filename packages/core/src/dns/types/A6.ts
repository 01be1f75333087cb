import { parseIpv6, writeIpv6 } from '../address';
import { ByteReader, WireError } from '../bytes';
import { writeName } from '../fields';
import { Name, expandName, printNameAt } from '../name';
import { Field, readNumber, recordType } from '../recordType';
import { fail } from '../token';

/** RFC 2874 §3.1: how many bits a name elsewhere gives, the rest of the address, and that name. */
const prefixed: Field = {
  label: 'address',
  parse(words, origin, out) {
    const length = readNumber(words.take('prefix length'), 'prefix length', 128);
    out.u8(length);
    if (length < 128) {
      const token = words.bare('address suffix');
      const octets = parseIpv6(token.text) ?? fail(token, `${token.text} is not an IPv6 address`);
      const from = length >> 3;
      octets[from]! &= 0xff >> (length & 7);
      out.slice(octets, from, 16);
    }
    if (length > 0) writeName(words.bare('prefix name'), origin, out);
  },
  print(data, out) {
    const { length, suffix } = head(data);
    if (suffix.length > 0 && (suffix[0]! & ~(0xff >> (length & 7))) !== 0) throw new WireError('bits that the prefix gives are 0 in the suffix');
    out.decimal(length);
    if (length < 128) {
      const octets = new Uint8Array(16);
      octets.set(suffix, 16 - suffix.length);
      out.u8(32);
      writeIpv6(octets, 0, out);
    }
    if (length > 0) {
      out.u8(32);
      printNameAt(data, out);
    }
  },
  expand(message, out) {
    const from = message.at;
    const { length } = head(message);
    out.slice(message.data, from, message.at);
    if (length > 0) expandName(message, out);
  },
  names(data) {
    return head(data).length > 0 ? [Name.read(data)] : [];
  },
};

function head(data: ByteReader): { length: number; suffix: Uint8Array } {
  const length = data.u8();
  if (length > 128) throw new WireError('a prefix is at most 128 bits');
  return { length, suffix: data.bytes(16 - (length >> 3)) };
}

export const A6 = recordType('A6', 38, [prefixed], 'lowered');
