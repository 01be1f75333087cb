import { Name } from '../dns/name';
import { Leg, LegState, Work } from '../move/leg';
import { LegPlan, setKey } from '../move/plan';
import { Decision, DecisionKind, saidBy } from '../move/said';
import { AnswerSight, LookoutSight, ParentSight, Seen, SightRow, ZoneSight, seenServers } from '../move/seen';
import { Ruling } from '../rebuild/ruling';

/** A small move to hold rules against: zone.test from two old servers to two new ones. Seconds count from 0. */
export const OLD = ['ns1.old.test.', 'ns2.old.test.'];
export const NEW = ['ns1.new.test.', 'ns2.new.test.'];
export const WWW = setKey('www.zone.test.', 'A');
export const APEX_NS = setKey('zone.test.', 'NS');
const ZONE = Name.parse('zone.test.');

export const RULINGS: readonly Ruling[] = [
  ruling('www.zone.test.', 'A', 'repoint', 3600, ['192.0.2.1'], ['192.0.2.2']),
  ruling('zone.test.', 'MX', 'carry', 3600, ['10 mail.zone.test.'], ['10 mail.zone.test.']),
  ruling('mail.zone.test.', 'A', 'carry', 3600, ['192.0.2.25'], ['192.0.2.25']),
  { ...ruling('zone.test.', 'NS', 'drop', 3600, OLD, undefined), reason: "the DNS host's own" },
];

export function ruling(owner: string, type: string, kind: Ruling['ruling'], ttl: number, found: string[] | undefined, planned: string[] | undefined): Ruling {
  const set = (data: string[] | undefined): Ruling['found'] => data && { owner, type, ttl, data };
  return { owner, type, ruling: kind, found: set(found), planned: set(planned), reason: '' };
}

export const plan: LegPlan = {
  kind: 'delegation',
  scope: { kind: 'whole' },
  zone: ZONE,
  surveyedAt: 0,
  chosen: true,
  rulings: RULINGS,
  oldNameservers: OLD,
  newNameservers: NEW,
  otherSets: [{ of: 'Third DNS', nameservers: ['ns1.third.test.', 'ns2.third.test.'] }],
  oldServers: OLD.map((server, index) => ({ server, address: `198.51.100.${index + 1}` })),
  newServers: NEW.map((server, index) => ({ server, address: `203.0.113.${index + 1}` })),
  oldHost: { name: 'Old DNS', keyed: true, fronts: [] },
  newHost: { name: 'New DNS', keyed: true, fronts: ['198.18.7.0/24'] },
  oldWeb: [],
  newWeb: undefined,
  fronted: [],
  keysTtl: undefined,
};

export const published = (nameservers: readonly string[], more: Partial<ParentSight> = {}): ParentSight => ({
  nameservers,
  ttl: 600,
  glue: [],
  ds: [],
  dsTtl: 0,
  ...more,
});

export const answers = (ttl: number, more: Record<string, AnswerSight> = {}, ns: readonly string[] = OLD): ZoneSight => ({
  serial: null,
  refused: false,
  sets: { [WWW]: { ttl, data: ['192.0.2.1'] }, [APEX_NS]: { ttl, data: [...ns].sort() }, ...more },
});

export const planned = (more: Record<string, AnswerSight> = {}): ZoneSight => ({
  serial: null,
  refused: false,
  sets: {
    [WWW]: { ttl: 300, data: ['192.0.2.2'] },
    [setKey('zone.test.', 'MX')]: { ttl: 300, data: ['10 mail.zone.test.'] },
    [setKey('mail.zone.test.', 'A')]: { ttl: 300, data: ['192.0.2.25'] },
    [APEX_NS]: { ttl: 300, data: NEW },
    ...more,
  },
});

/** What one server said from when to when; undefined: it was silent. */
export function rows<V = never>(server: string, address: string, ...seen: readonly (readonly [number, number, V | undefined, boolean?])[]): SightRow<V>[] {
  return seen.map(([first, last, value, refused = false]) => ({
    server,
    address,
    value,
    problem: value === undefined ? 'no answer' : undefined,
    refused,
    first,
    last,
    every: 60,
  }));
}

let number = 0;
export function decision(kind: DecisionKind, subject = '', value: unknown = null, at = 0, undoes: number | null = null): Decision {
  number += 1;
  return { id: number, kind, subject, value, person: 'somebody', at, undoes };
}

export const work = (outcome: Work['outcome'], more: Partial<Work> = {}): Work => ({
  outcome,
  problem: null,
  plan: null,
  since: 0,
  at: 0,
  upTo: 0,
  foreign: [],
  kept: [],
  ...more,
});

export const look = (lookout: string, verdict: LookoutSight['verdict'], last: number, more: Partial<LookoutSight> = {}): LookoutSight => ({
  lookout,
  key: WWW,
  verdict,
  rcode: 'NOERROR',
  answer: [],
  silent: false,
  first: 0,
  last,
  remainingTtl: null,
  ...more,
});

export interface Told {
  readonly now: number;
  readonly parent?: readonly SightRow<ParentSight>[];
  readonly zones?: readonly SightRow<ZoneSight>[];
  readonly decisions?: readonly Decision[];
  readonly work?: Readonly<Record<string, Work>>;
  readonly seen?: Partial<Seen>;
  readonly plan?: Partial<LegPlan>;
  readonly assumed?: Partial<LegState['assumed']>;
}

export function legOf(told: Told): Leg {
  const refused: ZoneSight = { serial: null, refused: true, sets: {} };
  const seen: Seen = {
    parent: seenServers(told.parent ?? []),
    zones: seenServers(told.zones ?? [], refused),
    lookouts: [],
    watchers: 0,
    drift: { at: told.now, changes: [], problem: null },
    registration: undefined,
    website: undefined,
    looked: {},
    planned: {},
    lookoutsAgain: undefined,
    ...told.seen,
  };
  return new Leg({
    plan: { ...plan, ...told.plan },
    seen,
    said: saidBy(told.decisions ?? []),
    work: new Map(Object.entries(told.work ?? {})),
    assumed: { floor: 0, parentAllowance: 0, hostAllowance: 0, ...told.assumed },
    now: told.now,
    every: 60,
  });
}
