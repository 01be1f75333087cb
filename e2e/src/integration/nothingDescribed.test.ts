import { RRsetText } from '@wanderon/core';
import { Api } from '../../../command/src/api';
import { DEMO_PASSWORD } from '../../../command/src/demoData';
import { Driver, stepOf } from '../support/drive';
import { RealServers, dig, loopback, nsupdate } from '../support/realServers';
import { SideBySide } from '../support/sideBySide';
import { ServerUnderTest } from '../support/world';

const isRoot = process.getuid?.() === 0;

const [ROOT, PARENT, BIND, KNOT, RESOLVER] = [1, 2, 3, 4, 5].map(loopback) as [string, string, string, string, string];
/** Two DNS hosts of which Wanderon knows nothing: bind9 and knot, whose zones somebody edits as files. */
const SERVER = { bind: 'ns1.tollgate.example.', knot: 'ns1.larkspur.example.' };
const ADDRESS = { bind: BIND, knot: KNOT };
type Make = keyof typeof SERVER;

/** What a person lets pass here: no web server stands at these addresses. */
const SKIPPED = ['website'];

/** Milliseconds, less than any TTL here. */
const BETWEEN_VISITS = 1000;

const NEW_ADDRESS = '203.0.113.80';
const OLD_LINES = `@ A 192.0.2.80
www A 192.0.2.80
shop A 192.0.2.80
@ MX 10 mail
mail A 192.0.2.25
@ TXT "v=spf1 mx -all"
`;

/** A domain for each way: where its zone is, and where it goes. */
const DOMAINS = {
  nameservers: { name: 'by-mail.example', old: 'bind', fresh: 'knot' },
  inPlace: { name: 'whole-site.example', old: 'knot' },
  oneName: { name: 'one-name.example', old: 'bind' },
  websiteFirst: { name: 'website-first.example', old: 'knot', fresh: 'bind' },
  nameserversFirst: { name: 'nameservers-first.example', old: 'bind', fresh: 'knot' },
  account: { name: 'other-account.example', old: 'bind' },
  unused: { name: 'never-used.example', fresh: 'knot' },
} satisfies Record<string, Domain>;

interface Domain {
  readonly name: string;
  readonly old?: Make;
  readonly fresh?: Make;
}

/** Every way of a domain between Debian's servers, none of which Wanderon was told of: it has no host, key, transfer or resolver. */
(isRoot ? describe : describe.skip)('by hand at bind9 and knot, with nothing described (port 53 on loopback, so as root)', () => {
  const servers = new RealServers();
  const all: readonly Domain[] = Object.values(DOMAINS);
  let server: ServerUnderTest;
  let api: Api;
  let serial = 1;

  const zoneFile = (domain: Domain, make: Make, lines: string, ns: string = SERVER[make], ttl = 4): string =>
    `$ORIGIN ${domain.name}.\n$TTL ${ttl}\n@ SOA ${SERVER[make]} host ${serial} 60 60 600 2\n@ NS ${ns}\n${lines}`;

  beforeAll(async () => {
    const delegated = all.filter(({ old }) => old).map(({ name, old }) => `${name}. 3 NS ${SERVER[old!]}`);
    const hosts = (['bind', 'knot'] as const).map((make) => `${SERVER[make].slice('ns1.'.length)} NS ${SERVER[make]}\n${SERVER[make]} A ${ADDRESS[make]}`);
    const parent = `$TTL 4\nexample. SOA ns1.nic.example. nic.nic.example. 1 60 60 600 2\nexample. NS ns1.nic.example.\nns1.nic.example. A ${PARENT}\n${[...hosts, ...delegated].join('\n')}\n`;
    const root = `$TTL 60\n. SOA root.servers.test. root.servers.test. 1 60 60 600 2\n. NS root.servers.test.\nroot.servers.test. A ${ROOT}\nexample. NS ns1.nic.example.\nns1.nic.example. A ${PARENT}\n`;
    const zones = (make: Make): Record<string, string> => {
      const own = SERVER[make].slice('ns1.'.length);
      const held = all.filter(({ old, fresh }) => old === make || fresh === make);
      return {
        [own]: `$TTL 60\n${own} SOA ${SERVER[make]} host.${own} 1 60 60 600 2\n${own} NS ${SERVER[make]}\n${SERVER[make]} A ${ADDRESS[make]}\n`,
        ...Object.fromEntries(held.map((domain): [string, string] => [`${domain.name}.`, zoneFile(domain, make, domain.old === make ? OLD_LINES : '')])),
      };
    };
    await Promise.all([
      servers.bind(ROOT, { '.': root }, { keyed: false }),
      servers.bind(PARENT, { 'example.': parent }, { keyed: false }),
      servers.bind(BIND, zones('bind'), { keyed: false, byHand: true }),
      servers.knot(KNOT, zones('knot'), undefined, true),
      servers.unbound(RESOLVER, ROOT),
    ]);
    server = await new ServerUnderTest({
      WANDERON_ROOT_HINTS: servers.file('hints', `. 3600 NS root.servers.test.\nroot.servers.test. 3600 A ${ROOT}\n`),
      // These servers stand on this machine.
      WANDERON_PROBE_ALLOW: '127.0.0.0/8',
      WANDERON_LOOK_EVERY: '2',
      WANDERON_QUESTIONS_PER_SECOND: '100000',
    }).open();
    api = await new Api(server.address).signIn('admin', DEMO_PASSWORD);
  });
  afterAll(async () => {
    await server?.close();
    servers.close();
  });
  const beside = new SideBySide(Object.keys(DOMAINS).length);

  /** Somebody writes a zone's file anew, and has the server read it. */
  function write(domain: Domain, make: Make, lines: string, ns?: string, ttl?: number): void {
    serial += 1;
    servers.file(`${make}-${ADDRESS[make]}/${domain.name}.zone`, zoneFile(domain, make, lines, ns, ttl));
    servers.reload(ADDRESS[make]);
  }

  /** What the plan says beside the host's own records. */
  async function plannedSets(driver: Driver): Promise<readonly RRsetText[]> {
    const { rulings } = await driver.ledger();
    return rulings.flatMap(({ planned: set }) => (set && set.type !== 'SOA' && set.type !== 'NS' ? [set] : []));
  }

  /** The file is written anew with what the plan says. */
  async function typePlan(driver: Driver, domain: Domain, make: Make, ns?: string): Promise<void> {
    const lines = (await plannedSets(driver)).flatMap(({ owner, ttl, type, data }) => data.map((one) => `${owner} ${ttl} ${type} ${one}\n`));
    write(domain, make, lines.join(''), ns);
  }

  /** What the registrar does once its form is saved. */
  async function delegate(domain: Domain, make: Make): Promise<void> {
    await nsupdate(servers.folder, PARENT, ['zone example.', `update delete ${domain.name}. NS`, `update add ${domain.name}. 3 NS ${SERVER[make]}`]);
  }

  /** Visitors ask the resolver all the while, so it remembers what is old as late as it can. */
  function visitors(domain: Domain): () => Promise<void> {
    const questions = ['www', 'shop', 'mail'].flatMap((name) => [`${name}.${domain.name}`, 'A']);
    let next = 0;
    return async () => {
      if (performance.now() < next) return;
      next = performance.now() + BETWEEN_VISITS;
      await dig(RESOLVER, questions);
    };
  }

  async function begun(domain: Domain, name?: string): Promise<Driver> {
    const begin = { domain: name ?? domain.name, scope: name ? 'name' : 'whole', unused: domain.old === undefined };
    const driver = new Driver(api, (await api.call<{ id: string }>('POST', '/api/moves', begin)).id, visitors(domain));
    await driver.done('survey');
    return driver;
  }

  /** What the new place gave, as it is pasted; the plan follows. */
  async function planned(driver: Driver, way: string, { ns, web }: { readonly ns?: Make; readonly web?: boolean }): Promise<void> {
    const items = [
      ...(ns ? [{ kind: 'nameserver', owner: '@', type: 'NS', data: SERVER[ns] }] : []),
      ...(web ? [{ kind: 'address', owner: '', type: 'A', data: NEW_ADDRESS }] : []),
    ];
    await driver.act('/hosts', { way, newDnsHost: null, newWebHost: null, given: { items, names: {} } });
  }

  /** Through the gate; `lines` may be skipped, and nothing else is. */
  async function throughGate(driver: Driver, lines: readonly string[]): Promise<void> {
    await driver.until(
      'it is decided',
      (move) => move.legs.at(-1)!.seen.ts !== null,
      async () => {
        await driver.letPass(lines);
        if ((await driver.move()).legs.at(-1)!.gate.open) await driver.tried('/submitted');
      },
    );
  }

  /** The zone is typed at the new host, and the registrar's form is saved once the gate is open. */
  async function switched(driver: Driver, domain: Domain, to: Make): Promise<void> {
    await driver.way('push', 'leave');
    await typePlan(driver, domain, to);
    await driver.done('served');
    await throughGate(driver, SKIPPED);
    await delegate(domain, to);
    await driver.done('switch');
  }

  async function changedInPlace(driver: Driver, domain: Domain, at: Make): Promise<void> {
    await throughGate(driver, SKIPPED);
    await typePlan(driver, domain, at);
    await driver.done('changed');
  }

  async function nextStage(driver: Driver): Promise<void> {
    await finished(driver, 'next-leg');
    await driver.call('POST', `${await driver.leg()}/next`);
    await driver.done('survey');
  }

  /** To the end of a stage, taking what its steps offer to whoever does it by hand. */
  async function finished(driver: Driver, end: 'close' | 'next-leg'): Promise<void> {
    await driver.until(
      `${end} is ready`,
      (move) => stepOf(move, end).state === 'ready',
      async () => {
        for (const step of (await driver.move()).legs.at(-1)!.steps)
          if (step.state === 'ready' && step.id === 'raise' && step.ways.some(({ act }) => act === 'leave')) await driver.way('raise', 'leave');
      },
    );
  }

  /** A resolver of which Wanderon knows nothing gives what is planned, for every set; called when it says that all is over. */
  async function judged(driver: Driver): Promise<void> {
    for (const { owner, type, data } of await plannedSets(driver)) {
      const { stdout } = await dig(RESOLVER, [owner, type, '+short']);
      expect([owner, type, stdout.trim().split('\n').sort()]).toEqual([owner, type, [...data].sort()]);
    }
  }

  async function closed(driver: Driver): Promise<void> {
    await driver.done('settle');
    await judged(driver);
    await finished(driver, 'close');
    await driver.act('/close');
    expect((await driver.move()).state).toBe('closed');
  }

  beside.it('the nameservers change, the TTLs lowered and the old zone turned in its file', async () => {
    const domain = DOMAINS.nameservers;
    const driver = await begun(domain);
    await planned(driver, 'nameservers', { ns: 'knot', web: true });
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    write(domain, 'bind', OLD_LINES, SERVER.bind, 2);
    await driver.done('lowered');
    await switched(driver, domain, 'knot');
    write(domain, 'bind', OLD_LINES, SERVER.knot);
    await closed(driver);
  });

  beside.it('the whole website changes where its records are', async () => {
    const domain = DOMAINS.inPlace;
    const driver = await begun(domain);
    await planned(driver, 'repoint', { web: true });
    await changedInPlace(driver, domain, 'knot');
    await closed(driver);
  });

  beside.it('one name changes where its record is, and nothing else does', async () => {
    const domain = DOMAINS.oneName;
    const driver = await begun(domain, `shop.${domain.name}`);
    await planned(driver, 'repoint', { web: true });
    const { rulings } = await driver.ledger();
    expect(rulings.filter(({ ruling }) => ruling !== 'carry').map(({ owner, planned: set }) => [owner, set?.data])).toEqual([
      [`shop.${domain.name}.`, [NEW_ADDRESS]],
    ]);
    await throughGate(driver, SKIPPED);
    write(domain, 'bind', OLD_LINES.replace('shop A 192.0.2.80', `shop A ${NEW_ADDRESS}`));
    await driver.done('changed');
    await closed(driver);
    expect((await dig(RESOLVER, [`www.${domain.name}`, 'A', '+short'])).stdout.trim()).toBe('192.0.2.80');
  });

  beside.it('the website first, and the nameservers after', async () => {
    const domain = DOMAINS.websiteFirst;
    const driver = await begun(domain);
    await planned(driver, 'website first', { ns: 'bind', web: true });
    await changedInPlace(driver, domain, 'knot');
    await driver.done('settle');
    await judged(driver);
    await nextStage(driver);
    await planned(driver, 'nameservers', { ns: 'bind' });
    await switched(driver, domain, 'bind');
    await typePlan(driver, domain, 'knot', SERVER.bind);
    await closed(driver);
  });

  beside.it('the nameservers first, and the website after', async () => {
    const domain = DOMAINS.nameserversFirst;
    const driver = await begun(domain);
    await planned(driver, 'nameservers first', { ns: 'knot', web: true });
    expect((await driver.ledger()).rulings.filter(({ ruling }) => ruling === 'repoint')).toEqual([]);
    await switched(driver, domain, 'knot');
    write(domain, 'bind', OLD_LINES, SERVER.knot);
    await driver.done('settle');
    await judged(driver);
    await nextStage(driver);
    await planned(driver, 'repoint', { web: true });
    await changedInPlace(driver, domain, 'knot');
    await closed(driver);
  });

  beside.it('into another account behind the same nameservers, which begins with nothing', async () => {
    const domain = DOMAINS.account;
    const driver = await begun(domain);
    await planned(driver, 'another account', { web: true });
    await driver.way('push', 'leave');
    await throughGate(driver, [...SKIPPED, 'gap']);
    write(domain, 'bind', '');
    await driver.until('what is missing is named', (move) => /does not serve .*MX/.test(stepOf(move, 'changed').text ?? ''));
    await typePlan(driver, domain, 'bind');
    await driver.done('changed');
    await closed(driver);
  });

  beside.it('a domain that was never used', async () => {
    const domain = DOMAINS.unused;
    const driver = await begun(domain);
    // A resolver is told now that it is not there, and remembers it.
    expect((await dig(RESOLVER, [domain.name, 'A'])).stdout).toContain('NXDOMAIN');
    await planned(driver, 'nameservers', { ns: 'knot', web: true });
    await switched(driver, domain, 'knot');
    await closed(driver);
  });
});
