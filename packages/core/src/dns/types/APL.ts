import { parseIpv4, parseIpv6, printIpv4, printIpv6 } from '../address';
import { ByteReader, UnknownCodeError, WireError } from '../bytes';
import { plainField, recordType } from '../recordType';
import { fail } from '../token';

/** RFC 3123 §5: `[!]family:address/prefix`, any number of them. */
const items = plainField(
  'address prefixes',
  (words, out) => {
    while (words.left > 0) {
      const token = words.bare('an address prefix');
      const parts = /^(!?)0*([12]):([^/]+)\/(\d+)$/.exec(token.text);
      if (!parts) fail(token, 'an address prefix is like 1:192.0.2.0/24');
      const [, negated, family, address, length] = parts;
      const octets = (family === '1' ? parseIpv4(address!) : parseIpv6(address!)) ?? fail(token, `${address} is not an address of family ${family}`);
      if (Number(length) > octets.length * 8) fail(token, `a prefix of family ${family} is at most ${octets.length * 8}`);
      let used = octets.length;
      while (used > 0 && octets[used - 1] === 0) used -= 1;
      out.u16(Number(family));
      out.u8(Number(length));
      out.u8((negated ? 0x80 : 0) | used);
      out.bytes(octets.subarray(0, used));
    }
  },
  (data, out) => {
    const from = data.at;
    while (data.left > 0) {
      if (data.at > from) out.u8(32);
      out.ascii(printItem(data));
    }
  },
  (data) => {
    while (data.left > 0) {
      data.skip(3);
      data.skip(data.u8() & 0x7f);
    }
  },
);

export const APL = recordType('APL', 42, [items]);

function printItem(data: ByteReader): string {
  const family = data.u16();
  const prefix = data.u8();
  const flags = data.u8();
  const size = family === 1 ? 4 : family === 2 ? 16 : 0;
  const used = flags & 0x7f;
  if (size === 0) {
    data.skip(used);
    throw new UnknownCodeError(`address family ${family} has no text form`);
  }
  if (used > size || prefix > size * 8) throw new WireError('an address prefix is out of range');
  const octets = new Uint8Array(size);
  octets.set(data.bytes(used));
  if (used > 0 && octets[used - 1] === 0) throw new WireError('an address prefix has a zero at its end');
  return `${flags & 0x80 ? '!' : ''}${family}:${family === 1 ? printIpv4(octets) : printIpv6(octets)}/${prefix}`;
}
