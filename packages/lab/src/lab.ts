import { SecureContext } from 'node:tls';
import { Name, RRset, TYPE_CODES, parseRdata, parseZoneFile, printRdata, printZoneFile, recordsOf } from '@wanderon/core';
import { DnsClient, NameServer, RouteTable } from '@wanderon/net';
import { AuthZone } from './authZone';
import { DnsHost, HostWatcher } from './dnsHost';
import { Dressing, fronts, rotates } from './dressing';
import { LabClock } from './labClock';
import { LabControl } from './labControl';
import { LabSites } from './labSites';
import { SavedState, readState, writeState } from './labState';
import { PendingChange, registrarOf } from './registrars';
import { LabResolver, ResolverHabits } from './resolver';
import { DOMAINS, ScenarioDomain, UNUSED } from './scenario/domains';
import { ScenarioHost, scenarioHosts, tsigKey } from './scenario/hosts';
import { DELEGATION_TTL, Lookout, NIC, RDAP, ROOT, START } from './scenario/world';
import { clientZone, infrastructureZones, parentZone, rootZone } from './scenario/zones';
import { WebPanel } from './webPanel';

export interface LabOptions {
  readonly seed?: string;
  readonly port?: number;
  /** Where zones and clock are kept between starts; nothing is kept without it. */
  readonly stateFile?: string;
  readonly rate?: number;
  /** Nobody is told of its resolvers and its registry's data: an installation has to get along without. */
  readonly unlisted?: boolean;
  readonly watcher?: HostWatcher;
  /** Domains beside those of the demo. */
  readonly more?: readonly ScenarioDomain[];
}

/** Where Brackenfold answers for websites that it fronts. */
const EDGES = ['203.0.113.130', '203.0.113.131'];

/** What makes a host's answers other than what it stores. */
function dressingsOf(host: ScenarioHost): Dressing[] {
  if (host.id !== 'brackenfold') return [];
  const website = (name: Name, zone: AuthZone): boolean => name.equals(zone.origin) || name.equals(zone.origin.child('www'));
  return [fronts((name, zone) => website(name, zone) && !zone.origin.equals(Name.parse('brackenfold.example.')), EDGES), rotates(2)];
}

const RESOLVERS: readonly { readonly name: string; readonly habit: string; readonly habits: ResolverHabits }[] = [
  { name: 'Gannet', habit: "follows the parent's referral", habits: { follows: 'parent' } },
  { name: 'Curlew', habit: "follows the child's own NS set", habits: { follows: 'child' } },
  { name: 'Plover', habit: 'keeps everything at least 15 min', habits: { follows: 'parent', floor: 900 } },
  { name: 'Dunlin', habit: 'keeps nothing over 30 min', habits: { follows: 'child', cap: 1800 } },
  { name: 'Turnstone', habit: 'three caches behind one address', habits: { follows: 'parent', caches: 3 } },
  { name: 'Fulmar', habit: 'serves stale answers when nameservers are gone', habits: { follows: 'child', stale: true } },
  { name: 'Petrel', habit: "extends a delegation from the child's answers", habits: { follows: 'child, extended' } },
  { name: 'Whimbrel', habit: 'forwards to Gannet and caches again', habits: { follows: 'parent', forwardsTo: '192.0.2.101' } },
];

/** The stand-in internet (docs/architecture.md): one process, deterministic by seed, under its own clock. */
export class Lab {
  readonly routes = new RouteTable();
  readonly clock: LabClock;
  readonly hosts: readonly ScenarioHost[];
  readonly lookouts: readonly Lookout[];
  readonly hints: readonly NameServer[] = [{ name: ROOT.name, addresses: [ROOT.address] }];
  readonly registry: DnsHost;
  readonly dnsHosts = new Map<string, DnsHost>();
  private readonly domains: readonly ScenarioDomain[];
  private readonly resolvers: LabResolver[];
  private readonly root: DnsHost;
  private readonly sites: LabSites;
  private readonly control = new LabControl(this);
  private saveTimer: NodeJS.Timeout | undefined;
  private url = '';
  /** Changes at registrars that wait for somebody to confirm them. */
  pending: readonly PendingChange[];
  readonly larkspur: WebPanel;
  readonly larkspurAt: readonly string[];

  private constructor(
    private readonly options: LabOptions,
    saved: SavedState | undefined,
  ) {
    this.clock = new LabClock(saved?.clock.at ?? START, options.rate ?? saved?.clock.then?.rate ?? saved?.clock.rate ?? 1);
    this.domains = [...DOMAINS, ...UNUSED, ...(options.more ?? [])];
    this.hosts = scenarioHosts(options.seed ?? 'fennel');
    this.sites = new LabSites(this.routes, this.domains);
    const watcher = options.watcher ?? {};
    const time = (): number => Math.floor(Date.now() / 1000);
    const changed = (): void => this.save();
    const quiet = { transfer: 'none', update: 'none', key: undefined, lag: 0 } as const;
    this.root = new DnsHost('root', [[ROOT.address]], quiet, this.clock, changed, {}, time);
    this.registry = new DnsHost(
      'registry',
      NIC.servers.map((server) => [server.address]),
      { ...quiet, lag: NIC.lag },
      this.clock,
      changed,
      {},
      time,
    );
    for (const host of this.hosts.filter((one) => one.role === 'dns')) {
      const addresses = host.nameservers.map((server) => [server.address]);
      const key = tsigKey(host);
      const habits = {
        transfer: key ? 'key' : 'none',
        update: key ? 'key' : 'none',
        key,
        lag: host.id === 'oldquay' ? 300 : 90,
        dressings: dressingsOf(host),
      } as const;
      this.dnsHosts.set(host.id, new DnsHost(host.id, addresses, habits, this.clock, changed, watcher, time));
    }
    this.root.load(zoneOf('.', rootZone()));
    this.registry.load(zoneOf(NIC.zone, parentZone(this.domains)));
    for (const { host, zone, text } of infrastructureZones()) this.dnsHosts.get(host)!.load(zoneOf(zone, text));
    for (const domain of this.domains.filter((one) => !one.unused)) this.dnsHosts.get(domain.at ?? 'oldquay')!.load(zoneOf(domain.zone, clientZone(domain)));
    for (const { host, origin, text } of saved?.zones ?? []) (host === 'registry' ? this.registry : this.dnsHosts.get(host))?.load(zoneOf(origin, text));
    const client = new DnsClient(this.routes);
    this.larkspurAt = this.hosts.find((one) => one.id === 'larkspur')!.addresses;
    this.larkspur = new WebPanel(
      options.seed ?? 'fennel',
      () => this.clock.now(),
      (owner, type) => this.lookUp(client, owner, type),
    );
    this.larkspur.load(saved?.larkspur ?? []);
    this.pending = saved?.pending ?? [];
    this.resolvers = RESOLVERS.map(({ name, habits }, index) => new LabResolver(name, `192.0.2.${101 + index}`, habits, this.hints, client, this.clock));
    this.lookouts = RESOLVERS.map(({ name, habit }, index) => ({ name, habit, address: `192.0.2.${101 + index}` }));
  }

  static async open(options: LabOptions = {}): Promise<Lab> {
    const lab = new Lab(options, readState(options.stateFile));
    await lab.root.open(lab.routes);
    await lab.registry.open(lab.routes);
    for (const host of lab.dnsHosts.values()) await host.open(lab.routes);
    for (const resolver of lab.resolvers) await resolver.open(lab.routes);
    for (const host of lab.hosts.filter((one) => one.role === 'web'))
      await lab.sites.openWeb(
        host.name,
        host.addresses,
        host.sites,
        host.id === 'larkspur' ? (site) => lab.larkspur.knows(domainOf(site, host.provisional)) : undefined,
        host.holding ? 200 : 404,
      );
    await lab.sites.openWeb('Brackenfold edge', EDGES);
    await lab.sites.openRdap(
      (zone) => lab.nameserversOf(zone),
      () => lab.clock.now(),
    );
    lab.url = await lab.control.open(options.port ?? 0);
    lab.clock.onChange(() => lab.save());
    return lab;
  }

  /** Of an authority that whoever was told of the lab trusts. */
  certificateFor(name: string): SecureContext {
    return this.sites.authority.contextFor(name);
  }

  get address(): string {
    return this.url;
  }

  close(): void {
    clearTimeout(this.saveTimer);
    this.keep();
    this.clock.stop();
    for (const host of [this.root, this.registry, ...this.dnsHosts.values()]) host.close();
    for (const resolver of this.resolvers) resolver.close();
    this.sites.close();
    this.control.close();
  }

  /** What the client does at the registrar: the parent's servers publish the new set, the first at once. Throws a NameError or RangeError. */
  changeNameservers(zone: string, names: readonly string[]): void {
    const owner = Name.parse(zone);
    const parent = this.registry.zones.get(Name.parse(NIC.zone).key)!;
    const before = parent.get(owner, TYPE_CODES.NS);
    if (!this.domains.some((domain) => domain.zone === zone)) throw new RangeError(`${zone} is not registered here`);
    if (names.length < 2) throw new RangeError('at least two nameservers are needed');
    const data = names.map((name) => parseRdata(TYPE_CODES.NS, Name.parse(name).toString()));
    parent.put(owner, TYPE_CODES.NS, before?.ttl ?? DELEGATION_TTL, data);
    this.registry.spread(parent);
    // Where a host takes a zone only then, it is there now.
    for (const host of this.hosts.filter((one) => one.holdsEarly === false))
      if (names.some((name) => host.nameservers.some((server) => Name.parse(server.name).equals(Name.parse(name))))) this.addDomain(host.id, owner.toString());
  }

  /** What a registrar's form sends: it takes effect at once, or once somebody opened the link in a mail. */
  submitNameservers(domain: ScenarioDomain, names: readonly string[]): void {
    if (registrarOf(domain) === 'cliffpath') this.pending = [...this.pending.filter((one) => one.zone !== domain.zone), { zone: domain.zone, names }];
    else this.changeNameservers(domain.zone, names);
    this.save();
  }

  /** The link in the mail; throws a RangeError where nothing waits for it. */
  confirmNameservers(zone: string): void {
    const change = this.pending.find((one) => one.zone === zone);
    if (!change) throw new RangeError('nothing waits for this link');
    this.changeNameservers(zone, change.names);
    this.pending = this.pending.filter((one) => one !== change);
  }

  /** What the technician does in Quillmere's panel: an empty zone with the host's own SOA and NS. */
  addDomain(hostId: string, zone: string): void {
    const host = this.dnsHosts.get(hostId)!;
    const origin = Name.parse(zone);
    if (host.zones.has(origin.key)) return;
    const servers = this.hosts.find((one) => one.id === hostId)!.nameservers;
    const text = `@ 3600 SOA ${servers[0]!.name} hostmaster.${hostId}.example. 1 7200 900 1209600 900\n${servers.map((server) => `@ 3600 NS ${server.name}`).join('\n')}\n`;
    host.load(zoneOf(zone, text));
    this.save();
  }

  scenario(): {
    hosts: readonly ScenarioHost[];
    lookouts: readonly Lookout[];
    hints: readonly NameServer[];
    domains: { name: string; client: string }[];
    /** Where the list of registration data services is; null: there is none. */
    registryList: string | null;
    ca: string;
  } {
    return {
      hosts: this.hosts,
      lookouts: this.options.unlisted ? [] : this.lookouts,
      hints: this.hints,
      domains: DOMAINS.map(({ zone, client }) => ({ name: zone.replace(/\.$/, ''), client })),
      registryList: this.options.unlisted ? null : `https://${RDAP.name}/dns.json`,
      ca: this.sites.authority.pem,
    };
  }

  /** What the registry publishes of a zone. */
  nameserversOf(zone: string): string[] {
    const set = this.registry.zones.get(Name.parse(NIC.zone).key)!.get(Name.parse(zone), TYPE_CODES.NS);
    return set ? printSet(set) : [];
  }

  /** Throws a RangeError for a zone that is not registered here. */
  registered(zone: string): ScenarioDomain {
    const domain = this.domains.find((one) => one.zone === zone);
    if (!domain) throw new RangeError(`${zone} is not registered here`);
    return domain;
  }

  /** What the lab's first resolver answers of a name; data in presentation form. */
  private async lookUp(client: DnsClient, owner: string, type: 'TXT' | 'A'): Promise<string[]> {
    const code = TYPE_CODES[type];
    const { answers } = await client.ask({ address: this.lookouts[0]!.address }, Name.parse(owner), code, { recursive: true });
    return answers.filter((record) => record.type === code).map((record) => printRdata(code, record.data));
  }

  /** Keeps what has changed, once nothing changes for a moment. */
  save(): void {
    if (!this.options.stateFile) return;
    clearTimeout(this.saveTimer);
    this.saveTimer = setTimeout(() => this.keep(), 200);
  }

  private keep(): void {
    if (!this.options.stateFile) return;
    const zones = [['registry', this.registry] as const, ...this.dnsHosts].flatMap(([host, dns]) =>
      [...dns.zones.values()].map((zone) => ({ host, origin: zone.origin.toString(), text: printZoneFile(zone.all().flatMap(recordsOf)) })),
    );
    writeState(this.options.stateFile, { clock: this.clock.state(), zones, pending: this.pending, larkspur: this.larkspur.saved() });
  }
}

function zoneOf(origin: string, text: string): AuthZone {
  const name = Name.parse(origin);
  const { records, findings } = parseZoneFile(text, name);
  if (findings[0]) throw new RangeError(`${origin} line ${findings[0].line}: ${findings[0].message}`);
  return new AuthZone(name, records);
}

function printSet(set: RRset): string[] {
  return printZoneFile(recordsOf(set))
    .trim()
    .split('\n')
    .map((line) => line.split(' ').pop()!);
}

/** The domain whose site stands at a provisional address for now, or the name itself. */
function domainOf(site: string, provisional = ''): string {
  const place = provisional.replace('{label}', '');
  return place !== '' && site.endsWith(`${place}.`) ? `${site.slice(0, -`${place}.`.length)}.example.` : site;
}
