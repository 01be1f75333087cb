import { utf8 } from './bytes';
import { Token } from './token';

const LARGEST = 0xffff_ffff;

/**
 * A TTL in seconds, as a number or with units; undefined if it is neither.
 *
 *     parseTtl('3600')   // 3600
 *     parseTtl('1h30m')  // 5400
 */
export function parseTtl(text: string): number | undefined {
  const octets = utf8(text);
  return readTtl(octets, 0, octets.length);
}

/** The TTL that a word stands for. */
export function ttlOf(token: Token): number | undefined {
  return token.quoted ? undefined : readTtl(token.source, token.start, token.end);
}

function readTtl(source: Uint8Array, start: number, end: number): number | undefined {
  let total = 0;
  let count = -1;
  for (let i = start; i < end; i++) {
    const octet = source[i]!;
    if (octet >= 48 && octet <= 57) {
      count = (count < 0 ? 0 : count) * 10 + octet - 48;
      if (count > LARGEST) return undefined;
      continue;
    }
    const unit = unitOf(octet | 32);
    if (count < 0 || unit === 0) return undefined;
    total += count * unit;
    count = -1;
  }
  // A number without a unit stands alone.
  if (count >= 0) return total === 0 ? count : undefined;
  return end > start && total <= LARGEST ? total : undefined;
}

function unitOf(letter: number): number {
  switch (letter) {
    case 115:
      return 1;
    case 109:
      return 60;
    case 104:
      return 3600;
    case 100:
      return 86_400;
    case 119:
      return 604_800;
    default:
      return 0;
  }
}

/** A TTL as caches read it: 2^31 and more is 0 (RFC 2181 §8). Seconds. */
export function effectiveTtl(ttl: number): number {
  return ttl >= 0x8000_0000 ? 0 : ttl;
}

/** What a TTL with its top bit set counts as, in seconds: as long as RFC 8767 §4 has a cache keep anything. */
export const TOP_BIT_TTL = 604_800;

/** A TTL at the longest that a cache may read it, in seconds: with the top bit set it is 0 by RFC 2181 §8 and a large one by RFC 8767 §4. */
export function longestTtl(ttl: number): number {
  return ttl >= 0x8000_0000 ? TOP_BIT_TTL : ttl;
}
