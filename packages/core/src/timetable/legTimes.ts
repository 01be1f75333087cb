import { TOP_BIT_TTL } from '../dns/ttl';
import { TYPE_CODES } from '../dns/typeNames';
import { LegPlan, SetKey, keyOf, keyOfRow, setKey } from '../move/plan';
import { Said } from '../move/said';
import { AnswerSight, ParentSight, Seen, ServerSeen, ZoneSight } from '../move/seen';
import { isChanging } from '../rebuild/ruling';
import { sameNameSet } from '../watch/verdict';
import { answerWords } from './answerWords';
import { earliestSwitch } from './earliestSwitch';
import { Derived, Instant, SeenBetween, instantTerm, latest } from './instant';
import { LedSpans, Lead, lastLeadOutside, ledSpans } from './led';
import { Lowering, Unlowered } from './lowering';
import { NAMES_MOVED, hasTurned, publishesNew, sharedNames, switchedSince, untoldNames } from './newSet';
import { Remembered, rememberedUntil } from './remembered';
import { Run } from './runs';
import { Answered, Served, runsUntilAside } from './served';
import { signedTimes } from './signedUntil';
import { Since, Watched, since } from './since';
import { Wanted } from './wanted';

/** What is assumed of the world beyond what is seen; seconds. */
export interface Assumptions {
  /** f: a cache keeps anything for so long at the least. */
  readonly floor: number;
  /** a: instances of anycast parent servers that nobody sees follow within this time; those of DNS hosts. */
  readonly parentAllowance: number;
  readonly hostAllowance: number;
}

export interface TimesInput {
  readonly plan: LegPlan;
  readonly seen: Pick<Seen, 'parent' | 'zones'>;
  readonly said: Said;
  readonly assumed: Assumptions;
  readonly now: Instant;
  /** The old zone's NS set is, or will be, turned by somebody: a decision, or what was done. */
  readonly turns: boolean;
  /** Sets whose TTL cannot be lowered where they are: L = T, as found. */
  readonly kept?: ReadonlySet<SetKey>;
  /** What the plan would answer, where that was worked out already. */
  readonly wanted?: Wanted;
}

export interface LegTimes {
  /** Every old authority seen to serve the lowered TTLs; the servers that do not. */
  readonly tl: Since;
  readonly unlowered: readonly Unlowered[];
  /** Every parent server seen to publish the new set, a included; the servers that do not. */
  readonly t0: SeenBetween | undefined;
  readonly parentLacking: readonly Watched<unknown>[];
  /** The earliest moment at which some parent server may have published the new set; undefined before. */
  readonly ts: Instant | undefined;
  /** Every old authority seen to have turned. */
  readonly te: Since;
  /** Every parent server seen without a DS; and from when on keys validated through one have run out. */
  readonly td: SeenBetween | undefined;
  readonly signedUntil: Derived | undefined;
  /** The switch is sound from here on, as far as TTLs go: (a) of the gate. */
  readonly earliestSwitch: Derived;
  /** False while some TTL is not seen lowered: the time is what it would be if all were lowered as decided. */
  readonly certain: boolean;
  /** H and X: nobody is led to a server outside the new set any more. X may be unbounded. */
  readonly delegation: Derived;
  readonly extended: Derived;
  /** Of each set in scope that changes, and of each that is answered otherwise than planned by a server that caches are led to. */
  readonly sets: readonly { readonly key: SetKey; readonly horizon: Derived }[];
  /** Settled not before this. */
  readonly last: Derived;
  readonly switchSeen: boolean;
}

/**
 * Every time of a delegation leg, from what was seen and, for what has not happened yet, from what is planned
 * (docs/calculations.md). Pure; works a few thousand sets through in some milliseconds.
 */
export function legTimes(input: TimesInput): LegTimes {
  return new Folding(input).times();
}

const lower = (name: string): string => name.toLowerCase();

class Folding {
  private readonly wanted: Wanted;
  private readonly apexNs: SetKey;
  private readonly shared: ReadonlyMap<string, readonly string[]>;
  private readonly newAddresses: ReadonlySet<string>;
  /** Names that stay and of which no server tells. */
  private readonly untold: readonly string[];
  private readonly served: Served;
  private readonly lowering: Lowering;
  /** Servers that are asked like old authorities: of the old set and of any third one, not of the new. */
  private readonly oldZones: readonly ServerSeen<ZoneSight>[];

  /** Addresses by name of every server that there is word of. */
  private readonly known = new Map<string, string[]>();
  /** Servers by the set of names that leads there, each set of one sight. */
  private readonly leadsTo = new Map<readonly string[], readonly string[]>();
  private readonly parentRunsOf = new Map<ServerSeen<ParentSight>, Run<ParentSight>[]>();

  constructor(private readonly input: TimesInput) {
    const { plan, seen, said, now, assumed, kept } = input;
    for (const { server, address } of [...plan.oldServers, ...plan.newServers, ...seen.zones]) {
      const name = lower(server);
      this.known.set(name, [...(this.known.get(name) ?? []), address]);
    }
    this.wanted = input.wanted ?? new Wanted(plan);
    this.apexNs = keyOf(plan.zone, TYPE_CODES.NS);
    this.shared = sharedNames(plan);
    this.untold = untoldNames(input);
    this.newAddresses = new Set(plan.newServers.map((one) => one.address));
    this.served = new Served({ wanted: this.wanted, said, now, allowance: assumed.hostAllowance });
    this.lowering = new Lowering({ plan, said, kept, served: this.served, now, allowance: assumed.hostAllowance });
    this.oldZones = seen.zones.filter((one) => !this.newAddresses.has(one.address));
  }

  times(): LegTimes {
    const { plan, seen, said, now, assumed } = this.input;
    const waited = this.oldZones.filter((one) => !this.isAside(one.address));
    // A server of a third set counts once somebody is led to it; its TTLs are nobody's to lower.
    const ofOldSet = new Set(plan.oldServers.map((one) => one.address));
    const toLower = waited.filter((one) => ofOldSet.has(one.address));
    const unlowered = this.lowering.unlowered(toLower);
    const tl = this.lowering.since(toLower);
    const parents = seen.parent.filter((one) => !this.isAside(one.address));
    const published = since(parents, (sight) => publishesNew(plan, sight), now);
    const t0 = this.published(published.all);
    const led = this.ledNow();
    const te = since(
      waited.filter((one) => ofOldSet.has(one.address) || led.has(one.address)),
      (sight) => hasTurned(plan, sight),
      now,
    );
    const { oldZones, served, lowering, wanted, apexNs } = this;
    const { newNameservers } = plan;
    const earliest = earliestSwitch({
      ...{ zones: seen.zones, oldZones, led, served, lowering, wanted, said, apexNs, newNameservers },
      now,
      floor: assumed.floor,
    });
    const foreseen = this.foresee({ t0, te, earliest });
    const { ordinary, extending } = ledSpans({ ...foreseen, floor: assumed.floor });
    const isNew = (server: string): boolean => this.newAddresses.has(server);
    const nowhere: Derived = {
      at: t0?.firstNew ?? now,
      formula: 't0',
      terms: [instantTerm('t0', 'every parent server seen to publish the new set', t0?.firstNew ?? now)],
      follows: 'RFC 1034 §4.2.1',
    };
    const delegation = lastLeadOutside(ordinary, isNew) ?? nowhere;
    const extended = latest([delegation, lastLeadOutside(extending, isNew) ?? delegation])!;
    const bounded = Number.isFinite(extended.at);
    const sets = this.horizons(foreseen.zoneAnswers, bounded ? extending : ordinary);
    return {
      tl,
      unlowered,
      t0,
      parentLacking: published.lacking,
      ts: switchedSince(this.input),
      te,
      ...signedTimes({ plan, parents, oldZones, now, floor: assumed.floor, allowance: assumed.parentAllowance }),
      earliestSwitch: earliest.at,
      certain: earliest.certain,
      delegation,
      extended,
      sets,
      last: latest([bounded ? extended : delegation, ...sets.map((set) => set.horizon)])!,
      switchSeen: t0 !== undefined,
    };
  }

  /** t0, once every name that stays is told of too; or from when a person said that those are moved of which nobody tells. */
  private published(all: SeenBetween | undefined): SeenBetween | undefined {
    const word = this.input.said.aside.get(NAMES_MOVED)?.at;
    if (!all || (this.untold.length > 0 && word === undefined)) return undefined;
    const firstNew = this.untold.length > 0 ? Math.max(all.firstNew, word!) : all.firstNew;
    return { lastOld: all.lastOld, firstNew: firstNew + this.input.assumed.parentAllowance };
  }

  /** Where names lead of which no server tells: to their old addresses, until a person says otherwise, and for as long as any TTL after it. */
  private untoldLeads(): { says: string; runs: Run<Lead>[] }[] {
    const until = this.input.said.aside.get(NAMES_MOVED)?.at ?? Infinity;
    return this.untold.map((name) => {
      const servers = this.input.plan.oldServers.filter((one) => lower(one.server) === name).map((one) => one.address);
      return { says: name, runs: [{ value: { servers, ttl: TOP_BIT_TTL }, from: -Infinity, until }] };
    });
  }

  private isAside(address: string): boolean {
    return this.input.said.aside.has(address);
  }

  /** Where caches of any class can have been led to until now, by what was seen. */
  private ledNow(): LedSpans {
    const { seen, assumed } = this.input;
    const parent = seen.parent.map((server) => ({ says: server.server, runs: this.parentRuns(server).flatMap((run) => this.parentLeads(run)) }));
    const zone = new Map(
      seen.zones.map((server): [string, Run<Lead>[]] => [
        server.address,
        this.zoneLeads(this.served.runs(server, this.apexNs), (key) => this.served.runs(server, key)),
      ]),
    );
    return ledSpans({ parent: [...parent, ...this.untoldLeads()], zone, floor: assumed.floor }).extending;
  }

  private parentRuns(server: ServerSeen<ParentSight>): Run<ParentSight>[] {
    const { said, now, assumed } = this.input;
    const how = { said, now, allowance: assumed.parentAllowance, same: sameParent };
    let runs = this.parentRunsOf.get(server);
    if (!runs) this.parentRunsOf.set(server, (runs = runsUntilAside(server.address, server.sightings, how)));
    return runs;
  }

  private parentLeads({ value, from, until }: Run<ParentSight>): Run<Lead>[] {
    const shared = value.glue.filter((one) => this.shared.has(lower(one.name)));
    return [
      ...(value.onlyAddresses ? [] : [{ value: { servers: this.serversOf(value.nameservers, value.glue), ttl: value.ttl }, from, until }]),
      ...shared.map((one) => ({ value: { servers: [one.address], ttl: one.ttl }, from, until })),
    ];
  }

  /** What a server of the zone leads to: the names of its NS set, and where names stay, the addresses that it gives for them. */
  private zoneLeads(ns: readonly Run<Answered>[], addresses: (key: SetKey) => readonly Run<Answered>[]): Run<Lead>[] {
    const lead = (runs: readonly Run<Answered>[], servers: (data: readonly string[]) => readonly string[]): Run<Lead>[] =>
      runs.flatMap(({ value, from, until }) =>
        value && value.data.length > 0 ? [{ value: { servers: servers(value.data), ttl: value.ttl }, from, until }] : [],
      );
    const shared = [...this.shared.keys()].flatMap((name) => ['A', 'AAAA'].map((type) => setKey(name, type)));
    return [...lead(ns, (names) => this.serversOf(names, [])), ...shared.flatMap((key) => lead(addresses(key), (data) => data))];
  }

  /** Leads and answers as they were seen, and as they will be where what is planned has not happened yet. */
  private foresee(known: { t0: SeenBetween | undefined; te: Since; earliest: { at: Derived } }): {
    parent: { says: string; runs: Run<Lead>[] }[];
    zone: Map<string, Run<Lead>[]>;
    zoneAnswers: { server: ServerSeen<ZoneSight>; runs: (key: SetKey) => Run<Answered>[] }[];
  } {
    const { plan, seen, said, now, assumed, turns } = this.input;
    const submitted = switchedSince(this.input) !== undefined;
    const t0 = known.t0?.firstNew ?? (submitted ? now : Math.max(now, said.plannedSwitch ?? 0, known.earliest.at.at)) + assumed.parentAllowance;
    const te = Math.max(t0, now);
    const lowering = Math.max(now, said.lowerAt ?? now);
    const newServers = [...this.newAddresses];
    const parent = seen.parent.map((server) => {
      const runs = this.parentRuns(server);
      const cut = known.t0 ? runs : endAt(runs, t0, (sight) => !publishesNew(plan, sight));
      const own = cut.flatMap((run) => this.parentLeads(run));
      const ttl = runs.at(-1)?.value.ttl;
      const next = known.t0 || ttl === undefined || cut === runs ? [] : [{ value: { servers: newServers, ttl }, from: t0, until: Infinity }];
      return { says: server.server, runs: [...own, ...next] };
    });
    const zone = new Map<string, Run<Lead>[]>();
    const zoneAnswers = seen.zones.map((server) => {
      const isOld = !this.newAddresses.has(server.address);
      const ns = this.served.runs(server, this.apexNs);
      const lowered = isOld ? this.lowering.foreseen(ns, this.apexNs, lowering, () => true) : ns;
      const isTurned = (answer: AnswerSight | null): boolean => answer === null || sameNameSet(answer.data, plan.newNameservers);
      const willTurn = isOld && turns && !known.te.all;
      const cut = willTurn ? endAt(lowered, te, (answer) => !isTurned(answer)) : lowered;
      const isOldAddress = (answer: AnswerSight | null): boolean => !!answer?.data.some((address) => !this.newAddresses.has(address));
      const addresses = (key: SetKey): Run<Answered>[] => (willTurn ? endAt(this.served.runs(server, key), te, isOldAddress) : this.served.runs(server, key));
      zone.set(server.address, this.zoneLeads(cut, addresses));
      const runs = (key: SetKey): Run<Answered>[] => {
        const all = this.served.runs(server, key);
        const unwanted = (answer: AnswerSight | null): boolean => answer !== null && this.wanted.is(key, answer) === false;
        // What is not yet right at the new servers is so before anybody is led there: the gate asks for it.
        if (!isOld) return known.t0 || submitted ? all : endAt(all, Math.max(now, t0), unwanted);
        return submitted ? all : this.lowering.foreseen(all, key, lowering, unwanted);
      };
      return { server, runs };
    });
    return { parent: [...parent, ...this.untoldLeads()], zone, zoneAnswers };
  }

  private horizons(zones: readonly { server: ServerSeen<ZoneSight>; runs: (key: SetKey) => Run<Answered>[] }[], spans: LedSpans): LegTimes['sets'] {
    const { assumed, now, plan } = this.input;
    const none: Derived = {
      at: now,
      formula: 'now',
      terms: [instantTerm('now', 'no server was seen to answer it otherwise', now)],
      follows: 'RFC 1035 §3.2.1',
    };
    const keys = new Set([...plan.rulings.filter(isChanging).map(keyOfRow), ...zones.flatMap(({ server }) => this.served.otherwise(server))]);
    return [...keys].flatMap((key) => {
      const all = zones.flatMap(({ server, runs }): Derived[] => {
        const led = spans.get(server.address);
        if (!led) return [];
        const unwanted = runs(key).flatMap(({ value, from, until }): Run<Remembered>[] =>
          value && this.wanted.is(key, value) === false ? [{ value: { ttl: value.ttl, words: () => answerWords(key, value) }, from, until }] : [],
        );
        const derived = rememberedUntil(server.server, unwanted, led, assumed.floor);
        return derived ? [derived] : [];
      });
      const horizon = latest(all) ?? (this.lowering.T.has(key) ? none : undefined);
      return horizon ? [{ key, horizon }] : [];
    });
  }

  private serversOf(names: readonly string[], glue: ParentSight['glue']): readonly string[] {
    let servers = this.leadsTo.get(names);
    if (!servers) this.leadsTo.set(names, (servers = this.findServers(names, glue)));
    return servers;
  }

  private findServers(names: readonly string[], glue: ParentSight['glue']): string[] {
    const servers = new Set<string>();
    for (const name of names.map(lower)) {
      if (this.shared.has(name)) continue;
      const given = glue.filter((one) => lower(one.name) === name).map((one) => one.address);
      const addresses = given.length > 0 ? given : (this.known.get(name) ?? [`name:${name}`]);
      for (const address of addresses) servers.add(address);
    }
    return [...servers];
  }
}

/** Ends the runs that go on and are of this kind at a moment. The same array where there is none. */
function endAt<V>(runs: Run<V>[], at: Instant, which: (value: V) => boolean): Run<V>[] {
  if (!runs.some((run) => run.until === Infinity && which(run.value))) return runs;
  return runs.map((run) => (run.until === Infinity && which(run.value) ? { ...run, until: Math.max(at, run.from) } : run));
}

function sameParent(a: ParentSight, b: ParentSight): boolean {
  if (a === b) return true;
  if (a.ttl !== b.ttl || a.dsTtl !== b.dsTtl) return false;
  const glue = (sight: ParentSight): string => sight.glue.map((one) => `${one.name} ${one.address} ${one.ttl}`).join();
  const texts = (sight: ParentSight): string => `${sight.nameservers.join()} ${sight.ds.join()}`;
  return texts(a) === texts(b) && glue(a) === glue(b);
}
