import { ByteReader, WireError, decodeBase64, decodeHex, toBase64, toHex } from '../bytes';
import { decoded, wordOctets, writeName } from '../fields';
import { Name, expandName, printNameAt } from '../name';
import { Field, readNumber, recordType } from '../recordType';
import { fail } from '../token';

/** RFC 8005 §5: algorithm, identity tag, public key, and the names of any rendezvous servers. */
const identity: Field = {
  label: 'host identity',
  parse(words, origin, out) {
    const algorithm = readNumber(words.take('algorithm'), 'algorithm', 255);
    const tagWord = words.bare('identity tag');
    const tag = decoded(tagWord, 'identity tag', () => decodeHex(wordOctets(tagWord)));
    if (tag.length === 0 || tag.length > 255) fail(tagWord, 'an identity tag has 1 to 255 octets');
    const keyWord = words.bare('public key');
    const key = decoded(keyWord, 'public key', () => decodeBase64(wordOctets(keyWord)));
    if (key.length === 0 || key.length > 0xffff) fail(keyWord, 'a public key has 1 to 65,535 octets');
    out.u8(tag.length);
    out.u8(algorithm);
    out.u16(key.length);
    out.bytes(tag);
    out.bytes(key);
    while (words.left > 0) writeName(words.bare('a rendezvous server'), origin, out);
  },
  print(data, out) {
    const { algorithm, tag, key } = head(data);
    out.ascii(`${algorithm} ${toHex(tag).toUpperCase()} ${toBase64(key)}`);
    while (data.left > 0) {
      out.u8(32);
      printNameAt(data, out);
    }
  },
  expand(message, out) {
    const from = message.at;
    head(message);
    out.slice(message.data, from, message.at);
    while (message.left > 0) expandName(message, out);
  },
  names(data) {
    head(data);
    const names: Name[] = [];
    while (data.left > 0) names.push(Name.read(data));
    return names;
  },
};

export const HIP = recordType('HIP', 55, [identity]);

function head(data: ByteReader): { algorithm: number; tag: Uint8Array; key: Uint8Array } {
  const [tagLength, algorithm, keyLength] = [data.u8(), data.u8(), data.u16()];
  if (tagLength === 0 || keyLength === 0) throw new WireError('a HIP record lacks its tag or key');
  return { algorithm, tag: data.bytes(tagLength), key: data.bytes(keyLength) };
}
