import { Name } from '../dns/name';
import { typeMnemonic } from '../dns/typeNames';
import { DnsHabits } from '../hosts/dnsHabits';
import { PanelTtls } from '../hosts/enter';
import { Fronting } from '../hosts/fronting';
import { HostTask } from '../hosts/task';
import { HostKnowledge } from '../rebuild/host';
import { Ruling } from '../rebuild/ruling';
import { KnownSet } from '../slips/nameservers/slip';
import { RRsetText } from '../dns/record';
import { Outside } from '../survey/outside';
import { SeenRedirect } from '../survey/website';
import { Instant } from '../timetable/instant';
import { Former } from './former';
import { Scope } from './scope';
import { NextLeg } from './way';

/** `delegation`: the nameserver set changes; `repoint`: records change where they are. */
export const LEG_KINDS = ['delegation', 'repoint'] as const;
export type LegKind = (typeof LEG_KINDS)[number];

/** One server by name and address. */
export interface ServerAt {
  readonly server: string;
  readonly address: string;
}

/** A DNS host as a leg knows it. */
export interface PlannedHost {
  readonly id?: string;
  readonly name: string;
  /** We hold a key with which it takes updates and gives transfers. */
  readonly keyed: boolean;
  /** Ranges of addresses with which it answers for names that it fronts. */
  readonly fronts: readonly string[];
  /** False: it takes a zone only once the domain is delegated to it. */
  readonly holdsEarly?: boolean;
  /** Types that its panel has none of. */
  readonly lacks?: readonly string[];
  /** TTLs that its panel lets be chosen; undefined where its habits are not known. */
  readonly ttls?: PanelTtls | undefined;
  readonly habits?: DnsHabits;
  /** What has to be done there, besides records. */
  readonly tasks?: readonly HostTask[];
}

/** A set that a survey has a hint of and could not read. */
export interface UnreadSet {
  readonly owner: string;
  readonly type: string;
  readonly text: string;
}

/** What a leg is to do, as data; steps, lines and times are worked out from it. Names absolute, durations in seconds. */
export interface LegPlan {
  readonly kind: LegKind;
  /** The zone goes into another account behind the same servers (`isTakeover`). */
  readonly account?: boolean;
  /** Names that a leg is about; in a repoint leg nothing outside of it is touched. */
  readonly scope: Scope;
  /** The leg that was meant to follow this one when the way was chosen. */
  readonly next?: NextLeg | undefined;
  /** A later leg has begun: this one is over. */
  readonly followed?: boolean;
  /** What was done outward for ways that were chosen before. */
  readonly former?: Former | undefined;
  /** It sets back what the leg before it changed. */
  readonly isBack?: boolean;
  /** Since when it does: what the parent published before is of the leg that it sets back. */
  readonly backSince?: Instant | undefined;
  /** TTLs had been raised by then, or were about to be: what was sent counts as served, seen or not. */
  readonly backRaised?: boolean;
  readonly zone: Name;
  /** The survey was taken; the hosts were chosen. */
  readonly surveyedAt: Instant | undefined;
  readonly chosen: boolean;
  readonly rulings: readonly Ruling[];
  readonly oldNameservers: readonly string[];
  readonly newNameservers: readonly string[];
  /** Sets of other hosts, which somebody could type instead. */
  readonly otherSets: readonly KnownSet[];
  /** Every address of every server of the old set, and of the new one as its host gave them. */
  readonly oldServers: readonly ServerAt[];
  readonly newServers: readonly ServerAt[];
  readonly oldHost: PlannedHost | undefined;
  readonly newHost: PlannedHost | undefined;
  readonly oldWeb: readonly HostKnowledge[];
  readonly newWeb: HostKnowledge | undefined;
  /** Values that the new web host gave for this site, by requirement; in presentation form. */
  readonly met?: ReadonlyMap<string, string>;
  /** Requirements whose temporary record was taken out, as somebody says; by id. */
  readonly cleared?: ReadonlySet<string> | undefined;
  /** Sets as the old host's front answered them. */
  readonly fronted: readonly RRsetText[];
  /** How a name is to be answered at a host that fronts names, where somebody decided it; by name in lower case. */
  readonly fronting?: ReadonlyMap<string, Fronting> | undefined;
  /** Fronting was switched on, as somebody says, where it was to be off until the web host had verified the domain. */
  readonly frontOn?: boolean;
  /** What stood outside of the zone when it was surveyed; null where that was not asked. */
  readonly outside?: Outside | null;
  /** Spellings of the website that led to another host when the zone was surveyed. */
  readonly redirects?: readonly SeenRedirect[];
  /** The spelling at which visitors are to end, where somebody said so; without final dot. */
  readonly mainSpelling?: string | null;
  /** Sets that are known to exist, or may, and that no survey could read; `text` says why. */
  readonly unread?: readonly UnreadSet[] | undefined;
  /** The zone had keys when it was surveyed; TTL of their set. */
  readonly keysTtl: number | undefined;
}

/** What one server is asked and told apart by: a name and a type. Names without final dot's case. */
export type SetKey = string;

/** `www.zone.example./A`: the key of a record set in plans and observations. */
export function setKey(owner: string, type: string): SetKey {
  return `${owner.toLowerCase()}/${type}`;
}

/** The key of a row of the plan. Rows are never changed: it is made once for each. */
export function keyOfRow(row: Pick<Ruling, 'owner' | 'type'>): SetKey {
  let key = keys.get(row);
  if (key === undefined) keys.set(row, (key = setKey(row.owner, row.type)));
  return key;
}
const keys = new WeakMap<Pick<Ruling, 'owner' | 'type'>, SetKey>();

export function keyOf(owner: Name, type: number): SetKey {
  return setKey(owner.toString(), typeMnemonic(type));
}

export function ownerOf(key: SetKey): string {
  return key.slice(0, key.lastIndexOf('/'));
}

export function typeOf(key: SetKey): string {
  return key.slice(key.lastIndexOf('/') + 1);
}
