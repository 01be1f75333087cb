import { ByteReader, WireError, asciiText, fromHex, toHex, utf8 } from '../bytes';
import { decoded } from '../fields';
import { plainField, recordType } from '../recordType';
import { fail } from '../token';

/** The two ways to write an ATM address: `+` and digits (E.164), or hexadecimal; dots may part digits. */
const [AESA, E164] = [0, 1];

const address = plainField(
  'address',
  (words, out) => {
    const token = words.bare('address');
    if (/^\.|^\+\.|\.\.|\.$/.test(token.text)) fail(token, 'a dot stands between digits');
    const digits = token.text.replaceAll('.', '');
    if (digits.startsWith('+')) {
      if (!/^\+\d+$/.test(digits)) fail(token, 'an address that begins with + goes on with digits');
      out.u8(E164);
      out.bytes(utf8(digits.slice(1)));
    } else {
      const octets = decoded(token, 'address', () => fromHex(digits));
      if (octets.length === 0) fail(token, 'the address is empty');
      out.u8(AESA);
      out.bytes(octets);
    }
  },
  (data, out) => out.ascii(print(data)),
  (data) => data.skip(data.left),
);

function print(data: ByteReader): string {
  const format = data.u8();
  const rest = data.rest();
  if (rest.length === 0 || format > E164) throw new WireError('this form of an ATM address is unknown');
  if (format === AESA) return toHex(rest);
  const digits = asciiText(rest);
  if (!/^\d+$/.test(digits)) throw new WireError('an E.164 address is made of digits');
  return `+${digits}`;
}

/** IANA registry, an ATM address */
export const ATMA = recordType('ATMA', 34, [address]);
