import { createHmac } from 'node:crypto';
import {
  Message,
  Name,
  RCODE,
  TSIG_ALGORITHMS,
  TsigAlgorithm,
  TsigError,
  TsigKey,
  decodeMessage,
  encodeMessage,
  query,
  readTsig,
  reply,
  signMessage,
  verifyMessage,
} from '@wanderon/core';
import { hasher } from './hasher';

const NOW = 1_800_000_000;
const NAME = Name.parse('our.key.');
const keyOf = (algorithm: TsigAlgorithm, macLength?: number): TsigKey => ({
  name: NAME,
  algorithm,
  secret: new Uint8Array(40).fill(7),
  ...(macLength === undefined ? {} : { macLength }),
});
const REQUEST = encodeMessage(query(Name.parse('zone.example.'), 6, { id: 99 }));
const SIZES: Record<TsigAlgorithm, number> = { 'hmac-sha1': 20, 'hmac-sha224': 28, 'hmac-sha256': 32, 'hmac-sha384': 48, 'hmac-sha512': 64 };

const failure = (act: () => unknown): string => {
  try {
    act();
    return 'taken';
  } catch (error) {
    if (error instanceof TsigError) return error.kind;
    throw error;
  }
};
const check = (raw: Uint8Array, key: TsigKey, now = NOW): string => failure(() => verifyMessage(raw, decodeMessage(raw), key, now, hasher));

describe('TSIG', () => {
  it.each(TSIG_ALGORITHMS)('%s: the MAC is what RFC 8945 §4.3 says, and one changed octet is noticed', (algorithm) => {
    const key = keyOf(algorithm);
    const { message, mac } = signMessage(REQUEST, key, NOW, hasher);
    // Written down from the standard: the message, then key name, class, TTL, algorithm, time, fudge, error, other.
    const wire = (text: string): number[] => [...text.split('.').flatMap((label) => [label.length, ...Buffer.from(label)]), 0];
    const variables = [
      ...wire('our.key'),
      0,
      255,
      0,
      0,
      0,
      0,
      ...wire(algorithm),
      0,
      0,
      ...Buffer.from(NOW.toString(16).padStart(8, '0'), 'hex'),
      1,
      44,
      0,
      0,
      0,
      0,
    ];
    const expected = createHmac(algorithm.slice(5), Buffer.alloc(40, 7)).update(REQUEST).update(Uint8Array.from(variables)).digest();
    expect(Buffer.from(mac).toString('hex')).toBe(expected.toString('hex'));
    expect(mac).toHaveLength(SIZES[algorithm]);
    expect(check(message, key)).toBe('taken');
    for (let at = 12; at < REQUEST.length; at++) {
      const spoiled = message.slice();
      spoiled[at]! ^= 0x20;
      let outcome: string;
      try {
        outcome = check(spoiled, key);
      } catch {
        outcome = 'unreadable';
      }
      // Letter case of the question is covered as well: a signature is over octets.
      expect(outcome).not.toBe('taken');
    }
  });

  it.each(TSIG_ALGORITHMS)('%s: a shortened MAC is sent and taken where the key says so, and never below half', (algorithm) => {
    const half = SIZES[algorithm] / 2;
    const short = keyOf(algorithm, half);
    const { message, mac } = signMessage(REQUEST, short, NOW, hasher);
    expect(mac).toHaveLength(half);
    expect(check(message, short)).toBe('taken');
    expect(check(message, keyOf(algorithm))).toBe('truncated');
    const shorter = signMessage(REQUEST, keyOf(algorithm, half - 1), NOW, hasher).message;
    expect(check(shorter, keyOf(algorithm, half - 1))).toBe('truncated');
    expect(check(signMessage(REQUEST, keyOf(algorithm), NOW, hasher).message, short)).toBe('taken');
  });

  it('tells the clock, the key, the secret and the algorithm apart', () => {
    const key = keyOf('hmac-sha256');
    const { message } = signMessage(REQUEST, key, NOW, hasher);
    expect(check(message, key, NOW + 300)).toBe('taken');
    expect(check(message, key, NOW + 301)).toBe('time');
    expect(check(message, { ...key, name: Name.parse('other.key.') })).toBe('key');
    expect(check(message, { ...key, name: Name.parse('OUR.Key.') })).toBe('taken');
    expect(check(message, { ...key, secret: new Uint8Array(40).fill(8) })).toBe('signature');
    expect(check(message, keyOf('hmac-sha512'))).toBe('key');
    expect(check(REQUEST, key)).toBe('unsigned');
  });

  it('reads the errors of a server', () => {
    const key = keyOf('hmac-sha256');
    const request: Message = decodeMessage(signMessage(REQUEST, key, NOW, hasher).message);
    const priorMac = readTsig(request)!.mac;
    const answer = encodeMessage(reply(request, { rcode: RCODE.NOTAUTH }));
    const other = Uint8Array.of(0, 0, ...Buffer.from((NOW - 5000).toString(16).padStart(8, '0'), 'hex'));
    const told = (error: number): string => {
      const raw = signMessage(answer, key, NOW, hasher, { priorMac, error, other: error === RCODE.BADTIME ? other : new Uint8Array(0) }).message;
      return failure(() => verifyMessage(raw, decodeMessage(raw), key, NOW, hasher, { priorMac }));
    };
    expect([told(RCODE.BADKEY), told(16), told(RCODE.BADTIME), told(RCODE.BADTRUNC), told(0)]).toEqual(['key', 'signature', 'time', 'truncated', 'taken']);
  });
});
