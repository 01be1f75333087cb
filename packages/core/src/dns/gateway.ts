import { readIpv4, readIpv6, writeIpv4, writeIpv6 } from './address';
import { ByteReader, ByteWriter, UnknownCodeError } from './bytes';
import { writeName } from './fields';
import { Name, expandName, printNameAt } from './name';
import { Field, readNumber } from './recordType';
import { Words, fail } from './token';

/** The part of a record that depends on a type octet before it: none, IPv4, IPv6 or a name. */
function parse(kind: number, words: Words, origin: Name, out: ByteWriter): void {
  const token = words.bare('gateway');
  switch (kind) {
    case 0:
      if (token.text !== '.') fail(token, 'no gateway is written as a dot');
      return;
    case 1:
      return out.bytes(readIpv4(token.source, token.start, token.end) ?? fail(token, `${token.text} is not an IPv4 address`));
    case 2:
      return out.bytes(readIpv6(token.source, token.start, token.end) ?? fail(token, `${token.text} is not an IPv6 address`));
    case 3:
      return writeName(token, origin, out);
    default:
      fail(token, `gateway type ${kind} is unknown`);
  }
}

function print(kind: number, data: ByteReader, out: ByteWriter): void {
  switch (kind) {
    case 0:
      return out.u8(46);
    case 1:
      data.skip(4);
      return writeIpv4(data.data, data.at - 4, out);
    case 2:
      data.skip(16);
      return writeIpv6(data.data, data.at - 16, out);
    case 3:
      return printNameAt(data, out);
    default:
      throw new UnknownCodeError(`gateway type ${kind} is unknown`);
  }
}

/** Moves past a gateway that is no name. An unknown kind may be anything. */
function skip(kind: number, data: ByteReader): void {
  data.skip(kind === 1 ? 4 : kind === 2 ? 16 : kind === 0 ? 0 : data.left);
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
  print(data, out) {
    const [precedence, kind, algorithm] = [data.u8(), data.u8(), data.u8()];
    out.ascii(`${precedence} ${kind} ${algorithm} `);
    print(kind, data, out);
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
  print(data, out) {
    const [precedence, flags] = [data.u8(), data.u8()];
    out.ascii(`${precedence} ${flags >> 7} ${flags & 0x7f} `);
    print(flags & 0x7f, data, out);
  },
  expand: (message, out) => copy(message, out, 2, (head) => head[1]! & 0x7f),
  names: (data) => namesAfter(data, 2, (head) => head[1]! & 0x7f),
};

const number = (words: Words, label: string, most: number): number => readNumber(words.take(label), label, most);

function copy(message: ByteReader, out: ByteWriter, headLength: number, kindOf: (head: Uint8Array) => number): void {
  const head = message.bytes(headLength);
  out.bytes(head);
  const kind = kindOf(head);
  if (kind === 3) return expandName(message, out);
  const from = message.at;
  skip(kind, message);
  out.slice(message.data, from, message.at);
}

function namesAfter(data: ByteReader, headLength: number, kindOf: (head: Uint8Array) => number): Name[] {
  const kind = kindOf(data.bytes(headLength));
  if (kind === 3) return [Name.read(data)];
  skip(kind, data);
  return [];
}
