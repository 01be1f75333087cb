const UNITS: Readonly<Record<string, number>> = { s: 1, m: 60, h: 3600, d: 86_400, w: 604_800 };
const LARGEST = 0xffff_ffff;

/**
 * A TTL in seconds, as a number or with units; undefined if it is neither.
 *
 *     parseTtl('3600')   // 3600
 *     parseTtl('1h30m')  // 5400
 */
export function parseTtl(text: string): number | undefined {
  if (/^\d{1,10}$/.test(text)) return Number(text) <= LARGEST ? Number(text) : undefined;
  if (!/^(\d{1,10}[smhdw])+$/i.test(text)) return undefined;
  let total = 0;
  for (const [, count, unit] of text.toLowerCase().matchAll(/(\d+)([smhdw])/g)) total += Number(count) * UNITS[unit!]!;
  return total <= LARGEST ? total : undefined;
}

/** A TTL as caches read it: 2^31 and more is 0 (RFC 2181 §8). Seconds. */
export function effectiveTtl(ttl: number): number {
  return ttl >= 0x8000_0000 ? 0 : ttl;
}
