import { parseIpv4, parseIpv6, printIpv4, printIpv6 } from './address';
import { ByteReader, ByteWriter, WireError, fromBase64, toBase64 } from './bytes';
import { printQuoted, readOctets } from './fields';
import { plainField } from './recordType';
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
      const token = words.take('a parameter');
      const [, name, value] = /^([a-z0-9-]+)(?:=(.*))?$/s.exec(token.text) ?? fail(token, 'a parameter is like port=443');
      // `key="a b"` comes as two words, the second one quoted, with nothing between them.
      const quoted = value === '' && words.peek()?.quoted && words.peek()!.column === token.column + token.text.length ? words.take('a value') : undefined;
      const code = keyCode(token, name!);
      if (values.has(code)) fail(token, `${name} stands twice`);
      values.set(code, readValue(code, quoted ?? { ...token, text: value ?? '' }, value !== undefined));
    }
    const mandatory = values.get(0);
    if (mandatory)
      for (const code of readCodes(mandatory))
        if (!values.has(code)) fail(words.peek() ?? { text: '', quoted: false, line: 1, column: 1 }, `${keyName(code)} is mandatory and missing`);
    for (const code of [...values.keys()].sort((a, b) => a - b)) {
      out.u16(code);
      out.u16(values.get(code)!.length);
      out.bytes(values.get(code)!);
    }
  },
  (data) => {
    const parts: string[] = [];
    let before = -1;
    while (data.left > 0) {
      const code = data.u16();
      if (code <= before) throw new WireError('parameters are out of order');
      before = code;
      parts.push(printParam(code, data.bytes(data.u16())));
    }
    return parts.join(' ');
  },
);

function keyCode(token: Token, name: string): number {
  const known = KEYS[name];
  if (known !== undefined) return known;
  const generic = /^key(\d{1,5})$/.exec(name);
  if (!generic || Number(generic[1]) > 65_534) fail(token, `${name} is not a parameter`);
  return Number(generic[1]);
}

function keyName(code: number): string {
  return KEY_NAMES.get(code) ?? `key${code}`;
}

function readValue(code: number, token: Token, given: boolean): Uint8Array {
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
      for (const protocol of splitList(readOctets(token))) {
        if (protocol.length === 0 || protocol.length > 255) fail(token, 'a protocol has 1 to 255 octets');
        out.u8(protocol.length);
        out.bytes(protocol);
      }
      break;
    case 2:
      if (given && token.text !== '') fail(token, 'no-default-alpn takes no value');
      break;
    case 3:
      if (!/^\d{1,5}$/.test(token.text) || Number(token.text) > 0xffff) fail(token, 'port must be a number up to 65535');
      out.u16(Number(token.text));
      break;
    case 4:
    case 6:
      for (const address of list())
        out.bytes((code === 4 ? parseIpv4(address) : parseIpv6(address)) ?? fail(token, `${address} is not an ${code === 4 ? 'IPv4' : 'IPv6'} address`));
      break;
    case 5:
      try {
        out.bytes(fromBase64(list().join(',')));
      } catch (error) {
        if (error instanceof WireError) fail(token, `ech: ${error.message}`);
        throw error;
      }
      break;
    default:
      out.bytes(readOctets(token));
  }
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

function printParam(code: number, value: Uint8Array): string {
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
      return `mandatory=${codes.map(keyName).join(',')}`;
    }
    case 1: {
      some();
      const protocols: Uint8Array[] = [];
      while (data.left > 0) {
        const protocol = data.bytes(data.u8());
        if (protocol.length === 0) throw new WireError('a protocol is empty');
        protocols.push(protocol);
      }
      const escaped = protocols.map((protocol) => Uint8Array.from([...protocol].flatMap((octet) => (octet === 44 || octet === 92 ? [92, octet] : [octet]))));
      return `alpn=${printQuoted(Uint8Array.from(escaped.flatMap((one, index) => (index > 0 ? [44, ...one] : [...one]))))}`;
    }
    case 2:
      if (value.length > 0) throw new WireError('no-default-alpn has a value');
      return name;
    case 3: {
      const port = data.u16();
      if (data.left > 0) throw new WireError('a port is two octets');
      return `port=${port}`;
    }
    case 4:
    case 6: {
      some();
      const size = code === 4 ? 4 : 16;
      if (value.length % size !== 0) throw new WireError(`${name} is cut off`);
      const addresses: string[] = [];
      while (data.left > 0) addresses.push((code === 4 ? printIpv4 : printIpv6)(data.bytes(size)));
      return `${name}=${addresses.join(',')}`;
    }
    case 5:
      some();
      return `ech=${toBase64(value)}`;
    default:
      return value.length === 0 ? name : `${name}=${printQuoted(value)}`;
  }
}
