import { MoveView } from '@wanderon/contract';
import { Api, ApiError, until } from '../../../command/src/api';
import { DEMO_PASSWORD } from '../../../command/src/demoData';
import { Driver } from './drive';
import { KEY, NEW, OLD, PARENT, RESOLVER, RealServers, dig, loopback, nsupdate, transferredLines } from './realServers';
import { ServerUnderTest } from './world';

/** A second old host, and a second new one, of the other make each. */
export const OLD_KNOT = loopback(5);
export const NEW_BIND = loopback(6);
/** A new host that takes no updates. */
export const NEW_NSD = loopback(9);
/** A resolver that checks signatures. */
export const VALIDATOR = loopback(8);
/** The root, apart from the parent, which would answer for both otherwise. */
const ROOT = loopback(7);

export interface RealDomain {
  readonly name: string;
  readonly old?: 'bind' | 'knot';
  readonly fresh?: 'bind' | 'knot' | 'nsd';
  /** Lines of the old zone beside SOA and NS. */
  readonly more?: string;
  /** Lines that stand at the new host before anything is pushed. */
  readonly there?: string;
  /** Settings of the zone at a new host that runs bind9. */
  readonly settings?: string;
  /** The NS lines of the parent, the old zone and the new one, where they are not the usual ones. */
  readonly delegation?: string;
  readonly oldNs?: string;
  readonly newNs?: string;
}

const hostZone = (name: string, address: string): string =>
  `$TTL 60\n${name}. SOA ns1.${name}. host.${name}. 1 60 60 600 2\n${name}. NS ns1.${name}.\nns1.${name}. A ${address}\n`;
const OLD_NAME = { bind: 'oldbind.example', knot: 'oldknot.example' };
const NEW_NAME = { bind: 'newbind.example', knot: 'newknot.example', nsd: 'newnsd.example' };
const OLD_AT = { bind: OLD, knot: OLD_KNOT };
const NEW_AT = { bind: NEW_BIND, knot: NEW, nsd: NEW_NSD };

/** Many domains between two old hosts and two new ones, all of them Debian's servers, one server of ours, and unbound to watch from. */
export class RealMoves {
  readonly servers = new RealServers();
  server!: ServerUnderTest;
  api!: Api;
  private readonly hosts = new Map<string, string>();
  private written = 1;
  /** Moves of the test that is running. */
  private inUse: Driver[] = [];

  constructor(
    private readonly domains: readonly RealDomain[],
    private readonly options: {
      readonly signed?: 'nsec';
      /** The new host of the other make signs as well, with keys of its own. */
      readonly signedAgain?: 'nsec';
      /** The parent is signed too, and a second resolver checks signatures from there on. */
      readonly validating?: boolean;
      readonly parentMore?: string;
      /** Lines of the root beside those for `example`. */
      readonly rootMore?: string;
      readonly lookouts?: string;
    } = {},
  ) {}

  async open(): Promise<this> {
    const parent = `$TTL 4
example. SOA ns1.nic.example. nic.nic.example. 1 60 60 600 2
example. NS ns1.nic.example.
${this.options.parentMore ?? ''}
ns1.nic.example. A ${PARENT}
${Object.entries({ [OLD_NAME.bind]: OLD, [OLD_NAME.knot]: OLD_KNOT, [NEW_NAME.bind]: NEW_BIND, [NEW_NAME.knot]: NEW, [NEW_NAME.nsd]: NEW_NSD })
  .map(([name, address]) => `${name}. NS ns1.${name}.\nns1.${name}. A ${address}`)
  .join('\n')}
${this.domains.map((domain) => domain.delegation ?? `${domain.name}. 3 NS ns1.${OLD_NAME[domain.old ?? 'bind']}.`).join('\n')}
`;
    const root = `$TTL 60\n. SOA root.servers.test. root.servers.test. 1 60 60 600 2\n. NS root.servers.test.\nroot.servers.test. A ${ROOT}\nexample. NS ns1.nic.example.\nns1.nic.example. A ${PARENT}\n${this.options.parentMore ?? ''}\n${this.options.rootMore ?? ''}\n`;
    const zones = (kind: 'bind' | 'knot'): Record<string, string> =>
      Object.fromEntries(this.domains.filter((domain) => (domain.old ?? 'bind') === kind).map((domain) => [`${domain.name}.`, this.oldZone(domain)]));
    const fresh = (kind: 'bind' | 'knot' | 'nsd'): Record<string, string> =>
      Object.fromEntries(this.domains.filter((domain) => (domain.fresh ?? 'knot') === kind).map((domain) => [`${domain.name}.`, this.newZone(domain)]));
    await Promise.all([
      this.servers.bind(ROOT, { '.': root }, { keyed: false }),
      this.options.validating ? this.servers.knot(PARENT, { 'example.': parent }, 'nsec') : this.servers.bind(PARENT, { 'example.': parent }, { keyed: false }),
      this.servers.bind(OLD, { [`${OLD_NAME.bind}.`]: hostZone(OLD_NAME.bind, OLD), ...zones('bind') }, { keyed: true }),
      this.servers.knot(OLD_KNOT, { [`${OLD_NAME.knot}.`]: hostZone(OLD_NAME.knot, OLD_KNOT), ...zones('knot') }, this.options.signed),
      this.servers.knot(NEW, { [`${NEW_NAME.knot}.`]: hostZone(NEW_NAME.knot, NEW), ...fresh('knot') }, this.options.signedAgain),
      this.servers.bind(
        NEW_BIND,
        { [`${NEW_NAME.bind}.`]: hostZone(NEW_NAME.bind, NEW_BIND), ...fresh('bind') },
        { keyed: true, more: (zone) => this.domains.find((domain) => `${domain.name}.` === zone)?.settings ?? '' },
      ),
      this.servers.nsd(NEW_NSD, { [`${NEW_NAME.nsd}.`]: hostZone(NEW_NAME.nsd, NEW_NSD), ...fresh('nsd') }),
      this.servers.unbound(RESOLVER, ROOT),
    ]);
    if (this.options.validating) await this.servers.unbound(VALIDATOR, ROOT, await keysOf(PARENT, 'example.'));
    const hints = this.servers.file('hints', `. 3600 NS root.servers.test.\nroot.servers.test. 3600 A ${ROOT}\n`);
    const lookouts = this.options.lookouts ?? `Unbound=${RESOLVER}`;
    this.server = await new ServerUnderTest({
      WANDERON_ROOT_HINTS: hints,
      WANDERON_LOOKOUTS: lookouts,
      // These servers stand on this machine.
      WANDERON_PROBE_ALLOW: '127.0.0.0/8',
      WANDERON_LOOK_EVERY: '2',
      WANDERON_QUESTIONS_PER_SECOND: '100000',
    }).open();
    this.api = await new Api(this.server.address).signIn('admin', DEMO_PASSWORD);
    const host = async (id: string, more: object): Promise<void> => {
      const empty = { role: 'dns', nameservers: [], addresses: [], aliasTarget: null, requires: [], updateAddress: null, note: '' };
      this.hosts.set(id, (await this.api.call<{ id: string }>('POST', '/api/hosts', { name: id, ...empty, ...more })).id);
    };
    for (const kind of ['bind', 'knot'] as const) {
      await host(`old ${kind}`, { nameservers: [`ns1.${OLD_NAME[kind]}.`], key: KEY });
      await host(`new ${kind}`, { nameservers: [`ns1.${NEW_NAME[kind]}.`], key: KEY });
    }
    await host('new nsd', { nameservers: [`ns1.${NEW_NAME.nsd}.`], key: KEY });
    await host('old web', { role: 'web', addresses: ['192.0.2.80'] });
    await host('new web', { role: 'web', addresses: ['203.0.113.80'] });
    return this;
  }

  async close(): Promise<void> {
    await this.server?.close();
    this.servers.close();
  }

  /** Moves that were prepared beforehand are nobody's yet. */
  prepared(): void {
    this.inUse = [];
  }

  /** A test takes up a move that was prepared. */
  takenUp(driver: Driver): Driver {
    this.inUse.push(driver);
    return driver;
  }

  /** What a test leaves under way is looked at for nobody: it is abandoned. */
  async over(): Promise<void> {
    const drivers = this.inUse;
    this.inUse = [];
    for (const driver of drivers) await driver.abandoned();
  }

  async addHost(id: string, more: object): Promise<void> {
    const empty = { role: 'dns', nameservers: [], addresses: [], aliasTarget: null, requires: [], updateAddress: null, note: '' };
    this.hosts.set(id, (await this.api.call<{ id: string }>('POST', '/api/hosts', { name: id, ...empty, ...more })).id);
  }

  /** The id of a host by its name. */
  host(name: string): string {
    return this.hosts.get(name)!;
  }

  oldAddress(domain: RealDomain): string {
    return OLD_AT[domain.old ?? 'bind'];
  }

  newAddress(domain: RealDomain): string {
    return NEW_AT[domain.fresh ?? 'knot'];
  }

  newName(domain: RealDomain): string {
    return `ns1.${NEW_NAME[domain.fresh ?? 'knot']}.`;
  }

  oldName(domain: RealDomain): string {
    return `ns1.${OLD_NAME[domain.old ?? 'bind']}.`;
  }

  /** Surveyed, and its hosts chosen. */
  async chosen(domain: RealDomain, host = `new ${domain.fresh ?? 'knot'}`): Promise<Driver> {
    const driver = await Driver.begin(this.api, domain.name);
    this.inUse.push(driver);
    await driver.done('survey');
    await driver.act('/hosts', { newDnsHost: this.hosts.get(host)!, newWebHost: this.hosts.get('new web')! });
    return driver;
  }

  /** The records are to change where they are: of the whole website, or of one name; seen lowered to 2 seconds. */
  async inPlace(domain: RealDomain, name?: string): Promise<Driver> {
    const driver = await Driver.begin(this.api, name ?? domain.name, undefined, name ? 'name' : 'whole');
    this.inUse.push(driver);
    await driver.done('survey');
    await driver.act('/hosts', { way: 'repoint', newDnsHost: null, newWebHost: this.hosts.get('new web')! });
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    return driver;
  }

  /** Pushed, read back, and seen lowered to 2 seconds. */
  async lowered(domain: RealDomain, host?: string): Promise<Driver> {
    const driver = await this.chosen(domain, host);
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    await driver.act('/push');
    await driver.done('push');
    await driver.done('served');
    await driver.done('lowered');
    return driver;
  }

  /** The gate is open. The website is nobody's business in these tests: it is let pass, as many do, whatever is wrong with it. */
  async open_(driver: Driver): Promise<MoveView> {
    return driver.until(
      'the gate is open',
      (move) => move.legs.at(-1)!.gate.open,
      () => driver.letPass(['website']),
    );
  }

  /** Somebody writes the plan of a domain into the zone's file at the host that takes no updates; `slip` is what goes wrong with a line. */
  async typeIn(domain: RealDomain, driver: Driver, slip: (line: string) => string = (line) => line): Promise<void> {
    const { rulings } = await driver.ledger();
    const lines = rulings.flatMap(({ planned }) => planned?.data.map((data) => `${planned.owner} ${planned.ttl} ${planned.type} ${data}`) ?? []);
    this.writeZone(domain, lines.map(slip).join('\n'));
  }

  /** Somebody writes the whole zone of a domain into its file at the host that takes no updates. */
  writeZone(domain: RealDomain, lines: string): void {
    this.written += 1;
    this.servers.file(
      `nsd-${NEW_NSD}/${domain.name}.zone`,
      `${this.newZone({ ...domain, there: '' }).replace(' host 1 ', ` host ${this.written} `)}${lines}\n`,
    );
    this.servers.reload(NEW_NSD);
  }

  /** What the registry does to the parent zone. */
  async atParent(...lines: string[]): Promise<void> {
    await nsupdate(this.servers.folder, PARENT, ['zone example.', ...lines.map((line) => `update ${line}`)], 53, this.options.validating ? KEY : undefined);
  }

  /** What the registrar does: the parent's NS set is another one. */
  async delegate(domain: RealDomain, names: readonly string[], more: readonly string[] = []): Promise<void> {
    await this.atParent(`delete ${domain.name}. NS`, ...names.map((name) => `add ${domain.name}. 3 NS ${name}`), ...more);
  }

  /** Somebody with a login changes a zone behind our back. */
  async edit(address: string, domain: RealDomain, ...lines: string[]): Promise<void> {
    await nsupdate(this.servers.folder, address, [`zone ${domain.name}.`, ...lines.map((line) => `update ${line}`)], 53, KEY);
  }

  /** Through the gate. On a machine that is too busy to look in time, a gap can shut it again: then it is waited for once more. */
  async submitted(driver: Driver): Promise<void> {
    await until(
      'the gate lets it through',
      async () => {
        await this.open_(driver);
        return driver.tried('/submitted');
      },
      120,
    );
  }

  /** Through the gate, and seen at every nameserver. */
  async changed(driver: Driver): Promise<void> {
    await this.submitted(driver);
    await driver.done('changed');
  }

  /** Through the gate, at the registrar, and seen. */
  async switched(domain: RealDomain, driver: Driver): Promise<void> {
    await this.submitted(driver);
    await this.delegate(domain, [this.newName(domain)]);
    await driver.done('switch');
  }

  /** The zone of a domain at one server as lines, sorted, without what the host writes itself. */
  async lines(address: string, domain: RealDomain): Promise<string[]> {
    return (await transferredLines(address, domain.name)).filter((line) => !/ (SOA|RRSIG|NSEC|DNSKEY) /.test(line)).sort();
  }

  /** What a visitor's resolver gives. */
  async answer(name: string, type = 'A'): Promise<string> {
    return (await dig(RESOLVER, [name, type, '+short'])).stdout.trim();
  }

  async events(driver: Driver): Promise<{ kind: string; text: string }[]> {
    return (await driver.call<{ events: { kind: string; text: string }[] }>('GET', `/api/moves/${driver.id}/events`)).events;
  }

  private oldZone(domain: RealDomain): string {
    return `$ORIGIN ${domain.name}.
$TTL 6
@ SOA ${this.oldName(domain)} host 100 60 60 600 2
${domain.oldNs ?? `@ 5 NS ${this.oldName(domain)}`}
@ A 192.0.2.80
www A 192.0.2.80
@ MX 10 mail
mail A 192.0.2.25
@ TXT "v=spf1 mx -all"
${domain.more ?? ''}
`;
  }

  private newZone(domain: RealDomain): string {
    return `$ORIGIN ${domain.name}.\n$TTL ${this.options.signedAgain ? 6 : 60}\n@ SOA ${this.newName(domain)} host 1 60 60 600 2\n${domain.newNs ?? `@ NS ${this.newName(domain)}`}\n${domain.there ?? ''}\n`;
  }
}

/** Waits for words that a step or a line of the gate says. */
export function said(driver: Driver, text: RegExp, seconds = 120): Promise<MoveView> {
  let last = '';
  return until(
    () => `it is said ${String(text)}: ${last}`,
    async () => {
      const move = await driver.move();
      const leg = move.legs[0]!;
      last = [...leg.steps.map((step) => step.text), ...leg.gate.lines.flatMap((line) => [line.text, line.evidence])].filter(Boolean).join(' | ');
      return text.test(last) ? move : undefined;
    },
    seconds,
  );
}

/**
 * The act is refused each time, in the end with these words: on a machine that is too busy to look each second, a
 * refusal can at first be about a gap in what was seen. Fails where the act is taken even once.
 */
export async function refused(driver: Driver, path: string, words: RegExp, seconds = 60): Promise<void> {
  let last = '';
  await until(
    () => `${path} is refused with ${String(words)}: ${last}`,
    async () => {
      const refusal = await driver.act(path).then(
        () => undefined,
        (error: unknown) => error,
      );
      if (!(refusal instanceof ApiError)) throw refusal ?? new Error(`${path} was taken, and should have been refused with ${String(words)}`);
      last = refusal.message;
      return words.test(last);
    },
    seconds,
  );
}

/** The keys of a signed zone as dig prints them, once it is signed. */
export async function keysOf(address: string, zone: string): Promise<string[]> {
  return until(`${zone} is signed`, async () => {
    const { stdout } = await dig(address, [zone, 'DNSKEY', '+noall', '+answer']);
    const keys = stdout.split('\n').filter((line) => /\sDNSKEY\s/.test(line));
    return keys.length > 0 && keys.map((line) => line.replace(/\s+/g, ' '));
  });
}
