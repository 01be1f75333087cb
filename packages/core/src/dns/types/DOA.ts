import { decodeBase64, toBase64 } from '../bytes';
import { decoded, string, u32, u8 } from '../fields';
import { plainField, recordType } from '../recordType';

/** Base64, or `-` for nothing. */
const content = plainField(
  'data',
  (words, out) => {
    const { first, octets } = words.joined('data');
    if (octets.length === 1 && octets[0] === 45) return;
    out.bytes(decoded(first, 'data', () => decodeBase64(octets)));
  },
  (data, out) => out.ascii(data.left === 0 ? '-' : toBase64(data.rest())),
  (data) => data.skip(data.left),
);

/** IANA registry, a digital object */
export const DOA = recordType('DOA', 259, [u32('enterprise'), u32('type'), u8('location'), string('media type'), content]);
