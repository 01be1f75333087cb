import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { createServer, IncomingMessage, RequestListener, Server, ServerResponse } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import { AddressInfo } from 'node:net';
import { dirname } from 'node:path';
import {
  Name,
  NameError,
  RRset,
  TYPE_CODES,
  TextError,
  WireError,
  parseRdata,
  parseZoneFile,
  printRdata,
  printZoneFile,
  recordsOf,
  showName,
} from '@wanderon/core';
import { DnsClient, NameServer, RouteTable } from '@wanderon/net';
import { AuthZone } from './authZone';
import { Dressing, fronts, rotates } from './dressing';
import { DnsHost, HostWatcher } from './dnsHost';
import { LabAuthority } from './labAuthority';
import { rdapDomain } from './rdapDomain';
import { ClockState, LabClock } from './labClock';
import { PendingChange, formPage, listPage, mailPage, namesSent, registrarOf, reviewPage, sentPage } from './registrars';
import { WebPanel } from './webPanel';
import { PANELS, add, panelPage, remove } from './handPanel';
import { escapeHtml, page } from './page';
import { LabResolver, ResolverHabits } from './resolver';
import {
  DOMAINS,
  Lookout,
  NIC,
  RDAP,
  ROOT,
  DELEGATION_TTL,
  START,
  UNUSED,
  ScenarioDomain,
  ScenarioHost,
  clientZone,
  infrastructureZones,
  parentZone,
  rootZone,
  scenarioHosts,
  tsigKey,
  SiteHabits,
} from './scenario';

export interface LabOptions {
  readonly seed?: string;
  readonly port?: number;
  /** Where zones and clock are kept between starts; nothing is kept without it. */
  readonly stateFile?: string;
  readonly rate?: number;
  readonly watcher?: HostWatcher;
  /** Domains beside those of the demo. */
  readonly more?: readonly ScenarioDomain[];
}

interface SavedState {
  readonly clock: ClockState;
  readonly zones: readonly { readonly host: string; readonly origin: string; readonly text: string }[];
  readonly pending?: readonly PendingChange[];
  readonly larkspur?: ReturnType<WebPanel['saved']>;
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
  { name: 'Fulmar', habit: 'serves stale answers when authorities are gone', habits: { follows: 'child', stale: true } },
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
  private readonly authority = new LabAuthority();
  private readonly domains: readonly ScenarioDomain[];
  private readonly resolvers: LabResolver[];
  private readonly root: DnsHost;
  private readonly webServers: Server[] = [];
  private control: Server | undefined;
  private saveTimer: NodeJS.Timeout | undefined;
  private url = '';
  private pending: readonly PendingChange[] = [];
  private readonly larkspur: WebPanel;
  private readonly larkspurAt: readonly string[];

  private constructor(
    private readonly options: LabOptions,
    saved: SavedState | undefined,
  ) {
    this.clock = new LabClock(saved?.clock.at ?? START, options.rate ?? saved?.clock.rate ?? 1);
    this.domains = [...DOMAINS, ...UNUSED, ...(options.more ?? [])];
    this.hosts = scenarioHosts(options.seed ?? 'fennel');
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
      await lab.openWeb(host.name, host.addresses, host.sites, host.id === 'larkspur' ? (zone) => lab.larkspur.knows(zone) : undefined);
    await lab.openWeb('Brackenfold edge', EDGES);
    await lab.openRdap();
    await lab.openControl(options.port ?? 0);
    lab.clock.onChange(() => lab.save());
    return lab;
  }

  get address(): string {
    return this.url;
  }

  close(): void {
    clearTimeout(this.saveTimer);
    this.writeState();
    this.clock.stop();
    for (const host of [this.root, this.registry, ...this.dnsHosts.values()]) host.close();
    for (const resolver of this.resolvers) resolver.close();
    for (const server of [...this.webServers, this.control]) {
      server?.close();
      server?.closeAllConnections();
    }
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
    rdap: unknown;
    ca: string;
  } {
    return {
      hosts: this.hosts,
      lookouts: this.lookouts,
      hints: this.hints,
      domains: DOMAINS.map(({ zone, client }) => ({ name: zone.replace(/\.$/, ''), client })),
      rdap: { services: [[['example'], [`https://${RDAP.name}/`]]] },
      ca: this.authority.pem,
    };
  }

  /** Sites as hosts serve them: HTTP leads to HTTPS, the apex to `www`, and the path is kept where the host does not lose it. */
  private async openWeb(
    name: string,
    addresses: readonly string[],
    { plain = false, toFront = [] }: SiteHabits = {},
    knows: (zone: string) => boolean = () => true,
  ): Promise<void> {
    const serve =
      (secure: boolean): RequestListener =>
      (request, response) => {
        const site = (request.headers.host ?? '').toLowerCase();
        const domain = this.domains.find(({ zone }) => `${site}.` === zone);
        if (!knows(`${site.replace(/^www\./, '')}.`)) {
          response
            .writeHead(404, { 'content-type': 'text/html; charset=utf-8' })
            .end(page('No site here', name, '<p>This domain is not connected to a site.</p>'));
          return;
        }
        if (!secure || domain) {
          const path = domain && toFront.includes(domain.zone) ? '/' : (request.url ?? '/');
          response.writeHead(301, { location: `https://${domain ? 'www.' : ''}${site}${path}` }).end();
          return;
        }
        const headers = plain ? {} : { 'strict-transport-security': 'max-age=31536000' };
        response
          .writeHead(200, { 'content-type': 'text/html; charset=utf-8', server: name, ...headers })
          .end(page(site, site, `<p>The site of ${escapeHtml(site)}.</p>`));
      };
    await this.openSite(addresses, serve);
  }

  private async openRdap(): Promise<void> {
    await this.openSite([RDAP.address], () => (request, response) => {
      const name = decodeURIComponent(/^\/domain\/([^/?]+)$/.exec(request.url ?? '')?.[1] ?? '').toLowerCase();
      const domain = [...this.domains, ...infrastructureZones().map(({ zone, host }) => ({ zone, client: host, extra: [] }))].find(
        ({ zone }) => zone === `${name}.`,
      );
      const type = { 'content-type': 'application/rdap+json' };
      if (!domain) response.writeHead(404, type).end(JSON.stringify({ errorCode: 404, title: 'Not found' }));
      else response.writeHead(200, type).end(JSON.stringify(rdapDomain(domain, this.nameserversOf(domain.zone), this.clock.now())));
    });
  }

  private async openSite(addresses: readonly string[], serve: (secure: boolean) => RequestListener): Promise<void> {
    const plain = createServer(serve(false));
    const secure = createSecureServer({ SNICallback: (name, done) => done(null, this.authority.contextFor(name)) }, serve(true));
    for (const [server, port] of [
      [plain, 80],
      [secure, 443],
    ] as const) {
      await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
      const { port: toPort } = server.address() as AddressInfo;
      for (const address of addresses) this.routes.add({ address, port, transport: 'tcp', toAddress: '127.0.0.1', toPort });
      this.webServers.push(server);
    }
  }

  private async openControl(port: number): Promise<void> {
    this.control = createServer((request, response) => {
      this.serve(request, response).catch((error: unknown) => {
        // A panel refuses what it cannot read, and says so.
        const known = [RangeError, NameError, TextError, WireError].some((kind) => error instanceof kind);
        if (!known) console.error(error);
        response
          .writeHead(known ? 400 : 500, { 'content-type': 'text/html; charset=utf-8' })
          .end(page('That did not work', 'Lab', `<p class="bad">${escapeHtml(known ? (error as Error).message : 'An error of the lab.')}</p>`));
      });
    });
    await new Promise<void>((resolve) => this.control!.listen(port, '127.0.0.1', resolve));
    this.url = `http://127.0.0.1:${(this.control.address() as AddressInfo).port}`;
  }

  private async serve(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const url = new URL(request.url ?? '/', this.url || 'http://127.0.0.1');
    const json = (value: unknown): void => void response.writeHead(200, { 'content-type': 'application/json' }).end(JSON.stringify(value));
    const html = (text: string): void => void response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(text);
    const route = `${request.method} ${url.pathname}`;
    switch (route) {
      case 'GET /clock':
        return json(this.clock.state());
      case 'POST /clock': {
        const wish = new URLSearchParams(await body(request));
        const rate = wish.get('rate');
        const jump = wish.get('jump');
        if (rate !== null) this.clock.setRate(Number(rate));
        if (jump !== null) this.clock.forward(Number(jump));
        return json(this.clock.state());
      }
      case 'GET /clock/changes': {
        response.writeHead(200, { 'content-type': 'text/event-stream' });
        const send = (): void => void response.write(`data: ${JSON.stringify(this.clock.state())}\n\n`);
        send();
        const off = this.clock.onChange(send);
        request.on('close', off);
        return;
      }
      case 'GET /routes':
        return json(this.routes.list());
      case 'GET /scenario':
        return json(this.scenario());
      case 'GET /registrar':
        return html(listPage([...DOMAINS, ...UNUSED], (zone) => this.nameserversOf(zone)));
      case 'GET /registrar/domain': {
        const domain = this.registered(url.searchParams.get('name') ?? '');
        return html(formPage(domain, this.nameserversOf(domain.zone)));
      }
      case 'POST /registrar/review': {
        const form = new URLSearchParams(await body(request));
        const domain = this.registered(form.get('name') ?? '');
        return html(reviewPage(domain, namesSent(domain, form.getAll('ns'))));
      }
      case 'POST /registrar/domain': {
        const form = new URLSearchParams(await body(request));
        const domain = this.registered(form.get('name') ?? '');
        const names = namesSent(domain, form.getAll('ns'));
        if (registrarOf(domain) === 'cliffpath') this.pending = [...this.pending.filter((one) => one.zone !== domain.zone), { zone: domain.zone, names }];
        else this.changeNameservers(domain.zone, names);
        this.save();
        return html(sentPage(domain));
      }
      case 'GET /registrar/mail':
        return html(mailPage(this.pending));
      case 'POST /registrar/mail': {
        const zone = new URLSearchParams(await body(request)).get('name') ?? '';
        const change = this.pending.find((one) => one.zone === zone);
        if (!change) throw new RangeError('nothing waits for this link');
        this.changeNameservers(zone, change.names);
        this.pending = this.pending.filter((one) => one !== change);
        return html(mailPage(this.pending));
      }
      case 'GET /larkspur':
        return html(this.larkspur.page(url.searchParams.get('zone'), this.larkspurAt));
      case 'POST /larkspur/domain': {
        const zone = zoneName(new URLSearchParams(await body(request)).get('name'));
        this.larkspur.add(this.registered(zone).zone);
        this.save();
        return html(this.larkspur.page(zone, this.larkspurAt));
      }
      case 'POST /larkspur/check': {
        const zone = zoneName(new URLSearchParams(await body(request)).get('zone'));
        await this.larkspur.check(zone, this.larkspurAt);
        this.save();
        return html(this.larkspur.page(zone, this.larkspurAt));
      }
      case 'GET /quillmere':
        return html(this.panel());
      case 'POST /quillmere': {
        this.addDomain('quillmere', this.registered(zoneName(new URLSearchParams(await body(request)).get('name'))).zone);
        return html(this.panel());
      }
      default: {
        const [, id, act] = /^(?:GET|POST) \/panel\/([a-z]+)(?:\/(domain|add|delete))?$/.exec(route) ?? [];
        if (id && PANELS[id]) return html(this.handPanel(id, act, url, request.method === 'POST' ? new URLSearchParams(await body(request)) : undefined));
        response.writeHead(404).end();
      }
    }
  }

  private nameserversOf(zone: string): string[] {
    const set = this.registry.zones.get(Name.parse(NIC.zone).key)!.get(Name.parse(zone), TYPE_CODES.NS);
    return set ? printSet(set) : [];
  }

  private registered(zone: string): ScenarioDomain {
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

  /** A panel into which everything is typed; what it is told is stored as such a panel would. */
  private handPanel(id: string, act: string | undefined, url: URL, form: URLSearchParams | undefined): string {
    const host = this.dnsHosts.get(id)!;
    const field = (name: string): string => form?.get(name) ?? '';
    if (!form || !act) return panelPage(id, host, url.searchParams.get('zone'));
    if (act === 'domain') {
      const name = this.registered(zoneName(field('name'))).zone;
      this.addDomain(id, name);
      return panelPage(id, host, name);
    }
    const zone = host.zones.get(Name.parse(field('zone')).key);
    if (!zone) throw new RangeError(`${field('zone')} is not held here`);
    if (act === 'delete') remove(zone, field('owner'), field('type'), field('data'));
    else add(PANELS[id]!, zone, { name: field('name'), type: field('type'), priority: field('priority'), value: field('value'), ttl: field('ttl') });
    host.spread(zone);
    return panelPage(id, host, field('zone'));
  }

  private panel(): string {
    const host = this.dnsHosts.get('quillmere')!;
    const zones = DOMAINS.filter((domain) => host.zones.has(Name.parse(domain.zone).key));
    return page(
      'Zones of Fennel & Tide',
      'Quillmere DNS',
      `<form method="post" action="/quillmere"><label>Domain <input type="text" name="name"></label> <button>Add domain</button></form><ul>${zones.map((domain) => `<li>${escapeHtml(shown(domain.zone))}</li>`).join('')}</ul>`,
    );
  }

  private save(): void {
    if (!this.options.stateFile) return;
    clearTimeout(this.saveTimer);
    this.saveTimer = setTimeout(() => this.writeState(), 200);
  }

  private writeState(): void {
    const file = this.options.stateFile;
    if (!file) return;
    const zones = [['registry', this.registry] as const, ...this.dnsHosts].flatMap(([host, dns]) =>
      [...dns.zones.values()].map((zone) => ({ host, origin: zone.origin.toString(), text: printZoneFile(zone.all().flatMap(recordsOf)) })),
    );
    const state: SavedState = { clock: this.clock.state(), zones, pending: this.pending, larkspur: this.larkspur.saved() };
    mkdirSync(dirname(file), { recursive: true });
    writeFileSync(`${file}.new`, JSON.stringify(state));
    renameSync(`${file}.new`, file);
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

/** As it is typed into a panel, with or without the final dot. */
function zoneName(typed: string | null): string {
  return `${(typed ?? '').trim().replace(/\.$/, '')}.`;
}

function shown(zone: string): string {
  return showName(zone.replace(/\.$/, ''));
}

function readState(file: string | undefined): SavedState | undefined {
  if (!file) return undefined;
  try {
    return JSON.parse(readFileSync(file, 'utf8')) as SavedState;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return undefined;
    throw error;
  }
}

async function body(request: IncomingMessage): Promise<string> {
  let text = '';
  for await (const chunk of request) {
    text += String(chunk);
    if (text.length > 20_000) throw new RangeError('the form is too large');
  }
  return text;
}
