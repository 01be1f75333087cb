import { ParentSight } from '../move/seen';
import { eff } from './eff';
import { Derived, Instant, instantTerm, latest, secondsTerm } from './instant';
import { Run } from './runs';

/**
 * Until when some cache can hold the parent's word that there is no such domain: each denial lives for the negative TTL that it was
 * given with, after the last moment at which it was given (RFC 2308 §5, and RFC 8020 for every name below). Undefined where no server
 * of the parent was seen to deny it. `floor` in seconds.
 */
export function deniedUntil(servers: readonly { readonly says: string; readonly runs: readonly Run<ParentSight>[] }[], floor: number): Derived | undefined {
  return latest(
    servers.flatMap(({ says, runs }) => runs.flatMap(({ value, until }): Derived[] => (isDenial(value) ? [derived(says, until, value.ttl, floor)] : []))),
  );
}

function isDenial({ nameservers, onlyAddresses }: ParentSight): boolean {
  return nameservers.length === 0 && !onlyAddresses;
}

function derived(says: string, l: Instant, N: number, floor: number): Derived {
  return {
    at: l + eff(N, floor),
    formula: 'l + eff(N)',
    terms: [
      instantTerm('l', `${says} last denied the domain`, l),
      secondsTerm('N', 'negative TTL of the parent', N),
      secondsTerm('f', 'floor a cache may apply', floor),
    ],
    follows: 'RFC 2308 §5, RFC 8020',
  };
}
