import { WireError, fromHex, toHex } from '../bytes';
import { plainField, recordType } from '../recordType';
import { fail } from '../token';

/** RFC 1706: hexadecimal after `0x`, with dots anywhere. */
const address = plainField(
  'address',
  (words, out) => {
    const token = words.take('address');
    if (!/^0x[0-9a-f.]+$/i.test(token.text)) fail(token, 'an NSAP address is 0x and hexadecimal digits');
    try {
      out.bytes(fromHex(token.text.slice(2).replaceAll('.', '')));
    } catch (error) {
      if (error instanceof WireError) fail(token, error.message);
      throw error;
    }
  },
  (data) => `0x${toHex(data.rest())}`,
);

export const NSAP = recordType('NSAP', 22, [address]);
