import { parseIpv4, parseIpv6, printIpv4, printIpv6 } from './address';
import { ByteReader, ByteWriter, WireError, decodeBase64, fromUtf8, toBase64 } from './bytes';
import { isDohPath } from './dohPath';
import { decoded, printQuoted, wordOctets, writeOctets } from './fields';
import { decimalOf, plainField } from './recordType';
import { Token, fail } from './token';

/** Keys of RFC 9460 §14.3.2 and RFC 9461. */
const KEYS: Readonly<Record<string, number>> = { mandatory: 0, alpn: 1, 'no-default-alpn': 2, port: 3, ipv4hint: 4, ech: 5, ipv6hint: 6, dohpath: 7 };
/** Later keys print by number, as servers here do. */
const KEY_NAMES = new Map(
  Object.entries(KEYS)
    .filter(([, code]) => code <= 6)
    .map(([name, code]) => [code, name]),
);

/** The parameters of SVCB and HTTPS (RFC 9460 §2.1, appendix A): `key=value`, in the order of their numbers on the wire. */
export const svcParams = plainField(
  'parameters',
  (words, out) => {
    const values = new Map<number, Uint8Array>();
    while (words.left > 0) {
      const token = words.bare('a parameter');
      const equals = token.source.subarray(token.start, token.end).indexOf(61);
      const given = equals >= 0;
      const name = given ? part(token, 0, equals) : token;
      let value = given ? part(token, equals + 1, token.length) : part(token, token.length, token.length);
      // `key="a b"` comes as two words, the second one quoted, with nothing between them.
      const next = words.peek();
      if (given && value.length === 0 && next?.quoted && next.source === token.source && next.start === token.end + 1) value = words.take('a value');
      const code = keyCode(token, name.text);
      if (values.has(code)) fail(token, `${name.text} stands twice`);
      values.set(code, KEYS[name.text] === undefined ? readGeneric(code, value) : readValue(code, value));
    }
    const mandatory = values.get(0);
    if (mandatory) for (const code of readCodes(mandatory)) if (!values.has(code)) fail(words.endToken, `${keyName(code)} is mandatory and missing`);
    if (values.has(2) && !values.has(1)) fail(words.endToken, 'no-default-alpn stands without alpn');
    for (const code of [...values.keys()].sort((a, b) => a - b)) {
      out.u16(code);
      out.u16(values.get(code)!.length);
      out.bytes(values.get(code)!);
    }
  },
  (data, out) => {
    let before = -1;
    while (data.left > 0) {
      const code = data.u16();
      if (code <= before) throw new WireError('parameters are out of order');
      if (before >= 0) out.u8(32);
      before = code;
      printParam(code, data.bytes(data.u16()), out);
    }
  },
  (data) => {
    while (data.left > 0) {
      data.skip(2);
      data.skip(data.u16());
    }
  },
);

/** A piece of a word, as a word of its own. */
function part(token: Token, from: number, to: number): Token {
  return Object.assign(new Token(), token, { start: token.start + from, end: token.start + to });
}

function keyCode(token: Token, name: string): number {
  const known = KEYS[name];
  if (known !== undefined) return known;
  const generic = /^key(0|[1-9]\d{0,4})$/.exec(name);
  if (!generic || Number(generic[1]) > 0xffff) fail(token, `${name} is not a parameter`);
  return Number(generic[1]);
}

function keyName(code: number): string {
  return KEY_NAMES.get(code) ?? `key${code}`;
}

function readValue(code: number, token: Token): Uint8Array {
  const out = new ByteWriter();
  const list = (): string[] => {
    if (token.text === '') fail(token, `${keyName(code)} needs a value`);
    return token.text.split(',');
  };
  switch (code) {
    case 0: {
      const codes = list().map((name) => keyCode(token, name));
      if (codes.includes(0) || new Set(codes).size < codes.length) fail(token, 'mandatory names each other parameter once');
      for (const one of codes.sort((a, b) => a - b)) out.u16(one);
      break;
    }
    case 1:
      for (const protocol of splitList(octetsOf(token))) {
        if (protocol.length === 0 || protocol.length > 255) fail(token, 'a protocol has 1 to 255 octets');
        out.u8(protocol.length);
        out.bytes(protocol);
      }
      break;
    case 2:
      if (token.text !== '') fail(token, 'no-default-alpn takes no value');
      break;
    case 3:
      out.u16(
        decimalOf(Object.assign(part(token, 0, token.length), { quoted: false })) === undefined ? fail(token, 'port must be a number') : Number(token.text),
      );
      if (Number(token.text) > 0xffff) fail(token, 'port must be at most 65535');
      break;
    case 4:
    case 6:
      for (const address of list())
        out.bytes((code === 4 ? parseIpv4(address) : parseIpv6(address)) ?? fail(token, `${address} is not an ${code === 4 ? 'IPv4' : 'IPv6'} address`));
      break;
    case 5:
      out.bytes(decoded(token, 'ech', () => decodeBase64(wordOctets(token))));
      break;
    case 7: {
      const path = octetsOf(token);
      decoded(token, 'dohpath', () => (checkPath(path), path));
      out.bytes(path);
      break;
    }
    default:
      writeOctets(token, out);
  }
  if (out.length > 0xffff) fail(token, `${keyName(code)} is too long`);
  return out.done();
}

/** A parameter given by number has its value as it stands on the wire (RFC 9460 §2.1). */
function readGeneric(code: number, token: Token): Uint8Array {
  const value = octetsOf(token);
  try {
    printParam(code, value, new ByteWriter());
    if (code === 7) checkPath(value);
  } catch (error) {
    if (error instanceof WireError) fail(token, error.message);
    throw error;
  }
  return value;
}

function checkPath(value: Uint8Array): void {
  if (!isDohPath(fromUtf8(value))) throw new WireError('dohpath is a path with {?dns}');
}

function octetsOf(token: Token): Uint8Array {
  const out = new ByteWriter();
  writeOctets(token, out);
  return out.done();
}

/** Commas part the values, a backslash keeps one from doing so (RFC 9460 appendix A.1). */
function splitList(octets: Uint8Array): Uint8Array[] {
  const items: number[][] = [[]];
  for (let i = 0; i < octets.length; i++) {
    if (octets[i] === 92 && i + 1 < octets.length) items.at(-1)!.push(octets[++i]!);
    else if (octets[i] === 44) items.push([]);
    else items.at(-1)!.push(octets[i]!);
  }
  return items.map((item) => Uint8Array.from(item));
}

function readCodes(value: Uint8Array): number[] {
  const data = new ByteReader(value);
  const codes: number[] = [];
  while (data.left > 0) codes.push(data.u16());
  return codes;
}

function printParam(code: number, value: Uint8Array, out: ByteWriter): void {
  const data = new ByteReader(value);
  const name = keyName(code);
  const some = (): void => {
    if (value.length === 0) throw new WireError(`${name} is empty`);
  };
  switch (code) {
    case 0: {
      some();
      const codes = readCodes(value);
      if (codes.some((one, index) => one === 0 || (index > 0 && one <= codes[index - 1]!))) throw new WireError('mandatory is out of order');
      return out.ascii(`mandatory=${codes.map(keyName).join(',')}`);
    }
    case 1: {
      some();
      const protocols: Uint8Array[] = [];
      while (data.left > 0) {
        const protocol = data.bytes(data.u8());
        if (protocol.length === 0) throw new WireError('a protocol is empty');
        protocols.push(protocol);
      }
      const escaped = protocols.map((protocol) => [...protocol].flatMap((octet) => (octet === 44 || octet === 92 ? [92, octet] : [octet])));
      const joined = Uint8Array.from(escaped.flatMap((one, index) => (index > 0 ? [44, ...one] : one)));
      out.ascii('alpn=');
      return printQuoted(joined, 0, joined.length, out);
    }
    case 2:
      if (value.length > 0) throw new WireError('no-default-alpn has a value');
      return out.ascii(name);
    case 3: {
      const port = data.u16();
      if (data.left > 0) throw new WireError('a port is two octets');
      return out.ascii(`port=${port}`);
    }
    case 4:
    case 6: {
      some();
      const size = code === 4 ? 4 : 16;
      if (value.length % size !== 0) throw new WireError(`${name} is cut off`);
      const addresses: string[] = [];
      while (data.left > 0) addresses.push((code === 4 ? printIpv4 : printIpv6)(data.bytes(size)));
      return out.ascii(`${name}=${addresses.join(',')}`);
    }
    case 5:
      return out.ascii(value.length === 0 ? name : `ech=${toBase64(value)}`);
    default:
      out.ascii(name);
      if (value.length === 0) return;
      out.u8(61);
      return printQuoted(value, 0, value.length, out);
  }
}
