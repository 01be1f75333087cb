import { parseIpv4, parseIpv6, printIpv4, printIpv6 } from './address';
import { ByteReader, ByteWriter, WireError } from './bytes';
import { readName } from './fields';
import { Name } from './name';
import { Field } from './recordType';
import { TokenReader, fail } from './token';

/** The part of a record that depends on a type octet before it: none, IPv4, IPv6 or a name. */
function parse(kind: number, words: TokenReader, origin: Name, out: ByteWriter): void {
  const token = words.take('gateway');
  switch (kind) {
    case 0:
      if (token.text !== '.') fail(token, 'no gateway is written as a dot');
      return;
    case 1:
      return out.bytes(parseIpv4(token.text) ?? fail(token, `${token.text} is not an IPv4 address`));
    case 2:
      return out.bytes(parseIpv6(token.text) ?? fail(token, `${token.text} is not an IPv6 address`));
    case 3:
      return readName(token, origin).write(out);
    default:
      fail(token, `gateway type ${kind} is unknown`);
  }
}

function print(kind: number, data: ByteReader): string {
  switch (kind) {
    case 0:
      return '.';
    case 1:
      return printIpv4(data.bytes(4));
    case 2:
      return printIpv6(data.bytes(16));
    case 3:
      return Name.read(data).toString();
    default:
      throw new WireError(`gateway type ${kind} is unknown`);
  }
}

/** IPSECKEY (RFC 4025 §2): precedence, gateway type, algorithm, gateway. */
export const ipsecGateway: Field = {
  label: 'gateway',
  parse(words, origin, out) {
    const [precedence, kind, algorithm] = [number(words, 'precedence', 255), number(words, 'gateway type', 3), number(words, 'algorithm', 255)];
    out.u8(precedence);
    out.u8(kind);
    out.u8(algorithm);
    parse(kind, words, origin, out);
  },
  print(data) {
    const [precedence, kind, algorithm] = [data.u8(), data.u8(), data.u8()];
    return `${precedence} ${kind} ${algorithm} ${print(kind, data)}`;
  },
  expand: (message, out) => copy(message, out, 3, (head) => head[1]!),
  names: (data) => namesAfter(data, 3, (head) => head[1]!),
};

/** AMTRELAY (RFC 8777 §4): precedence, discovery bit, relay type, relay. */
export const amtRelay: Field = {
  label: 'relay',
  parse(words, origin, out) {
    const [precedence, discovery, kind] = [number(words, 'precedence', 255), number(words, 'discovery bit', 1), number(words, 'relay type', 3)];
    out.u8(precedence);
    out.u8((discovery << 7) | kind);
    parse(kind, words, origin, out);
  },
  print(data) {
    const [precedence, flags] = [data.u8(), data.u8()];
    return `${precedence} ${flags >> 7} ${flags & 0x7f} ${print(flags & 0x7f, data)}`;
  },
  expand: (message, out) => copy(message, out, 2, (head) => head[1]! & 0x7f),
  names: (data) => namesAfter(data, 2, (head) => head[1]! & 0x7f),
};

function number(words: TokenReader, label: string, most: number): number {
  const token = words.take(label);
  return /^\d{1,3}$/.test(token.text) && Number(token.text) <= most ? Number(token.text) : fail(token, `${label} must be a number up to ${most}`);
}

function copy(message: ByteReader, out: ByteWriter, headLength: number, kindOf: (head: Uint8Array) => number): void {
  const head = message.bytes(headLength);
  out.bytes(head);
  const kind = kindOf(head);
  if (kind === 3) return Name.read(message).write(out);
  const from = message.at;
  print(kind, message);
  out.bytes(message.data.subarray(from, message.at));
}

function namesAfter(data: ByteReader, headLength: number, kindOf: (head: Uint8Array) => number): Name[] {
  const kind = kindOf(data.bytes(headLength));
  if (kind === 3) return [Name.read(data)];
  print(kind, data);
  return [];
}
