import { SiteFault } from '../rebuild/checks/check';
import { SeenRedirect } from '../survey/website';
import { Instant } from '../timetable/instant';
import { Watched } from '../timetable/since';
import { Astray } from '../slips/records/slip';
import { AnsweredPage } from '../watch/answeredAt';
import { Verdict } from '../watch/verdict';
import { SetKey } from './plan';

/** What one server of the parent says of the zone; or where an authority for its nameservers' names says that these are. TTLs in seconds. */
export interface ParentSight {
  /** Empty where it denies the zone. */
  readonly nameservers: readonly string[];
  readonly ttl: number;
  readonly glue: readonly { readonly name: string; readonly address: string; readonly ttl: number }[];
  readonly ds: readonly string[];
  readonly dsTtl: number;
  /** An authority for names of the set that stay: it says where they are (as `glue`), and nothing of the zone. */
  readonly onlyAddresses?: true;
  /** It holds the zone itself, and answers from it: what stands in its parent zone is told to nobody who asks it (RFC 1034 §4.2.1). */
  readonly holdsZone?: true;
}

/** An answer to one question: the data of the set under its own name, or a denial, which has none. */
export interface AnswerSight {
  /** Of the set or of the denial, seconds. */
  readonly ttl: number;
  /** In presentation form, sorted. */
  readonly data: readonly string[];
}

/** What one server of the zone answered at one look. A set that was not asked for, or not answered, is not in it. */
export interface ZoneSight {
  readonly serial: number | null;
  /** It refuses to answer for the zone, over so long a time that it is no accident. */
  readonly refused: boolean;
  /** It no longer holds the zone, and refers to servers of it: its NS set is that of the referral. */
  readonly refers?: true | undefined;
  readonly sets: Readonly<Record<SetKey, AnswerSight>>;
  /** Where it was asked for signatures: what bears none by a key of the zone (`unsignedOf`). */
  readonly unsigned?: readonly string[] | undefined;
}

/** A server that gave nothing, since when and why; `refused`: it answered that it will not. */
export interface Silence {
  readonly since: Instant;
  readonly last: Instant;
  readonly problem: string;
  readonly refused: boolean;
}

export interface ServerSeen<V> extends Watched<V> {
  /** Where the last look gave nothing. */
  readonly silence: Silence | undefined;
}

/** What lookouts said last, one row a lookout and question. */
export interface LookoutSight {
  readonly lookout: string;
  readonly key: SetKey;
  readonly verdict: Verdict;
  readonly rcode: string;
  readonly answer: readonly string[];
  readonly silent: boolean;
  readonly first: Instant;
  readonly last: Instant;
  readonly remainingTtl: number | null;
}

/** Every observation that a leg rests on, folded into what its rules ask for. */
export interface Seen {
  readonly parent: readonly ServerSeen<ParentSight>[];
  readonly zones: readonly ServerSeen<ZoneSight>[];
  readonly lookouts: readonly LookoutSight[];
  /** Lookouts that there are. */
  readonly watchers: number;
  /** The old zone held against its survey, when that was done last. */
  readonly drift: { readonly at: Instant; readonly changes: readonly DriftSight[]; readonly problem: string | null } | undefined;
  /** Where sets were found that are not where they belong, as they were looked for last. */
  readonly astray?: ReadonlyMap<SetKey, readonly Astray[]>;
  /** The registration's statuses (RFC 8056), when they were asked for last. */
  readonly registration:
    | {
        readonly at: Instant;
        readonly statuses: readonly string[];
        readonly registrar?: string | null;
        readonly expires?: Instant | null;
        readonly problem: string | null;
      }
    | undefined;
  /** Whether the new web host answers for the domain where the plan leads. */
  readonly website:
    | {
        readonly at: Instant;
        /** What is broken about its pages. */
        readonly faults: readonly SiteFault[];
        /** What answered, and where. */
        readonly answers: readonly AnsweredPage[];
        /** Spellings that lead on to another host there. */
        readonly redirects: readonly SeenRedirect[];
      }
    | undefined;
  /** When each kind of look was made last. */
  readonly looked: Readonly<Record<string, Instant>>;
  /** Seconds from then to the next look of the kind, as planned then: a look is not later than was planned, or what was seen has a gap. */
  readonly planned: Readonly<Record<string, number>>;
  /** When lookouts are to be asked again, as their last answers say. */
  readonly lookoutsAgain: Instant | undefined;
}

/** One change of the old zone since its survey; data empty: it is not there. */
export interface DriftSight {
  readonly owner: string;
  readonly type: string;
  readonly before: AnswerSight | null;
  readonly after: AnswerSight | null;
}

/** A refusal may be an access list or a rate limit: it counts once it was seen over so many seconds. */
export const REFUSAL_COUNTS = 3600;

/** An observation as it is kept: equal sights one after the other, or none. */
export interface SightRow<V> {
  readonly server: string;
  readonly address: string;
  readonly value: V | undefined;
  readonly problem: string | undefined;
  readonly refused: boolean;
  readonly first: Instant;
  readonly last: Instant;
  readonly every: number;
}

/** Rows of one kind, by server, in the order in which they began. A lasting refusal becomes a sight where `asRefused` says which. */
export function seenServers<V>(rows: readonly SightRow<V>[], asRefused?: V): ServerSeen<V>[] {
  const servers = new Map<string, SightRow<V>[]>();
  for (const row of rows) servers.set(row.address, [...(servers.get(row.address) ?? []), row]);
  return [...servers].map(([address, all]) => {
    const ordered = [...all].sort((a, b) => a.first - b.first);
    const latest = ordered.reduce((a, b) => (b.last >= a.last ? b : a));
    const sightings = ordered.flatMap((row) => {
      const { first, last, every } = row;
      if (row.value !== undefined) return [{ value: row.value, first, last, every }];
      return asRefused !== undefined && row.refused && last - first >= REFUSAL_COUNTS ? [{ value: asRefused, first, last, every }] : [];
    });
    const { problem, refused } = latest;
    const silence = latest.value === undefined ? { since: latest.first, last: latest.last, problem: problem ?? 'no answer', refused } : undefined;
    return { server: latest.server, address, sightings, silence };
  });
}
