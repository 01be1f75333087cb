import { TYPE_CODES } from '../dns/typeNames';
import { LegPlan, SetKey, keyOf, ownerOf, setKey, typeOf } from '../move/plan';
import { Said } from '../move/said';
import { AnswerSight, ParentSight, Seen, ServerSeen, ZoneSight } from '../move/seen';
import { isChanging } from '../rebuild/ruling';
import { nameKey, sameNameSet } from '../watch/verdict';
import { eff } from './eff';
import { Derived, Instant, SeenBetween, instantTerm, latest, secondsTerm } from './instant';
import { LedSpans, Lead, lastLeadOutside, ledSpans } from './led';
import { Remembered, rememberedUntil } from './remembered';
import { Run, Sight, runsOf } from './runs';
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

/** A set at a server whose TTL is above the one to which it was to go down. */
export interface Unlowered {
  readonly server: string;
  readonly key: SetKey;
  readonly ttl: number;
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

/** Sets that the leg changes, and the apex NS set: their TTLs are lowered. Only those that were found. */
export function setsToLower(plan: LegPlan): { key: SetKey; T: number }[] {
  const apexNs = keyOf(plan.zone, TYPE_CODES.NS);
  return plan.rulings.flatMap((ruling) => {
    const key = setKey(ruling.owner, ruling.type);
    return ruling.found && (isChanging(ruling) || key === apexNs) ? [{ key, T: ruling.found.ttl }] : [];
  });
}

/** Names that stand in both sets and have other addresses in the new one: there the new is told by address. */
export function sharedNames(plan: Pick<LegPlan, 'oldServers' | 'newServers'>): ReadonlyMap<string, readonly string[]> {
  const shared = new Map<string, string[]>();
  const addresses = (servers: LegPlan['newServers'], name: string): string[] => servers.filter((one) => lower(one.server) === name).map((one) => one.address);
  for (const name of new Set(plan.newServers.map((one) => lower(one.server)))) {
    const [before, after] = [addresses(plan.oldServers, name), addresses(plan.newServers, name)];
    if (before.length > 0 && before.some((address) => !after.includes(address))) shared.set(name, after);
  }
  return shared;
}

/** True where a server of the parent publishes the new set, by names, and by address where names stay. */
export function publishesNew(plan: LegPlan, sight: ParentSight): boolean {
  if (!sameNameSet(sight.nameservers, plan.newNameservers)) return false;
  for (const [name, addresses] of sharedNames(plan)) {
    const glue = sight.glue.filter((one) => lower(one.name) === name).map((one) => one.address);
    if (glue.some((address) => !addresses.includes(address))) return false;
  }
  return true;
}

/** True where an old authority has turned: it names the new set only, at the new addresses, or has refused for long. */
export function hasTurned(plan: LegPlan, sight: ZoneSight): boolean {
  if (sight.refused) return true;
  const ns = sight.sets[keyOf(plan.zone, TYPE_CODES.NS)];
  if (!ns || ns.data.length === 0) return false;
  const wanted = new Set(plan.newNameservers.map(nameKey));
  if (!ns.data.every((name) => wanted.has(nameKey(name)))) return false;
  for (const [name, addresses] of sharedNames(plan))
    for (const type of ['A', 'AAAA']) if ((sight.sets[setKey(name, type)]?.data ?? []).some((address) => !addresses.includes(address))) return false;
  return true;
}

/** ts: the earliest moment at which some parent server may have published the new set: as somebody said, or as it was seen. */
export function switchedSince({ plan, seen, said }: Pick<TimesInput, 'plan' | 'said'> & { readonly seen: Pick<Seen, 'parent'> }): Instant | undefined {
  const before = seen.parent.flatMap((server) => {
    const index = server.sightings.findIndex((one) => publishesNew(plan, one.value));
    return index < 0 ? [] : [server.sightings[index - 1]?.last ?? server.sightings[index]!.first];
  });
  const all = [...before, ...(said.submittedAt === undefined ? [] : [said.submittedAt])];
  return all.length === 0 ? undefined : Math.min(...all);
}

const lower = (name: string): string => name.toLowerCase();

class Folding {
  private readonly wanted: Wanted;
  private readonly apexNs: SetKey;
  private readonly shared: ReadonlyMap<string, readonly string[]>;
  private readonly newAddresses: ReadonlySet<string>;
  private readonly T: ReadonlyMap<SetKey, number>;
  /** Servers that are asked like old authorities: of the old set and of any third one, not of the new. */
  private readonly oldZones: readonly ServerSeen<ZoneSight>[];

  private readonly madeRuns = new Map<string, Run<AnswerSight | null>[]>();
  /** Addresses by name of every server that there is word of. */
  private readonly known = new Map<string, string[]>();

  constructor(private readonly input: TimesInput) {
    const { plan, seen } = input;
    for (const { server, address } of [...plan.oldServers, ...plan.newServers, ...seen.zones]) {
      const name = lower(server);
      this.known.set(name, [...(this.known.get(name) ?? []), address]);
    }
    this.wanted = input.wanted ?? new Wanted(plan);
    this.apexNs = keyOf(plan.zone, TYPE_CODES.NS);
    this.shared = sharedNames(plan);
    this.newAddresses = new Set(plan.newServers.map((one) => one.address));
    this.T = new Map(setsToLower(plan).map(({ key, T }) => [key, T]));
    this.oldZones = seen.zones.filter((one) => !this.newAddresses.has(one.address));
  }

  times(): LegTimes {
    const { plan, seen, now, assumed } = this.input;
    const waited = this.oldZones.filter((one) => !this.isAside(one.address));
    // A server of a third set counts once somebody is led to it; its TTLs are nobody's to lower.
    const ofOldSet = new Set(plan.oldServers.map((one) => one.address));
    const toLower = waited.filter((one) => ofOldSet.has(one.address));
    const unlowered = this.unlowered(toLower);
    const tl = this.loweredSince(toLower);
    const parents = seen.parent.filter((one) => !this.isAside(one.address));
    const published = since(parents, (sight) => publishesNew(plan, sight), now);
    const t0 = published.all && { lastOld: published.all.lastOld, firstNew: published.all.firstNew + assumed.parentAllowance };
    const led = this.ledNow();
    const te = since(
      waited.filter((one) => ofOldSet.has(one.address) || led.has(one.address)),
      (sight) => hasTurned(plan, sight),
      now,
    );
    const earliest = this.earliestSwitch(led);
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
      ...this.signed(parents),
      earliestSwitch: earliest.at,
      certain: earliest.certain,
      delegation,
      extended,
      sets,
      last: latest([bounded ? extended : delegation, ...sets.map((set) => set.horizon)])!,
      switchSeen: t0 !== undefined,
    };
  }

  private isAside(address: string): boolean {
    return this.input.said.aside.has(address);
  }

  /** A server that a person has set aside is taken to be gone from then on: its runs end there. */
  private runs<V>(server: Watched<unknown>, sightings: readonly Sight<V>[], same: (a: V, b: V) => boolean, allowance: number): Run<V>[] {
    const { now, said } = this.input;
    const runs = runsOf(sightings, { now, allowance, same });
    const end = said.aside.get(server.address)?.at;
    return end === undefined ? runs : runs.map((run) => ({ ...run, until: Math.min(run.until, Math.max(end, run.from)) }));
  }

  /** The sights of one set at one server. Looks that did not answer it are passed over. */
  private sightingsOf(server: ServerSeen<ZoneSight>, key: SetKey): Sight<AnswerSight | null>[] {
    const all: Sight<AnswerSight | null>[] = [];
    for (const { value, first, last, every } of server.sightings) {
      const answer = value.sets[key];
      if (!answer && !value.refused) continue;
      const before = all.at(-1);
      if (before && sameAnswer(before.value, answer ?? null) && first - before.last <= 3 * before.every) all[all.length - 1] = { ...before, last, every };
      else all.push({ value: answer ?? null, first, last, every });
    }
    return all;
  }

  private answerRuns(server: ServerSeen<ZoneSight>, key: SetKey): Run<AnswerSight | null>[] {
    const name = `${server.address} ${key}`;
    const known = this.madeRuns.get(name);
    if (known) return known;
    const made = this.runs(server, this.sightingsOf(server, key), sameAnswer, this.input.assumed.hostAllowance);
    this.madeRuns.set(name, made);
    return made;
  }

  /** The TTL to which a set was to go down, or that a person takes; seconds. */
  private target(key: SetKey, answer: AnswerSight, first: AnswerSight): number {
    const { said } = this.input;
    const found = this.T.get(key) ?? said.lowerTo;
    const T = answer.data.length === 0 ? first.ttl : this.input.kept?.has(key) ? found : Math.min(found, said.lowerTo);
    return Math.max(T, said.acceptedTtl ?? 0);
  }

  /** Set by set, since a look may leave one unanswered; a server that answers, but never for one of them, lacks. */
  private loweredSince(servers: readonly ServerSeen<ZoneSight>[]): Since {
    const all = servers
      .filter((server) => server.sightings.length > 0)
      .flatMap((server) =>
        [...this.T.keys()].map((key) => ({ server: server.server, address: server.address, key, sightings: this.sightingsOf(server, key) })),
      );
    const silent = all.filter((one) => one.sightings.length === 0);
    if (silent.length > 0) return { all: undefined, lacking: silent };
    // Each holds by its own key.
    let lastOld = -Infinity;
    let firstNew = -Infinity;
    const lacking: Watched<unknown>[] = [];
    for (const one of all) {
      const found = since([one], (answer) => answer === null || answer.ttl <= this.target(one.key, answer, answer), this.input.now);
      if (!found.all) lacking.push(one);
      else {
        lastOld = Math.max(lastOld, found.all.lastOld);
        firstNew = Math.max(firstNew, found.all.firstNew);
      }
    }
    const allowance = this.input.assumed.hostAllowance;
    return lacking.length > 0 || all.length === 0 ? { all: undefined, lacking } : { all: { lastOld, firstNew: firstNew + allowance }, lacking: [] };
  }

  private unlowered(servers: readonly ServerSeen<ZoneSight>[]): Unlowered[] {
    return servers.flatMap((server) => {
      const sight = server.sightings.at(-1)?.value;
      if (!sight || sight.refused) return [];
      return [...this.T.keys()].flatMap((key) => {
        const answer = sight.sets[key];
        return answer && answer.ttl > this.target(key, answer, answer) ? [{ server: server.server, key, ttl: answer.ttl }] : [];
      });
    });
  }

  /** Answers that are not wanted: of the sets that change, and of any other that some server answers otherwise. */
  private keys(servers: readonly ServerSeen<ZoneSight>[]): SetKey[] {
    const keys = new Set(this.input.plan.rulings.filter(isChanging).map((ruling) => setKey(ruling.owner, ruling.type)));
    for (const server of servers)
      for (const { value } of server.sightings)
        for (const [key, answer] of Object.entries(value.sets)) if (!keys.has(key) && this.wanted.is(key, answer) === false) keys.add(key);
    return [...keys];
  }

  /**
   * (a) of the gate: until when a server that caches are led to has given answers that outlast what they were to be
   * lowered to. A run that goes on counts up to now; where its TTL is too high it is taken to be lowered when that is decided.
   */
  private earliestSwitch(led: LedSpans): { at: Derived; certain: boolean } {
    const { now, said, assumed } = this.input;
    const lowering = Math.max(now, said.lowerAt ?? now);
    const all: Derived[] = [];
    let certain = this.oldZones.some((server) => server.sightings.length > 0);
    const consider = (server: ServerSeen<ZoneSight>, key: SetKey, unwanted: (answer: AnswerSight) => boolean): void => {
      const spans = led.get(server.address) ?? [];
      const runs = this.answerRuns(server, key);
      const first = runs.find((run) => run.value)?.value;
      for (const { value, from, until } of runs) {
        if (!value || !first || !unwanted(value)) continue;
        if (!spans.some((span) => Math.max(from, span.from) < Math.min(until, span.until))) continue;
        const target = eff(this.target(key, value, first), assumed.floor);
        const ttl = eff(value.ttl, assumed.floor);
        if (ttl <= target) continue;
        const goesOn = until === Infinity;
        if (goesOn) certain = false;
        const l = goesOn ? lowering : until;
        all.push({
          at: l + ttl - target,
          formula: 'l + eff(T) − eff(L)',
          terms: [
            instantTerm('l', goesOn ? `${server.server} lowers it, as decided` : `${server.server} seen to serve the lowered TTL`, l),
            secondsTerm('T', `TTL of ${words(key)} as found`, value.ttl),
            secondsTerm('L', `TTL of ${words(key)} as lowered, or as taken`, this.target(key, value, first)),
            secondsTerm('f', 'floor a cache may apply', assumed.floor),
          ],
          follows: 'RFC 1035 §3.2.1, RFC 2181 §8',
        });
      }
    };
    for (const server of this.input.seen.zones) {
      for (const key of this.keys([server])) consider(server, key, (answer) => this.wanted.is(key, answer) === false);
      consider(server, this.apexNs, (answer) => !sameNameSet(answer.data, this.input.plan.newNameservers));
    }
    const nothing: Derived = {
      at: now,
      formula: 'now',
      terms: [instantTerm('now', 'no answer outlasts what it was to be lowered to', now)],
      follows: 'RFC 1035 §3.2.1',
    };
    const last = latest(all);
    return { at: last && last.at > now ? last : (last ?? nothing), certain };
  }

  /** Where caches of any class can have been led to until now, by what was seen. */
  private ledNow(): LedSpans {
    const { seen, assumed } = this.input;
    const parent = seen.parent.map((server) => ({ says: server.server, runs: this.parentRuns(server).flatMap((run) => this.parentLeads(run)) }));
    const zone = new Map(
      seen.zones.map((server): [string, Run<Lead>[]] => [
        server.address,
        this.zoneLeads(this.answerRuns(server, this.apexNs), (key) => this.answerRuns(server, key)),
      ]),
    );
    return ledSpans({ parent, zone, floor: assumed.floor }).extending;
  }

  private parentRuns(server: ServerSeen<ParentSight>): Run<ParentSight>[] {
    return this.runs(server, server.sightings, sameParent, this.input.assumed.parentAllowance);
  }

  private parentLeads({ value, from, until }: Run<ParentSight>): Run<Lead>[] {
    const shared = value.glue.filter((one) => this.shared.has(lower(one.name)));
    return [
      { value: { servers: this.serversOf(value.nameservers, value.glue), ttl: value.ttl }, from, until },
      ...shared.map((one) => ({ value: { servers: [one.address], ttl: one.ttl }, from, until })),
    ];
  }

  /** What a server of the zone leads to: the names of its NS set, and where names stay, the addresses that it gives for them. */
  private zoneLeads(ns: readonly Run<AnswerSight | null>[], addresses: (key: SetKey) => readonly Run<AnswerSight | null>[]): Run<Lead>[] {
    const lead = (runs: readonly Run<AnswerSight | null>[], servers: (data: readonly string[]) => readonly string[]): Run<Lead>[] =>
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
    zoneAnswers: { server: ServerSeen<ZoneSight>; runs: (key: SetKey) => Run<AnswerSight | null>[] }[];
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
      const ns = this.answerRuns(server, this.apexNs);
      const lowered = isOld ? this.lowerAt(ns, this.apexNs, lowering, () => true) : ns;
      const isTurned = (answer: AnswerSight | null): boolean => answer === null || sameNameSet(answer.data, plan.newNameservers);
      const willTurn = isOld && turns && !known.te.all;
      const cut = willTurn ? endAt(lowered, te, (answer) => !isTurned(answer)) : lowered;
      const isOldAddress = (answer: AnswerSight | null): boolean => !!answer?.data.some((address) => !this.newAddresses.has(address));
      const addresses = (key: SetKey): Run<AnswerSight | null>[] =>
        willTurn ? endAt(this.answerRuns(server, key), te, isOldAddress) : this.answerRuns(server, key);
      zone.set(server.address, this.zoneLeads(cut, addresses));
      const runs = (key: SetKey): Run<AnswerSight | null>[] => {
        const all = this.answerRuns(server, key);
        const unwanted = (answer: AnswerSight | null): boolean => answer !== null && this.wanted.is(key, answer) === false;
        // What is not yet right at the new servers is so before anybody is led there: the gate asks for it.
        if (!isOld) return known.t0 || submitted ? all : endAt(all, Math.max(now, t0), unwanted);
        return submitted ? all : this.lowerAt(all, key, lowering, unwanted);
      };
      return { server, runs };
    });
    return { parent, zone, zoneAnswers };
  }

  /** Runs of an old authority whose TTL goes down when the lowering is done. */
  private lowerAt(
    runs: readonly Run<AnswerSight | null>[],
    key: SetKey,
    at: Instant,
    which: (answer: AnswerSight | null) => boolean,
  ): Run<AnswerSight | null>[] {
    return runs.flatMap((run) => {
      const { value } = run;
      const first = runs.find((one) => one.value)?.value;
      if (!value || !first || run.until !== Infinity || !which(value)) return [run];
      const target = this.target(key, value, first);
      if (value.ttl <= target || this.input.said.left.has('lower')) return [run];
      return [
        { ...run, until: Math.max(at, run.from) },
        { value: { ...value, ttl: target }, from: at, until: Infinity },
      ];
    });
  }

  private horizons(zones: readonly { server: ServerSeen<ZoneSight>; runs: (key: SetKey) => Run<AnswerSight | null>[] }[], spans: LedSpans): LegTimes['sets'] {
    const { assumed, now } = this.input;
    return this.keys(zones.map((one) => one.server)).flatMap((key) => {
      const all = zones.flatMap(({ server, runs }): Derived[] => {
        const unwanted = runs(key).flatMap(({ value, from, until }): Run<Remembered>[] =>
          value && this.wanted.is(key, value) === false ? [{ value: { ttl: value.ttl, words: words(key, value) }, from, until }] : [],
        );
        const derived = rememberedUntil(server.server, unwanted, spans.get(server.address) ?? [], assumed.floor);
        return derived ? [derived] : [];
      });
      const horizon = latest(all);
      if (horizon) return [{ key, horizon }];
      const none: Derived = {
        at: now,
        formula: 'now',
        terms: [instantTerm('now', 'no server was seen to answer it otherwise', now)],
        follows: 'RFC 1035 §3.2.1',
      };
      return this.T.has(key) ? [{ key, horizon: none }] : [];
    });
  }

  private serversOf(names: readonly string[], glue: ParentSight['glue']): string[] {
    return [
      ...new Set(
        names.map(lower).flatMap((name) => {
          if (this.shared.has(name)) return [];
          const given = glue.filter((one) => lower(one.name) === name).map((one) => one.address);
          const addresses = given.length > 0 ? given : (this.known.get(name) ?? []);
          return addresses.length > 0 ? addresses : [`name:${name}`];
        }),
      ),
    ];
  }

  /** A DS that was ever seen keeps the gate shut until keys validated through it have run out (RFC 4035 §4.3, RFC 6781 §4.3.4). */
  private signed(parents: readonly ServerSeen<ParentSight>[]): { td: SeenBetween | undefined; signedUntil: Derived | undefined } {
    const { plan, now, assumed } = this.input;
    const sights = parents.flatMap((server) => server.sightings.map((one) => one.value));
    const ever = sights.some((sight) => sight.ds.length > 0);
    if (!ever && plan.keysTtl === undefined) return { td: undefined, signedUntil: undefined };
    const gone = ever
      ? since(parents, (sight) => sight.ds.length === 0, now).all
      : plan.surveyedAt === undefined
        ? undefined
        : { lastOld: plan.surveyedAt, firstNew: plan.surveyedAt };
    if (!gone) return { td: undefined, signedUntil: undefined };
    const td = { lastOld: gone.lastOld, firstNew: gone.firstNew + assumed.parentAllowance };
    const D = Math.max(...sights.map((sight) => (sight.ds.length > 0 ? sight.dsTtl : 0)), ever ? 0 : Math.max(...sights.map((sight) => sight.ttl), 0));
    const K = Math.max(
      plan.keysTtl ?? 0,
      ...this.oldZones.flatMap((one) => one.sightings.map(({ value }) => value.sets[keyOf(plan.zone, TYPE_CODES.DNSKEY)]?.ttl ?? 0)),
    );
    return {
      td,
      signedUntil: {
        at: td.firstNew + eff(D, assumed.floor) + eff(K, assumed.floor),
        formula: 'td + eff(D) + eff(K)',
        terms: [
          instantTerm('td', ever ? 'every parent server seen without the DS' : 'the survey: the zone has keys, and no DS was seen', td.firstNew),
          secondsTerm('D', 'TTL of the DS set', D),
          secondsTerm('K', 'TTL of the DNSKEY set of the old zone', K),
          secondsTerm('f', 'floor a cache may apply', assumed.floor),
        ],
        follows: 'RFC 4035 §4.3, RFC 6781 §4.3.4',
      },
    };
  }
}

/** Ends the runs that go on and are of this kind at a moment. The same array where there is none. */
function endAt<V>(runs: Run<V>[], at: Instant, which: (value: V) => boolean): Run<V>[] {
  if (!runs.some((run) => run.until === Infinity && which(run.value))) return runs;
  return runs.map((run) => (run.until === Infinity && which(run.value) ? { ...run, until: Math.max(at, run.from) } : run));
}

function sameAnswer(a: AnswerSight | null, b: AnswerSight | null): boolean {
  if (a === b) return true;
  if (a === null || b === null) return false;
  return a.ttl === b.ttl && a.data.length === b.data.length && a.data.every((text, index) => text === b.data[index]);
}

function sameParent(a: ParentSight, b: ParentSight): boolean {
  if (a === b) return true;
  const glue = (sight: ParentSight): string => sight.glue.map((one) => `${one.name} ${one.address} ${one.ttl}`).join();
  const texts = (sight: ParentSight): string => `${sight.ttl} ${sight.dsTtl} ${sight.nameservers.join()} ${sight.ds.join()}`;
  return texts(a) === texts(b) && glue(a) === glue(b);
}

function words(key: SetKey, answer?: AnswerSight): string {
  const name = `${ownerOf(key)} ${typeOf(key)}`;
  return !answer
    ? name
    : answer.data.length === 0
      ? `that ${name} does not exist`
      : `${name} as ${answer.data.length === 1 ? answer.data[0]!.slice(0, 60) : `${answer.data.length} records`}`;
}
