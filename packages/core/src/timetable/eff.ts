import { longestTtl } from '../dns/ttl';

/** eff(x): seconds that a cache with floor `floor` may keep an answer with TTL `ttl` (RFC 1035 §3.2.1, RFC 2181 §8, RFC 8767 §4). */
export function eff(ttl: number, floor: number): number {
  return Math.max(longestTtl(ttl), floor);
}
