import { readFile } from 'node:fs/promises';
import { Inject, Injectable, OnModuleInit } from '@nestjs/common';
import { inPrefix, isPublicAddress } from '@wanderon/core';
import { DnsClient, NameServer, NetError, NetErrorKind, RdapBootstrap, Route, RouteTable, Walker, parseRootHints } from '@wanderon/net';
import { z } from 'zod';
import { WALL_CLOCK, Clock } from '../clock/clock';
import { fromLab } from '../clock/fromLab';
import { CONFIG, Config } from '../config';
import { SurveyWorld } from '../survey/surveyWorld';
import { Lookout } from './lookout';
import { AFRESH, machineResolvers } from './ownResolvers';

const routesSchema = z.array(z.object({ address: z.string(), port: z.number(), transport: z.enum(['udp', 'tcp']), toAddress: z.string(), toPort: z.number() }));
const scenarioSchema = z.object({
  lookouts: z.array(z.object({ name: z.string(), address: z.string(), habit: z.string() })),
  hints: z.array(z.object({ name: z.string(), addresses: z.array(z.string()) })),
  /** Where the list of registration data services is; null: there is none. */
  registryList: z.url().nullable(),
  /** PEM of the lab's certificate authority. */
  ca: z.string(),
});

/** Records and octets of one transfer that are taken, and milliseconds that it may take: several surveys have room beside each other. */
export const TRANSFER_BOUNDS = { limit: 300_000, octets: 48_000_000, longest: 600_000 } as const;

/** Where a machine's resolvers stand. */
const RESOLV_CONF = '/etc/resolv.conf';

/** Octets of all transfers that are in hand: three as large as any may be, and all others of usual size. */
const ALL_TRANSFERS = 3 * TRANSFER_BOUNDS.octets;

/** The way to the world: the DNS client with its route table, the root hints and the lookouts, from the lab or the configuration. */
@Injectable()
export class Network implements OnModuleInit {
  private dns!: DnsClient;
  private hints: readonly NameServer[] = [];
  /** Resolvers that are always there, and those of the configuration or the lab. */
  private always: readonly Lookout[] = [];
  private all: readonly Lookout[] = [];
  private added: readonly Lookout[] = [];
  private services: () => Promise<RdapBootstrap | undefined> = () => Promise.resolve(undefined);
  private listAddress: string | undefined;
  private ca: string | undefined;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(WALL_CLOCK) private readonly wall: Clock,
  ) {}

  async onModuleInit(): Promise<void> {
    const routes: Route[] = [...this.config.WANDERON_ROUTES];
    const own = this.config.WANDERON_OWN_RESOLVERS === 'yes' ? [AFRESH, ...(await machineResolvers(RESOLV_CONF))] : [];
    if (this.config.WANDERON_LAB) {
      const lab = this.config.WANDERON_LAB;
      routes.push(...routesSchema.parse(await fromLab(lab, '/routes')));
      const scenario = scenarioSchema.parse(await fromLab(lab, '/scenario'));
      this.hints = scenario.hints;
      const habits = scenario.lookouts.map(({ name, address, habit }): Lookout => ({ name, address, over: 'udp', stands: '', note: habit }));
      // The machine's own resolvers know nothing of the lab.
      this.always = habits.length > 0 ? habits : own.slice(0, 1);
      this.listAddress = scenario.registryList ?? undefined;
      this.ca = scenario.ca;
    } else {
      this.listAddress = this.config.WANDERON_RDAP_LIST;
      this.hints = parseRootHints(await readFile(this.config.WANDERON_ROOT_HINTS, 'utf8'));
      this.always = [...own, ...this.config.WANDERON_LOOKOUTS.map((one): Lookout => ({ ...one, over: 'udp', stands: '' }))];
    }
    // What the configuration names may be asked wherever it is.
    this.all = [...this.always, ...this.added];
    const named = new Set([...this.hints.flatMap((server) => server.addresses), ...this.always.map((one) => one.address)]);
    const { WANDERON_PROBE_ALLOW: allowed } = this.config;
    const mayReach = (address: string): boolean => isPublicAddress(address) || named.has(address) || allowed.some((prefix) => inPrefix(prefix, address));
    this.dns = new DnsClient(new RouteTable(routes, mayReach), () => Math.floor(this.wall.now()), {
      perSecond: this.config.WANDERON_QUESTIONS_PER_SECOND,
      inStreams: ALL_TRANSFERS,
    });
  }

  get client(): DnsClient {
    return this.dns;
  }

  get lookouts(): readonly Lookout[] {
    return this.all;
  }

  /** Resolvers that people added, behind the others. */
  setAdded(added: readonly Lookout[]): void {
    this.added = added;
    this.all = [...this.always, ...added];
  }

  /** Where the list of registration data services is fetched; undefined: it is not. */
  get registryList(): string | undefined {
    return this.listAddress;
  }

  setServices(services: () => Promise<RdapBootstrap | undefined>): void {
    this.services = services;
  }

  get surveyWorld(): SurveyWorld {
    const http = { routes: this.dns.routes, allowed: this.config.WANDERON_PROBE_ALLOW, ca: this.ca };
    return { client: this.dns, walker: (signal) => this.walker(signal), http, bootstrap: this.services };
  }

  /** A fresh walker: it remembers nothing from before. */
  walker(signal?: AbortSignal): Walker {
    return new Walker(this.dns, this.hints, { signal });
  }
}

/** What a question gave, or why nothing came: a NetError is an observation, anything else is a fault of ours. */
export async function observed<T>(asking: Promise<T>): Promise<{ ok: true; value: T } | { ok: false; problem: string; kind: NetErrorKind }> {
  try {
    return { ok: true, value: await asking };
  } catch (error) {
    if (error instanceof NetError) return { ok: false, problem: error.message, kind: error.kind };
    throw error;
  }
}
