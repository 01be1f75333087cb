import { Instant } from '../../timetable/instant';
import { AuthorityAnswer } from '../coverage';
import { RegistrationLook } from '../registration';

/** What was noticed about where a domain stands. `stop` breaks the move if it is left, `look` will hurt later, `note` is good to know. */
export interface Finding {
  readonly weight: 'stop' | 'look' | 'note';
  readonly code: string;
  readonly text: string;
}

/** What one server of the parent zone said; names absolute, TTLs in seconds. */
export interface ReferralAnswer {
  readonly server: string;
  readonly address: string;
  readonly nameservers: readonly string[];
  readonly ttl: number | undefined;
  readonly glue: readonly { readonly name: string; readonly address: string; readonly ttl: number }[];
  readonly ds: readonly string[];
  readonly dsTtl: number | undefined;
  readonly problem: string | undefined;
}

/** A DNS host that the agency knows, and whether it serves the zone. */
export interface KnownPanel {
  readonly host: string;
  /** The parent delegates to one of its servers. */
  readonly live: boolean;
  /** Its first server answers for the zone with authority. */
  readonly serves: boolean;
}

/** A zone below the surveyed one that a server of it holds without being delegated to; names absolute. */
export interface ZoneBelow {
  readonly name: string;
  readonly server: string;
  readonly address: string;
}

/** Everything that findings are drawn from. */
export interface Standing {
  /** Without final dot. */
  readonly domain: string;
  readonly parent: string;
  readonly referrals: readonly ReferralAnswer[];
  /** Of the parent's nameservers, and of those that only the zone itself names. */
  readonly authorities: readonly AuthorityAnswer[];
  /** Nameservers without an address. */
  readonly unresolved: readonly string[];
  /** Where the names of nameservers lead by what their own zones say, the parent's glue aside; those that were not followed to an end are left out. */
  readonly ofNames: readonly { readonly name: string; readonly addresses: readonly string[] }[];
  readonly registration: RegistrationLook | undefined;
  readonly panels: readonly KnownPanel[];
  readonly below: readonly ZoneBelow[];
  readonly takenAt: Instant;
}

export type Finder = (standing: Standing) => Finding[];

export function delegatedNames(standing: Standing): string[] {
  return [...new Set(standing.referrals.flatMap((referral) => referral.nameservers.map((name) => name.toLowerCase())))].sort();
}
