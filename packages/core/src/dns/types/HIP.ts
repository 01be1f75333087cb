import { ByteReader, ByteWriter, WireError, fromBase64, fromHex, toBase64, toHex } from '../bytes';
import { readName } from '../fields';
import { Name } from '../name';
import { Field, readNumber, recordType } from '../recordType';
import { Token, fail } from '../token';

/** RFC 8005 §5: algorithm, identity tag, public key, and the names of any rendezvous servers. */
const identity: Field = {
  label: 'host identity',
  parse(words, origin, out) {
    const algorithmWord = words.take('algorithm');
    const algorithm = readNumber(algorithmWord, 'algorithm', 255);
    const tag = decode(words.take('identity tag'), fromHex);
    const key = decode(words.take('public key'), fromBase64);
    if (typeof algorithm === 'string') fail(algorithmWord, algorithm);
    if (tag.length === 0 || tag.length > 255) fail(algorithmWord, 'an identity tag has 1 to 255 octets');
    out.u8(tag.length);
    out.u8(algorithm);
    out.u16(key.length);
    out.bytes(tag);
    out.bytes(key);
    while (words.left > 0) readName(words.take('a rendezvous server'), origin).write(out);
  },
  print(data) {
    const { algorithm, tag, key } = head(data);
    return [algorithm, toHex(tag).toUpperCase(), toBase64(key), ...servers(data)].join(' ');
  },
  expand(message, out: ByteWriter) {
    const from = message.at;
    head(message);
    out.bytes(message.data.subarray(from, message.at));
    for (const server of servers(message)) server.write(out);
  },
  names(data) {
    head(data);
    return servers(data);
  },
};

export const HIP = recordType('HIP', 55, [identity]);

function head(data: ByteReader): { algorithm: number; tag: Uint8Array; key: Uint8Array } {
  const [tagLength, algorithm, keyLength] = [data.u8(), data.u8(), data.u16()];
  if (tagLength === 0 || keyLength === 0) throw new WireError('a HIP record lacks its tag or key');
  return { algorithm, tag: data.bytes(tagLength), key: data.bytes(keyLength) };
}

function servers(data: ByteReader): Name[] {
  const names: Name[] = [];
  while (data.left > 0) names.push(Name.read(data));
  return names;
}

function decode(token: Token, read: (text: string) => Uint8Array): Uint8Array {
  try {
    return read(token.text);
  } catch (error) {
    if (error instanceof WireError) fail(token, error.message);
    throw error;
  }
}
