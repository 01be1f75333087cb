import {
  Instant,
  Message,
  Name,
  RCODE,
  ResourceRecord,
  TYPE_CODES,
  decodeMessage,
  effectiveTtl,
  encodeWithin,
  namesIn,
  negativeTtl,
  printRdata,
  readSoa,
  reply,
} from '@wanderon/core';
import { DnsClient, NameServer, NetError, RouteTable } from '@wanderon/net';
import { LabClock } from './labClock';
import { DnsListener } from './listener';

/** How a resolver remembers. TTLs in seconds. */
export interface ResolverHabits {
  /** Whose NS set counts: the parent's referral, or the child's own, which some extend with every answer. */
  readonly follows: 'parent' | 'child' | 'child, extended';
  readonly floor?: number;
  readonly cap?: number;
  /** Separate caches behind the one address, asked in turn. */
  readonly caches?: number;
  /** RFC 8767: answers from an expired entry where no authority can be reached. */
  readonly stale?: boolean;
  /** Asks this resolver instead of the authorities. */
  readonly forwardsTo?: string;
}

interface Entry {
  readonly rcode: number;
  readonly records: readonly ResourceRecord[];
  readonly negative: readonly ResourceRecord[];
  readonly expires: number;
}

interface CachedCut {
  readonly zone: Name;
  readonly targets: readonly Name[];
  readonly glue: readonly ResourceRecord[];
  readonly fromChild: boolean;
  readonly expires: number;
}

/** What a server gave, and when it was asked. */
interface Given {
  readonly answer: Message;
  readonly asked: Instant;
}

interface Cache {
  readonly entries: Map<string, Entry>;
  readonly cuts: Map<string, CachedCut>;
}

interface Resolved {
  readonly rcode: number;
  readonly answers: readonly ResourceRecord[];
  readonly authorities: readonly ResourceRecord[];
}

/**
 * A resolver that really caches, under the lab clock. What it keeps counts from when it asked, and what it hands on has no
 * fraction of a second more than it has itself: a millisecond on the way is nothing in the world, and seconds where the
 * clock is fast, so that no entry would outlive its fetch + eff(TTL) but for the machine that it runs on.
 */
export class LabResolver {
  private readonly caches: Cache[];
  private turn = 0;
  private listener: DnsListener | undefined;

  constructor(
    readonly name: string,
    readonly address: string,
    readonly habits: ResolverHabits,
    private readonly hints: readonly NameServer[],
    private readonly client: DnsClient,
    private readonly clock: LabClock,
  ) {
    this.caches = Array.from({ length: habits.caches ?? 1 }, () => ({ entries: new Map(), cuts: new Map() }));
  }

  async open(routes: RouteTable): Promise<void> {
    this.listener = await DnsListener.open(this.address, routes, async ({ raw, transport }) => {
      const request = decodeMessage(raw);
      const question = request.questions[0];
      if (request.response || !question) return [];
      const cache = this.caches[this.turn++ % this.caches.length]!;
      const found = await this.resolve(cache, question.name, question.type, 0);
      const answer = reply(request, { recursionAvailable: true, ...found });
      return [encodeWithin(answer, transport === 'tcp' ? 65_535 : Math.max(512, request.edns?.udpSize ?? 512))];
    });
  }

  close(): void {
    this.listener?.close();
  }

  private async resolve(cache: Cache, name: Name, type: number, depth: number): Promise<Resolved> {
    const answers: ResourceRecord[] = [];
    let target = name;
    for (let hops = 0; hops < 9; hops++) {
      const entry = await this.entry(cache, target, type, depth);
      const left = Math.max(0, Math.floor(entry.expires - this.clock.now()));
      const aged = entry.records.map((record) => ({ ...record, ttl: left }));
      answers.push(...aged);
      const alias = type === TYPE_CODES.CNAME ? undefined : aged.find((record) => record.type === TYPE_CODES.CNAME);
      if (!alias) return { rcode: entry.rcode, answers, authorities: entry.negative.map((record) => ({ ...record, ttl: left })) };
      target = namesIn(TYPE_CODES.CNAME, alias.data)[0]!;
    }
    return { rcode: RCODE.SERVFAIL, answers: [], authorities: [] };
  }

  /** The data of one owner and type, or its alias, or its absence: remembered, or fetched. */
  private async entry(cache: Cache, name: Name, type: number, depth: number): Promise<Entry> {
    const key = `${type}/${name.key}`;
    const now = this.clock.now();
    const known = cache.entries.get(key);
    if (known && known.expires > now) return known;
    const alias = cache.entries.get(`${TYPE_CODES.CNAME}/${name.key}`);
    if (alias && alias.expires > now && alias.records.length > 0) return alias;
    let given: Given | undefined;
    try {
      given = this.habits.forwardsTo
        ? { asked: now, answer: await this.client.ask({ address: this.habits.forwardsTo }, name, type, { recursive: true }) }
        : await this.iterate(cache, name, type, depth);
    } catch (error) {
      if (!(error instanceof NetError)) throw error;
    }
    if (!given || (given.answer.rcode !== RCODE.NOERROR && given.answer.rcode !== RCODE.NXDOMAIN)) {
      if (known && this.habits.stale) return { ...known, expires: now + 30 };
      return { rcode: RCODE.SERVFAIL, records: [], negative: [], expires: now };
    }
    return this.remember(cache, name, type, given);
  }

  private remember(cache: Cache, name: Name, type: number, { answer, asked }: Given): Entry {
    const here = answer.answers.filter((record) => record.owner.equals(name));
    const set = here.filter((record) => record.type === type);
    const records = set.length > 0 ? set : here.filter((record) => record.type === TYPE_CODES.CNAME);
    let entry: Entry;
    if (records.length > 0) {
      entry = { rcode: RCODE.NOERROR, records, negative: [], expires: asked + this.bounded(Math.min(...records.map((record) => record.ttl))) };
    } else {
      const soa = answer.authorities.find((record) => record.type === TYPE_CODES.SOA);
      const ttl = soa ? negativeTtl(soa.ttl, readSoa(soa.data).minimum) : 0;
      entry = { rcode: answer.rcode, records: [], negative: soa ? [soa] : [], expires: asked + this.bounded(ttl) };
    }
    cache.entries.set(`${records[0]?.type ?? type}/${name.key}`, entry);
    return entry;
  }

  private async iterate(cache: Cache, name: Name, type: number, depth: number): Promise<Given | undefined> {
    if (depth > 5) return undefined;
    for (let step = 0; step < 12; step++) {
      const cut = this.closestCut(cache, name);
      const servers = cut ? await this.addressesOf(cache, cut, depth) : this.hints.flatMap((hint) => hint.addresses);
      const given = await this.firstAnswer(servers, name, type);
      if (!given) return undefined;
      const { answer, asked } = given;
      const below = answer.authorities.filter((record) => record.type === TYPE_CODES.NS && name.isAtOrBelow(record.owner));
      const owner = below[0]?.owner;
      if (owner && answer.authoritative && this.habits.follows !== 'parent') this.learnFromChild(cache, owner, below, asked);
      if (answer.authoritative || !owner || (cut && !owner.isBelow(cut.zone))) return given;
      const set = below.filter((record) => record.owner.equals(owner));
      const targets = set.flatMap((record) => namesIn(record.type, record.data));
      cache.cuts.set(owner.key, {
        zone: owner,
        targets,
        glue: answer.additionals.filter((record) => targets.some((target) => target.equals(record.owner))),
        fromChild: false,
        expires: asked + this.bounded(Math.min(...set.map((record) => record.ttl))),
      });
    }
    return undefined;
  }

  private learnFromChild(cache: Cache, zone: Name, set: readonly ResourceRecord[], asked: Instant): void {
    const known = cache.cuts.get(zone.key);
    if (known?.fromChild && known.expires > this.clock.now() && this.habits.follows !== 'child, extended') return;
    const targets = set.filter((record) => record.owner.equals(zone)).flatMap((record) => namesIn(record.type, record.data));
    cache.cuts.set(zone.key, {
      zone,
      targets,
      glue: known?.glue.filter((record) => targets.some((target) => target.equals(record.owner))) ?? [],
      fromChild: true,
      expires: asked + this.bounded(Math.min(...set.map((record) => record.ttl))),
    });
  }

  private closestCut(cache: Cache, name: Name): CachedCut | undefined {
    for (let at = name; !at.isRoot; at = at.parent) {
      const cut = cache.cuts.get(at.key);
      if (cut && cut.expires > this.clock.now()) return cut;
    }
    return undefined;
  }

  private async addressesOf(cache: Cache, cut: CachedCut, depth: number): Promise<string[]> {
    const addresses: string[] = [];
    for (const target of cut.targets) {
      const glue = cut.glue.filter((record) => record.owner.equals(target) && record.type === TYPE_CODES.A);
      if (glue.length > 0) addresses.push(...glue.map((record) => printRdata(record.type, record.data)));
      else if (!target.isAtOrBelow(cut.zone)) {
        const found = await this.resolve(cache, target, TYPE_CODES.A, depth + 1);
        addresses.push(...found.answers.filter((record) => record.type === TYPE_CODES.A).map((record) => printRdata(record.type, record.data)));
      }
    }
    return addresses;
  }

  private async firstAnswer(addresses: readonly string[], name: Name, type: number): Promise<Given | undefined> {
    for (const address of addresses) {
      try {
        const asked = this.clock.now();
        const answer = await this.client.ask({ address }, name, type, { tries: 1 });
        if (answer.rcode === RCODE.NOERROR || answer.rcode === RCODE.NXDOMAIN) return { answer, asked };
      } catch (error) {
        if (!(error instanceof NetError)) throw error;
      }
    }
    return undefined;
  }

  private bounded(ttl: number): number {
    return Math.min(Math.max(effectiveTtl(ttl), this.habits.floor ?? 0), this.habits.cap ?? Infinity);
  }
}
