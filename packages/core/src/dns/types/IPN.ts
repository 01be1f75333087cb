import { plainField, recordType } from '../recordType';
import { fail } from '../token';

const number = plainField(
  'number',
  (words, out) => {
    const token = words.bare('number');
    const value = /^\d{1,20}$/.test(token.text) ? BigInt(token.text) : fail(token, 'a number was expected');
    if (value >= 1n << 64n) fail(token, 'the number has more than 64 bits');
    out.u32(Number(value >> 32n));
    out.u32(Number(value & 0xffffffffn));
  },
  (data, out) => out.ascii(String((BigInt(data.u32()) << 32n) | BigInt(data.u32()))),
  (data) => data.skip(8),
);

/** IANA registry, a node number of the bundle protocol (RFC 9758) */
export const IPN = recordType('IPN', 264, [number]);
