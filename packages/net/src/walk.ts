import { Message, Name, RCODE, ResourceRecord, TYPE_CODES, namesIn, negativeTtl, printRdata, readSoa } from '@wanderon/core';
import { AskOptions, DnsClient } from './client';
import { NetError } from './netError';

export interface NameServer {
  readonly name: string;
  readonly addresses: readonly string[];
}

/** What one server of the parent zone says of a delegation. TTLs in seconds. */
export interface Referral {
  readonly server: string;
  readonly address: string;
  readonly nameservers: readonly string[];
  /** Of the referral; where the domain is denied, of the denial (RFC 2308 §5), as far as it gives one. */
  readonly ttl: number | undefined;
  readonly glue: readonly { readonly name: string; readonly address: string; readonly ttl: number }[];
  /**
   * Addresses that came along for names outside of the zone and inside of its parent. Their own zone tells where these are; resolvers ask here
   * where that does not (RFC 9471 §2.2), and so does whoever has nothing else.
   */
  readonly siblings?: readonly { readonly name: string; readonly address: string }[];
  readonly ds: readonly string[];
  /** TTL of the DS set; undefined where there is none. */
  readonly dsTtl: number | undefined;
  readonly denied: boolean;
  /** It holds the zone as well, and answers from it (RFC 1034 §4.2.1): what its parent zone says stands behind that. */
  readonly holdsZone: boolean;
  readonly problem: string | undefined;
}

export interface Delegation {
  readonly parent: string;
  readonly referrals: readonly Referral[];
}

const MAX_DEPTH = 30;
/** Milliseconds that one server is given before the next one is asked as well. */
const PATIENCE = 400;
/** Servers of one zone, and addresses of one server, that are looked at: a hostile referral must not set off thousands of questions. */
const MAX_SERVERS = 20;
/** Of those whose address does not come with the referral, so many are looked up: each may lead on to others, of which nobody asked for any. */
const MAX_GLUELESS = 3;
/** Questions that finding the way may take, of one name and of all that one walker is asked for. */
const PER_NAME = 60;
const IN_ALL = 300;

/** Questions that are left for one name. */
interface Budget {
  left: number;
}

/** Where a zone begins, and the names of its servers, as a referral has them. */
interface Cut {
  readonly zone: Name;
  readonly targets: readonly Name[];
}

/**
 * Walks from the root hints to a zone's parent and asks every server of it (RFC 1034 §5.3.3), with no resolver between.
 * Data outside the zone of the server that gives it is not believed; where the servers of the zone itself are, only names below its cut tell.
 */
export class Walker {
  private readonly zoneServers = new Map<string, NameServer[]>();
  /** Addresses that did not answer: they are asked last from then on. */
  private readonly silent = new Set<string>();
  private left = IN_ALL;
  private readonly unfollowed = new Set<string>();

  constructor(
    private readonly client: DnsClient,
    private readonly hints: readonly NameServer[],
    private readonly options: AskOptions = {},
  ) {}

  /** The referral for `zone` as each address of each parent server gives it. Throws a NetError where no parent is found. */
  async delegation(zone: Name): Promise<Delegation> {
    const parent = await this.serversAbove(zone);
    const asked = parent.servers.flatMap((server) => server.addresses.map((address) => ({ server: server.name, address })));
    if (asked.length === 0) throw new NetError('unreachable', `no server of ${parent.zone.toString()} could be found`);
    const referrals = await Promise.all(asked.map((one) => this.referralFrom(one.server, one.address, zone, parent.zone)));
    return { parent: parent.zone.toString(), referrals };
  }

  /** The zone in which a host name stands, with its servers, as far down as the way to it leads. */
  async serversFor(name: Name): Promise<{ zone: Name; servers: readonly NameServer[] }> {
    await this.lookUp(name, TYPE_CODES.A, 0, { left: PER_NAME });
    return this.nearest(name);
  }

  /** Keys of names that were not followed to their addresses, since that would have taken too many questions: of those nothing is known. */
  get givenUp(): ReadonlySet<string> {
    return this.unfollowed;
  }

  /** Every address of a host name, asked from the root down; empty where there is none, or the way to it is too long. */
  async addressesOf(name: Name): Promise<string[]> {
    const budget = { left: PER_NAME };
    const found = await this.addressesAt(name, 0, budget);
    if (found.length === 0 && this.isSpent(budget)) this.unfollowed.add(name.key);
    return found;
  }

  /** The records of a name and type as its authorities give them, empty where there are none; null where none could be asked. Aliases are not followed. */
  async recordsOf(name: Name, type: number): Promise<Uint8Array[] | null> {
    const answer = await this.lookUp(name, type, 0, { left: PER_NAME });
    return answer ? answer.answers.filter((record) => record.type === type && record.owner.equals(name)).map((record) => record.data) : null;
  }

  private isSpent(budget: Budget): boolean {
    return this.left <= 0 || budget.left <= 0;
  }

  private async addressesAt(name: Name, depth: number, budget: Budget): Promise<string[]> {
    if (depth > 6) return [];
    const found: string[] = [];
    for (const type of [TYPE_CODES.A, TYPE_CODES.AAAA]) {
      let target = name;
      for (let hops = 0; hops < 8; hops++) {
        const answer = await this.lookUp(target, type, depth, budget);
        const addresses = answer?.answers.filter((record) => record.type === type && record.owner.equals(target)) ?? [];
        found.push(...addresses.map((record) => printRdata(type, record.data)));
        const alias = answer?.answers.find((record) => record.type === TYPE_CODES.CNAME && record.owner.equals(target));
        if (addresses.length > 0 || !alias) break;
        target = namesIn(TYPE_CODES.CNAME, alias.data)[0] ?? target;
      }
    }
    return found;
  }

  private async lookUp(name: Name, type: number, depth: number, budget: Budget): Promise<Message | undefined> {
    let { zone, servers } = this.nearest(name);
    for (let step = 0; step < MAX_DEPTH; step++) {
      const answer = await this.firstAnswer(servers, zone, name, type, budget);
      if (!answer) return undefined;
      const next = referralIn(answer, zone, name);
      if (!next) return answer;
      servers = await this.serversOf(next, zone, answer, depth, budget);
      zone = next.zone;
    }
    return undefined;
  }

  private async serversAbove(zone: Name): Promise<{ zone: Name; servers: NameServer[] }> {
    const budget = { left: PER_NAME };
    let current = { zone: Name.root, servers: [...this.hints] };
    for (let step = 0; step < MAX_DEPTH; step++) {
      const answer = await this.firstAnswer(current.servers, current.zone, zone, TYPE_CODES.NS, budget);
      if (!answer && this.isSpent(budget)) throw new NetError('limit', `the way to ${zone.toString()} would take too many questions`);
      if (!answer) throw new NetError('unreachable', `no server of ${current.zone.toString()} answers`);
      const next = referralIn(answer, current.zone, zone);
      if (!next || next.zone.equals(zone)) return current;
      current = { zone: next.zone, servers: await this.serversOf(next, current.zone, answer, 0, budget) };
    }
    throw new NetError('malformed', 'the referrals lead in a circle');
  }

  /** The closest zone at or above a name that was walked through before, so that the servers further up are left alone. */
  private nearest(name: Name): { zone: Name; servers: NameServer[] } {
    for (let zone = name; !zone.isRoot; zone = zone.parent) {
      const servers = this.zoneServers.get(zone.key);
      if (servers?.some((server) => server.addresses.length > 0)) return { zone, servers };
    }
    return { zone: Name.root, servers: [...this.hints] };
  }

  private async serversOf(next: Cut, from: Name, answer: Message, depth: number, budget: Budget): Promise<NameServer[]> {
    const servers = this.zoneServers.get(next.zone.key) ?? (await this.serversFrom(next, from, answer, depth, budget));
    // What was not looked up says nothing of the next name below.
    if (!this.isSpent(budget)) this.zoneServers.set(next.zone.key, servers);
    return servers;
  }

  /** `from` is the zone whose server answered: on the way, glue for names outside of it is not believed. */
  private async serversFrom(next: Cut, from: Name, answer: Message, depth: number, budget: Budget): Promise<NameServer[]> {
    const servers: NameServer[] = [];
    let glueless = 0;
    for (const target of next.targets.slice(0, MAX_SERVERS)) {
      const glue = answer.additionals
        .filter((record) => isAddress(record) && record.owner.equals(target) && target.isAtOrBelow(from))
        .slice(0, MAX_SERVERS)
        .map((record) => printRdata(record.type, record.data));
      const isElsewhere = glue.length === 0 && !target.isAtOrBelow(next.zone);
      const addresses = isElsewhere && glueless++ < MAX_GLUELESS ? await this.addressesAt(target, depth + 1, budget) : glue;
      servers.push({ name: target.toString(), addresses });
    }
    return servers;
  }

  /**
   * The first answer that is of the zone itself or leads down from it; servers that are lame for it are passed over. A server
   * that does not answer at once is not waited for alone: the next one is asked beside it.
   */
  private firstAnswer(servers: readonly NameServer[], zone: Name, name: Name, type: number, budget: Budget): Promise<Message | undefined> {
    const known = servers.flatMap((server) => server.addresses);
    const waiting = [...known.filter((address) => !this.silent.has(address)), ...known.filter((address) => this.silent.has(address))];
    return new Promise((resolve, reject) => {
      let open = 0;
      let over = false;
      let timer: NodeJS.Timeout | undefined;
      const end = (act: () => void): void => {
        over = true;
        clearTimeout(timer);
        act();
      };
      const ask = (): void => {
        clearTimeout(timer);
        const address = waiting.shift();
        if (over) return;
        if (address === undefined) return open === 0 ? end(() => resolve(undefined)) : undefined;
        open += 1;
        timer = setTimeout(ask, PATIENCE);
        this.soundAnswer(address, zone, name, type, budget)
          .then((answer) => {
            open -= 1;
            if (over) return;
            if (answer) end(() => resolve(answer));
            else ask();
          })
          .catch((error: unknown) => (over ? undefined : end(() => reject(error as Error))));
      };
      ask();
    });
  }

  private async soundAnswer(address: string, zone: Name, name: Name, type: number, budget: Budget): Promise<Message | undefined> {
    const spend = (): boolean => {
      if (this.isSpent(budget)) return false;
      this.left -= 1;
      budget.left -= 1;
      return true;
    };
    if (!spend()) return undefined;
    try {
      // One that is sent again is one more to whoever gets it.
      const answer = await this.client.ask({ address }, name, type, { ...this.options, mayRetry: spend });
      const sound = answer.rcode === RCODE.NOERROR || answer.rcode === RCODE.NXDOMAIN;
      // A server that answers the question without claiming authority is believed, as resolvers do; not one that asks others for it.
      const answers = answer.answers.length > 0 && !answer.recursionAvailable;
      return sound && (answer.authoritative || answers || referralIn(answer, zone, name)) ? answer : undefined;
    } catch (error) {
      if (!(error instanceof NetError) || error.kind === 'cancelled') throw error;
      this.silent.add(address);
      return undefined;
    }
  }

  private async referralFrom(server: string, address: string, zone: Name, parent: Name): Promise<Referral> {
    const empty = { server, address, nameservers: [], ttl: undefined, glue: [], ds: [], dsTtl: undefined, denied: false, holdsZone: false };
    let answer: Message;
    let ds: Message;
    try {
      [answer, ds] = await Promise.all([
        this.client.ask({ address }, zone, TYPE_CODES.NS, this.options),
        this.client.ask({ address }, zone, TYPE_CODES.DS, this.options),
      ]);
    } catch (error) {
      if (error instanceof NetError && error.kind !== 'cancelled') return { ...empty, problem: error.message };
      throw error;
    }
    if (answer.rcode === RCODE.NXDOMAIN) return { ...empty, ttl: negativeTtlOf(answer), denied: true, problem: undefined };
    if (answer.rcode !== RCODE.NOERROR) return { ...empty, problem: `answered with response code ${answer.rcode}` };
    // A server that holds parent and child answers from the child, authoritatively.
    const section = answer.authorities.some((record) => record.type === TYPE_CODES.NS && record.owner.equals(zone)) ? answer.authorities : answer.answers;
    const set = section.filter((record) => record.type === TYPE_CODES.NS && record.owner.equals(zone));
    const targets = set.flatMap((record) => namesIn(record.type, record.data));
    const given = answer.additionals.filter((record) => isAddress(record) && targets.some((target) => target.equals(record.owner)));
    const siblings = given.filter(({ owner }) => !owner.isAtOrBelow(zone) && owner.isAtOrBelow(parent));
    const signers = ds.answers.filter((record) => record.type === TYPE_CODES.DS && record.owner.equals(zone));
    return {
      ...empty,
      nameservers: targets.map((target) => target.toString()),
      ttl: set.length > 0 ? Math.min(...set.map((record) => record.ttl)) : negativeTtlOf(answer),
      siblings: siblings.map(({ owner, type, data }) => ({ name: owner.toString(), address: printRdata(type, data) })),
      glue: given
        .filter(({ owner }) => owner.isAtOrBelow(zone))
        .map((record) => ({ name: record.owner.toString(), address: printRdata(record.type, record.data), ttl: record.ttl })),
      ds: signers.map((record) => printRdata(record.type, record.data)),
      dsTtl: signers.length > 0 ? Math.min(...signers.map((record) => record.ttl)) : undefined,
      denied: set.length === 0,
      holdsZone: answer.authoritative && set.length > 0 && section === answer.answers,
      problem: undefined,
    };
  }
}

/** min(SOA TTL, SOA minimum) of a denial; undefined where it has no SOA record. */
function negativeTtlOf(answer: Message): number | undefined {
  const soa = answer.authorities.find((record) => record.type === TYPE_CODES.SOA);
  return soa && negativeTtl(soa.ttl, readSoa(soa.data).minimum);
}

function isAddress(record: ResourceRecord): boolean {
  return record.type === TYPE_CODES.A || record.type === TYPE_CODES.AAAA;
}

/** The referral in an answer: NS records of a zone below the one asked and at or above the name asked for. */
function referralIn(answer: Message, zone: Name, name: Name): Cut | undefined {
  if (answer.authoritative && answer.answers.length > 0) return undefined;
  const sets = answer.authorities.filter((record) => record.type === TYPE_CODES.NS && record.owner.isBelow(zone) && name.isAtOrBelow(record.owner));
  const owner = sets[0]?.owner;
  if (!owner) return undefined;
  return { zone: owner, targets: sets.filter((record) => record.owner.equals(owner)).flatMap((record) => namesIn(record.type, record.data)) };
}
