import { WireError, fromHex, toHex } from '../bytes';
import { decoded } from '../fields';
import { plainField, recordType } from '../recordType';
import { fail } from '../token';

/** RFC 1706: hexadecimal after `0x`, with dots anywhere. */
const address = plainField(
  'address',
  (words, out) => {
    const token = words.bare('address');
    if (!/^0x[0-9a-f.]+$/i.test(token.text)) fail(token, 'an NSAP address is 0x and hexadecimal digits');
    out.bytes(decoded(token, 'address', () => fromHex(token.text.slice(2).replaceAll('.', ''))));
  },
  (data, out) => {
    if (data.left === 0) throw new WireError('an NSAP address is missing');
    out.ascii(`0x${toHex(data.rest())}`);
  },
  (data) => data.skip(data.left),
);

export const NSAP = recordType('NSAP', 22, [address]);
