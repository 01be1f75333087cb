import { ByteReader, WireError } from '../bytes';
import { domain } from '../fields';
import { Name } from '../name';
import { decimalOf, plainField, recordType } from '../recordType';
import { fail } from '../token';
import { typeCode, typeMnemonic } from '../typeNames';

/** RFC 2535 §5.2: a bit for each type up to 127, without the windows that NSEC has. */
const bits = plainField(
  'types',
  (words, out) => {
    const octets = new Uint8Array(16);
    let used = 0;
    while (words.left > 0) {
      const token = words.bare('types');
      const code = typeCode(token.text) ?? decimalOf(token) ?? fail(token, `${token.text} is not a record type`);
      if (code > 127) fail(token, 'the type must be at most 127');
      octets[code >> 3]! |= 0x80 >> (code & 7);
      used = Math.max(used, (code >> 3) + 1);
    }
    out.bytes(octets.subarray(0, used));
  },
  (data, out) => {
    const octets = read(data);
    const codes: number[] = [];
    for (let bit = 0; bit < octets.length * 8; bit++) if (octets[bit >> 3]! & (0x80 >> (bit & 7))) codes.push(bit);
    out.ascii(codes.map((code) => typeMnemonic(code).replace(/^TYPE/, '')).join(' '));
  },
  (data) => data.skip(data.left),
);

function read(data: ByteReader): Uint8Array {
  const octets = data.rest();
  if (octets.length > 16 || octets.at(-1) === 0) throw new WireError('a type bit map has 16 octets at most, and no 0 at its end');
  return octets;
}

/** RFC 2535 §5; the bit of type 0 says that the map has another form, which servers do not load (§5.2). */
export const NXT = recordType('NXT', 30, [domain('next name'), bits], 'lowered', (data) => {
  const reader = new ByteReader(data);
  Name.read(reader);
  if (reader.left > 0 && (reader.u8() & 0x80) !== 0) throw new WireError('an NXT record cannot name type 0');
});
