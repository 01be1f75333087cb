import { isDeepStrictEqual } from 'node:util';
import { Inject, Injectable } from '@nestjs/common';
import { Host } from '@wanderon/contract';
import {
  CLEAR,
  Decision,
  FRONT_ON,
  Leg,
  LedgerRow,
  LegPlan,
  Name,
  Outside,
  PageChange,
  PageLook,
  ParentSight,
  Said,
  Seen,
  SeenRedirect,
  TOP_BIT_TTL,
  UnreadSet,
  answeredAt,
  decidedRows,
  otherSets,
  redirectsSeen,
  saidBy,
  seenServers,
  standing,
  switchedSince,
  styleOf,
} from '@wanderon/core';
import { CLOCK, Clock } from '../clock/clock';
import { CONFIG, Config } from '../config';
import { DATABASE, Database } from '../db/database';
import { Recent } from '../db/recent';
import { HostStore, knowledgeOf } from '../hosts/host.store';
import { Network } from '../network/network';
import { DecisionStore } from './decision.store';
import { inSteps } from './inSteps';
import { LegRow, MoveRow, ObservationRow, isChosen } from './move.rows';
import { MoveStore } from './move.store';
import { ObservationStore } from './observation.store';
import { seenOf, sightRow, workOf } from './observed';

/** One leg with all that it rests on. */
export interface LoadedLeg {
  readonly row: LegRow;
  readonly leg: Leg;
  readonly rows: readonly LedgerRow[];
  readonly decisions: readonly Decision[];
  readonly stands: readonly Decision[];
  readonly said: Said;
  readonly observations: readonly ObservationRow[];
  readonly hosts: ReadonlyMap<string, Host>;
}

export interface LoadedMove {
  readonly move: MoveRow;
  readonly legs: readonly LoadedLeg[];
  readonly current: LoadedLeg;
}

/** What a leg rests on, as the database has it; worked out from it is what depends on the time and on the hosts. */
export interface LegParts {
  readonly row: LegRow;
  readonly proposed: readonly LedgerRow[];
  readonly decisions: readonly Decision[];
  readonly surveyedAt: number | undefined;
  /** What stood outside of the zone then. */
  readonly outside: Outside | null;
  readonly redirects: readonly SeenRedirect[];
  readonly unread: readonly UnreadSet[];
  readonly observations: readonly ObservationRow[];
  readonly website: Seen['website'];
  /** Places that only its move knows; one list for all legs of a move. */
  readonly places: readonly Host[];
}

export interface MadeDecision {
  readonly leg: string;
  readonly decision: Decision;
}

/** What is read of the survey that a leg rests on. */
interface SurveyedRow {
  readonly id: string;
  readonly taken_at: number;
  readonly outside: Outside | null;
  readonly pages: readonly PageLook[];
  readonly hints: readonly { readonly owner: string; readonly text: string; readonly unread?: string }[];
}

/** A leg without what was observed of it, and everything that it was worked out of besides its decisions. */
interface DecidedLeg extends Pick<LoadedLeg, 'said' | 'stands' | 'rows'> {
  readonly plan: LegPlan;
  readonly of: readonly unknown[];
  /** Decisions about rows, of which the rows follow. */
  readonly words: readonly Decision[];
}

/** A move with what its legs rest on, all of one version. */
export interface MoveParts {
  readonly move: MoveRow;
  readonly legs: readonly LegParts[];
}

/** Rows of ledgers and observations in the moves of which the parts are held. */
const HELD = 100_000;

/** Rows of a plan of which everything is worked out at once: all checks of so many take a tenth of a second. */
const SMALL = 10_000;

/** Reads a move whole and hands it to core: engine, acts and pages all see the same. */
@Injectable()
export class LegLoader {
  private readonly parts = new Recent<MoveParts>(HELD);
  /** What was worked out of a leg's decisions: it stays so as long as nothing else that it rests on is another. */
  private readonly decidedLegs = new WeakMap<readonly Decision[], DecidedLeg>();
  /** The same by what was proposed: most decisions change no row, and what follows from the plan is not worked out anew for them. */
  private readonly lastDecided = new WeakMap<readonly LedgerRow[], DecidedLeg>();
  private readonly preparing = new WeakMap<LegPlan, Promise<void>>();
  private readonly byId = new WeakMap<readonly Host[], ReadonlyMap<string, Host>>();
  /** The same with the places of a move, as long as the hosts are those. */
  private readonly withPlaces = new WeakMap<readonly Host[], { readonly of: ReadonlyMap<string, Host>; readonly all: ReadonlyMap<string, Host> }>();

  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(CLOCK) private readonly clock: Clock,
    @Inject(CONFIG) private readonly config: Config,
    private readonly store: MoveStore,
    private readonly decisions: DecisionStore,
    private readonly observations: ObservationStore,
    private readonly hosts: HostStore,
    private readonly network: Network,
  ) {}

  /**
   * A move as it was when it was committed last: whatever is written of it counts its version up, so that of one version everything is
   * read once. Not for a transaction that has changed it; that is `reload`. Throws where there is no such move.
   */
  async load(id: string, database: Database = this.database, lock = false): Promise<LoadedMove> {
    const { move, also: state } = await this.store.getWith(id, this.hosts.state(database), database, lock);
    return this.built(move, await this.legsOf(move, database), await this.hosts.at(state, database));
  }

  /** As `load`, and what takes long to work out of a large plan is known, once for all who wait for it; others are answered meanwhile. */
  async loadPrepared(id: string): Promise<LoadedMove> {
    return this.prepared(await this.load(id));
  }

  async prepared<T extends LoadedMove>(loaded: T): Promise<T> {
    const { leg } = loaded.current;
    if (!isLarge(loaded.current)) return loaded;
    let preparing = this.preparing.get(leg.plan);
    if (!preparing) {
      preparing = inSteps(leg.prepared()).finally(() => this.preparing.delete(leg.plan));
      this.preparing.set(leg.plan, preparing);
    }
    await preparing;
    return loaded;
  }

  /** The parts of a move as this process knows them; they may be of an earlier version, and are where others have changed it. */
  held(id: string): MoveParts | undefined {
    return this.parts.get(id);
  }

  /** The parts of a move, which nobody else writes until the transaction ends. Throws where there is no such move. */
  async locked(id: string, transaction: Database): Promise<MoveParts> {
    const move = await this.store.get(id, transaction, true);
    return { move, legs: await this.legsOf(move, transaction) };
  }

  private async legsOf(move: MoveRow, database: Database): Promise<readonly LegParts[]> {
    const held = this.parts.get(move.id);
    if (held?.move.version === move.version) return held.legs;
    const legs = await this.read(move, database);
    this.hold(move, move.version, legs);
    return legs;
  }

  /** A move within a transaction that has changed it, and what will be held of it once that is committed with the next version. */
  async reload(id: string, transaction: Database): Promise<{ readonly loaded: LoadedMove; readonly committed: (version: number) => void }> {
    const { move, also: state } = await this.store.getWith(id, this.hosts.state(transaction), transaction);
    const legs = await this.read(move, transaction);
    return { loaded: this.built(move, legs, await this.hosts.at(state, transaction)), committed: (version) => this.hold(move, version, legs) };
  }

  /** The same where nothing but observations was added to `before`, which was loaded in this transaction. */
  async reobserved(before: LoadedMove, transaction: Database): Promise<Awaited<ReturnType<LegLoader['reload']>>> {
    const { move } = before;
    const held = this.parts.get(move.id);
    if (held?.move.version !== move.version) return this.reload(move.id, transaction);
    const legs: LegParts[] = [];
    for (const parts of held.legs) legs.push({ ...parts, observations: await this.observed(move, parts, transaction) });
    const loaded = this.legsWith(move, legs, before.current.hosts);
    return { loaded, committed: (version) => this.hold(move, version, legs) };
  }

  /** Decisions, and nothing else, made the next version of a move: what is held of it stays so. */
  decided({ move, legs }: MoveParts, made: readonly MadeDecision[]): void {
    const after = legs.map((parts) => ({
      ...parts,
      decisions: [...parts.decisions, ...made.filter(({ leg }) => leg === parts.row.id).map(({ decision }) => decision)],
    }));
    this.hold(move, move.version + 1, after);
  }

  private observed(move: MoveRow, { row, surveyedAt }: Pick<LegParts, 'row' | 'surveyedAt'>, database: Database): Promise<readonly ObservationRow[]> {
    const since = (surveyedAt ?? move.created_at) - 2 * TOP_BIT_TTL;
    return this.observations.ofLeg(row.id, move.domain_id, since, database);
  }

  private hold(move: MoveRow, version: number, legs: readonly LegParts[]): void {
    this.parts.set(move.id, { move: { ...move, version }, legs }, 1 + legs.reduce((sum, one) => sum + one.proposed.length + one.observations.length, 0));
  }

  private built(move: MoveRow, parts: readonly LegParts[], all: readonly Host[]): LoadedMove {
    let hosts = this.byId.get(all);
    if (!hosts) this.byId.set(all, (hosts = new Map(all.map((host) => [host.id, host]))));
    return this.legsWith(move, parts, hosts);
  }

  private legsWith(move: MoveRow, parts: readonly LegParts[], hosts: ReadonlyMap<string, Host>): LoadedMove {
    const all = this.hostsWith(hosts, parts[0]!.places);
    const legs = parts.map((one) => this.leg(move, one, all, one !== parts.at(-1)));
    return { move, legs, current: legs.at(-1)! };
  }

  /** Hosts of the agency and places of a move by their ids; one that was kept since is a host of the agency. */
  private hostsWith(hosts: ReadonlyMap<string, Host>, places: readonly Host[]): ReadonlyMap<string, Host> {
    if (places.length === 0 || places.every(({ id }) => hosts.has(id))) return hosts;
    const known = this.withPlaces.get(places);
    if (known?.of === hosts) return known.all;
    const all = new Map([...places.map((host): [string, Host] => [host.id, host]), ...hosts]);
    this.withPlaces.set(places, { of: hosts, all });
    return all;
  }

  private async read(move: MoveRow, database: Database): Promise<readonly LegParts[]> {
    const legs: LegParts[] = [];
    const places = await this.hosts.places(move.id, database);
    for (const row of await this.store.legs(move.id, database)) {
      const survey = row.survey_id
        ? await database<SurveyedRow>('surveys').where({ id: row.survey_id }).first('taken_at', 'outside', 'pages', 'hints')
        : undefined;
      legs.push({
        row,
        proposed: await this.store.rulings(row.id, database),
        decisions: await this.decisions.ofLeg(row.id, database),
        surveyedAt: survey?.taken_at,
        outside: survey?.outside ?? null,
        redirects: redirectsSeen(survey?.pages ?? []),
        unread: (survey?.hints ?? []).flatMap(({ owner, text, unread }) => (unread === undefined ? [] : [{ owner, type: unread, text }])),
        observations: await this.observed(move, { row, surveyedAt: survey?.taken_at }, database),
        website: await this.website(row.id, database),
        places,
      });
    }
    return legs;
  }

  /** Seconds between looks at what is waited for: where the lab's clock hurries, a look is not sooner than a look can be. */
  get every(): number {
    return Math.max(this.config.WANDERON_LOOK_EVERY, 2 * this.clock.rate());
  }

  private leg(move: MoveRow, parts: LegParts, hosts: ReadonlyMap<string, Host>, followed: boolean): LoadedLeg {
    const { row, decisions, observations, website } = parts;
    const now = this.clock.now();
    const { plan, said, stands, rows } = this.decidedLeg(move, parts, hosts, followed);
    const { WANDERON_CACHE_FLOOR: floor, WANDERON_ANYCAST_ALLOWANCE: parentAllowance, WANDERON_HOST_ALLOWANCE: hostAllowance } = this.config;
    const seen = seenOf(observations, plan, this.network.lookouts.length, website);
    const leg = new Leg({ plan, seen, said, work: workOf(observations), assumed: { floor, parentAllowance, hostAllowance }, now, every: this.every });
    return { row, leg, rows, decisions, stands, said, observations, hosts };
  }

  private decidedLeg(move: MoveRow, parts: LegParts, hosts: ReadonlyMap<string, Host>, followed: boolean): DecidedLeg {
    const { row, proposed, decisions, surveyedAt, outside, redirects, unread } = parts;
    const of = [row, proposed, surveyedAt, outside, redirects, unread, hosts, followed];
    const known = this.decidedLegs.get(decisions);
    if (known && of.every((one, index) => one === known.of[index])) return known;
    const stands = standing(decisions);
    const said = saidBy(decisions);
    const before = this.lastDecided.get(proposed);
    const words = stands.filter(({ kind }) => kind === 'ruling' || kind === 'rulings');
    const rows = before && isSame(before.words, words) ? before.rows : decidedRows(proposed, stands);
    const made: LegPlan = {
      ...planOf(move, row, rows, hosts, surveyedAt),
      followed,
      outside,
      redirects,
      unread: unread.filter((one) => !stands.some(({ kind, subject, value }) => kind === 'hint' && subject === `${one.owner}\n${one.text}` && value !== null)),
      mainSpelling: said.site.main,
      met: metBy(stands),
      fronting: said.fronting,
      frontOn: said.done.has(FRONT_ON),
      cleared: clearedBy(said),
    };
    const plan = before && isSamePlan(before.plan, made) ? before.plan : made;
    const decided: DecidedLeg = { of, plan, said, stands, rows, words };
    this.decidedLegs.set(decisions, decided);
    this.lastDecided.set(proposed, decided);
    return decided;
  }

  private async website(leg: string, database: Database): Promise<Seen['website']> {
    const latest = await database('website_looks')
      .where({ leg_id: leg })
      .orderBy('id', 'desc')
      .first<{ last_seen: number; looks: PageLook[]; changes: PageChange[] } | undefined>('last_seen', 'looks', 'changes');
    if (!latest) return undefined;
    const faults = latest.changes.filter((one) => one.weight === 'broken').map(({ pages, text }) => ({ pages, text }));
    return { at: latest.last_seen, faults, answers: answeredAt(latest.looks), redirects: redirectsSeen(latest.looks) };
  }
}

/** A plan of which some things take so long to work out that others would wait. */
export function isLarge({ leg }: Pick<LoadedLeg, 'leg'>): boolean {
  return leg.plan.rulings.length > SMALL;
}

function isSame(a: readonly unknown[], b: readonly unknown[]): boolean {
  return a.length === b.length && a.every((one, index) => one === b[index]);
}

/** The same in every part. Rows are compared by being the same ones, all else by what it says: it is little beside them. */
function isSamePlan({ rulings, zone, ...before }: LegPlan, { rulings: now, zone: here, ...after }: LegPlan): boolean {
  return rulings === now && zone.equals(here) && isDeepStrictEqual(before, after);
}

/** Whether the switch of a leg may be under way, without working the whole leg out. */
export function isSwitched(move: MoveRow, { row, decisions, observations }: LegParts): boolean {
  if (!isChosen(row)) return false;
  const submitted = decisions.some((one) => one.kind === 'submitted');
  // What authorities were seen to serve is not read for a single ruling.
  if (submitted || row.kind === 'repoint') return submitted;
  const parent = observations.filter((one) => one.kind === 'parent' && one.leg_id === row.id);
  const seen = { parent: seenServers(parent.map((one) => sightRow<ParentSight>(one))) };
  return switchedSince({ plan: planOf(move, row, [], new Map(), undefined), seen, said: saidBy([]) }) !== undefined;
}

/** Some rows of the ledger as they were decided last, without those that are not there, or were taken out. */
export function ledgerRows({ proposed, decisions }: LegParts, ids: readonly string[]): LedgerRow[] {
  return decidedRows(proposed, standing(decisions), ids);
}

function planOf(move: MoveRow, row: LegRow, rows: readonly LedgerRow[], hosts: ReadonlyMap<string, Host>, surveyedAt: number | undefined): LegPlan {
  const host = (id: string | null): Host | undefined => (id ? hosts.get(id) : undefined);
  const planned = (id: string | null): LegPlan['oldHost'] => {
    const one = host(id);
    if (!one) return undefined;
    const { name, keyName, fronts, holdsEarly, entry, habits, tasks } = one;
    return {
      id: one.id,
      name,
      keyed: keyName !== null,
      fronts,
      holdsEarly,
      lacks: entry?.lacks ?? [],
      ttls: entry?.ttls === undefined ? undefined : styleOf(entry),
      habits,
      tasks,
    };
  };
  const [oldWeb, newWeb] = [host(row.old_web_host), host(row.new_web_host)];
  return {
    kind: row.kind,
    account: row.account,
    zone: Name.parse(`${move.domain}.`),
    surveyedAt,
    scope: row.scope,
    next: row.next ?? undefined,
    former: row.former ?? undefined,
    isBack: row.back_of !== null,
    backSince: row.back_since ?? undefined,
    backRaised: row.back_raised,
    chosen: isChosen(row),
    rulings: rows,
    oldNameservers: row.old_nameservers,
    newNameservers: row.new_nameservers,
    otherSets: otherSets(
      [...hosts.values()].map((one) => ({ ...one, company: one.habits.company })),
      { wanted: row.new_nameservers, old: row.old_nameservers },
    ),
    oldServers: row.old_servers,
    newServers: row.new_servers,
    oldHost: planned(row.old_dns_host),
    newHost: planned(row.new_dns_host),
    oldWeb: oldWeb ? [knowledgeOf(oldWeb)] : [],
    newWeb: row.web ?? (newWeb && knowledgeOf(newWeb)),
    fronted: row.fronted,
    keysTtl: row.keys_ttl ?? undefined,
  };
}

/** Requirements whose temporary record somebody says is taken out. */
function clearedBy({ done }: Said): ReadonlySet<string> {
  return new Set([...done.keys()].flatMap((step) => (step.startsWith(CLEAR) ? [step.slice(CLEAR.length)] : [])));
}

/** Values that the web host gave for this site: they came with the ruling that put them into the plan. */
function metBy(stands: readonly Decision[]): ReadonlyMap<string, string> {
  const met = stands.flatMap((one) => (one.kind === 'ruling' ? ((one.value as { meets?: { requirement: string; data: string } }).meets ?? []) : []));
  return new Map(met.map(({ requirement, data }) => [requirement, data]));
}
