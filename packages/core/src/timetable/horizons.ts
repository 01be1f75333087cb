import { effectiveTtl } from '../dns/ttl';
import { Derived, Instant } from './instant';

/** eff(x): the TTL as a cache with floor `floor` keeps it, in seconds; 2^31 and more reads as 0 (RFC 2181 §8). */
export function eff(ttl: number, floor: number): number {
  return Math.max(effectiveTtl(ttl), floor);
}

const instant = (symbol: string, meaning: string, value: Instant): Derived['terms'][number] => ({ symbol, meaning, value, unit: 'instant' });
const seconds = (symbol: string, meaning: string, value: number): Derived['terms'][number] => ({ symbol, meaning, value, unit: 'seconds' });

/**
 * Until when a record set may be remembered with the TTL it had before it was lowered (RFC 1035 §3.2.1, RFC 2181 §8).
 * `tl`: when every old authority was seen to serve the lowered TTL. `T`: TTL as found.
 */
export function loweredHorizon(input: { tl: Instant; T: number; floor: number; what: string }): Derived {
  return {
    at: input.tl + eff(input.T, input.floor),
    formula: 'tl + eff(T)',
    terms: [
      instant('tl', 'every old authority seen to serve the lowered TTL', input.tl),
      seconds('T', `TTL of ${input.what} as found`, input.T),
      seconds('f', 'floor a cache may apply', input.floor),
    ],
    follows: 'RFC 1035 §3.2.1, RFC 2181 §8',
  };
}

/**
 * Until when a cache may still be led to the old servers: H = max(t0 + eff(P), min(te, t0 + eff(P)) + eff(C')).
 * With `te` absent the old apex NS set was never turned: H = t0 + eff(P) + eff(C').
 * RFC 2181 §5.4.1 (ranking of referral and authoritative NS data), RFC 1034 §4.2.1.
 */
export function delegationHorizon(input: { t0: Instant; P: number; C: number; te: Instant | undefined; floor: number }): Derived {
  const referralEnds = input.t0 + eff(input.P, input.floor);
  const childFetched = input.te === undefined ? referralEnds : Math.min(input.te, referralEnds);
  return {
    at: Math.max(referralEnds, childFetched + eff(input.C, input.floor)),
    formula: input.te === undefined ? "t0 + eff(P) + eff(C')" : "max(t0 + eff(P), min(te, t0 + eff(P)) + eff(C'))",
    terms: [
      instant('t0', 'every parent server seen to publish the new set', input.t0),
      seconds('P', "TTL of the NS set in the parent's referral", input.P),
      seconds("C'", 'TTL of the apex NS set at the old authorities', input.C),
      ...(input.te === undefined ? [] : [instant('te', 'every old authority seen to serve the new apex NS set', input.te)]),
      seconds('f', 'floor a cache may apply', input.floor),
    ],
    follows: 'RFC 2181 §5.4.1',
  };
}

/**
 * Until when the old data of a changed set may be remembered where the old zone goes on serving it:
 * max(tl + eff(T), H + eff(L)).
 */
export function addressHorizon(input: { tl: Instant; T: number; L: number; H: Instant; floor: number; what: string }): Derived {
  return {
    at: Math.max(input.tl + eff(input.T, input.floor), input.H + eff(input.L, input.floor)),
    formula: 'max(tl + eff(T), H + eff(L))',
    terms: [
      instant('tl', 'every old authority seen to serve the lowered TTL', input.tl),
      seconds('T', `TTL of ${input.what} as found`, input.T),
      seconds('L', `TTL of ${input.what} as lowered`, input.L),
      instant('H', 'nobody is led to the old servers any more', input.H),
      seconds('f', 'floor a cache may apply', input.floor),
    ],
    follows: 'RFC 1035 §3.2.1',
  };
}

/**
 * Until when a changed set may be remembered where every authority is changed in step:
 * max(tl + eff(T), tk + eff(L)).
 */
export function inStepHorizon(input: { tl: Instant; T: number; tk: Instant; L: number; floor: number; what: string }): Derived {
  return {
    at: Math.max(input.tl + eff(input.T, input.floor), input.tk + eff(input.L, input.floor)),
    formula: 'max(tl + eff(T), tk + eff(L))',
    terms: [
      instant('tl', 'every authority seen to serve the lowered TTL', input.tl),
      seconds('T', `TTL of ${input.what} as found`, input.T),
      instant('tk', 'every authority seen to serve the new value', input.tk),
      seconds('L', `TTL of ${input.what} as lowered`, input.L),
      seconds('f', 'floor a cache may apply', input.floor),
    ],
    follows: 'RFC 1035 §3.2.1',
  };
}

/** Until when a name that stands only in the new zone may be remembered as absent: H + eff(N_old) (RFC 2308 §5). */
export function absentHorizon(input: { H: Instant; N: number; floor: number; what: string }): Derived {
  return {
    at: input.H + eff(input.N, input.floor),
    formula: 'H + eff(N_old)',
    terms: [
      instant('H', 'nobody is led to the old servers any more', input.H),
      seconds('N_old', `negative TTL of the old zone, for ${input.what}`, input.N),
      seconds('f', 'floor a cache may apply', input.floor),
    ],
    follows: 'RFC 2308 §5',
  };
}

/** N = min(SOA TTL, SOA minimum), seconds (RFC 2308 §5). */
export function negativeTtl(soaTtl: number, soaMinimum: number): number {
  return Math.min(effectiveTtl(soaTtl), effectiveTtl(soaMinimum));
}
