import { spawnSync } from 'node:child_process';
import { until } from '../../../command/src/api';
import { stepOf } from '../support/drive';
import { RealDomain, RealMoves, VALIDATOR, keysOf, refused, said } from '../support/realMoves';
import { SideBySide } from '../support/sideBySide';
import { KEY, PARENT, dig, loopback, nsupdate, transferredLines } from '../support/realServers';

const isRoot = process.getuid?.() === 0;

/** Serves the names of a host's nameservers, and nothing else. */
const NAMES_AT = loopback(10);

const SIGNED = {
  bare: { name: 'signed-bare.example', old: 'knot' },
  chained: {
    name: 'signed-chained.example',
    old: 'knot',
    delegation:
      'signed-chained.example. 3 NS ns1.oldknot.example.\nsigned-chained.example. 4 DS 12345 13 2 0123456789abcdef0123456789abcdef0123456789abcdef0123456789abcdef',
  },
  renumbered: {
    name: 'renumbered.example',
    delegation: `renumbered.example. 3 NS ns1.renumbered.example.\nns1.renumbered.example. 3 A ${loopback(2)}`,
    oldNs: `@ 5 NS ns1.renumbered.example.\nns1 5 A ${loopback(2)}`,
    newNs: `@ 5 NS ns1.renumbered.example.\nns1 5 A ${loopback(3)}`,
  },
  // Its nameserver is a name of the host's, in a zone that nobody here has a word in.
  hosts: {
    name: 'kept-names.example',
    delegation: 'kept-names.example. 3 NS ns1.moving-host.test.',
    oldNs: '@ 5 NS ns1.moving-host.test.',
    newNs: '@ 5 NS ns1.moving-host.test.',
  },
} satisfies Record<string, RealDomain>;

(isRoot ? describe : describe.skip)('signed zones, and names that stay while addresses change', () => {
  const rootMore = `moving-host.test. NS dns.moving-host.test.\ndns.moving-host.test. A ${NAMES_AT}`;
  const real = new RealMoves(Object.values(SIGNED), { signed: 'nsec', rootMore });
  beforeAll(async () => {
    const names = `$TTL 4\n@ SOA dns h 1 60 60 600 2\n@ NS dns\ndns A ${NAMES_AT}\nns1 A ${loopback(2)}\n`;
    await real.servers.bind(NAMES_AT, { 'moving-host.test.': names }, { keyed: false });
    await real.open();
    const host = { nameservers: ['ns1.renumbered.example.'], key: KEY };
    await real.addHost('before', { ...host, addresses: [loopback(2)] });
    await real.addHost('after', { ...host, addresses: [loopback(3)] });
    const elsewhere = { nameservers: ['ns1.moving-host.test.'], key: KEY };
    await real.addHost('host before', { ...elsewhere, addresses: [loopback(2)] });
    await real.addHost('host after', { ...elsewhere, addresses: [loopback(3)] });
  });
  afterAll(() => real.close());
  const beside = new SideBySide(4);

  beside.it('a signed zone without a DS is lowered, which signs it again, and that is no drift', async () => {
    const domain = SIGNED.bare;
    const driver = await real.lowered(domain);
    await real.switched(domain, driver);
    await driver.done('settle');
    const { rulings } = await driver.ledger();
    expect(rulings.filter((row) => ['RRSIG', 'NSEC', 'DNSKEY'].includes(row.type)).every((row) => row.ruling === 'drop')).toBe(true);
  });

  beside.it('a DS keeps the gate shut until it was seen gone, and it and the keys validated through it have run out', async () => {
    const domain = SIGNED.chained;
    const driver = await real.lowered(domain);
    await said(driver, /parent publishes a DS/);
    expect((await driver.move()).legs[0]!.steps.find((step) => step.id === 'ds-gone')!.state).toBe('ready');
    await refused(driver, '/submitted', /DS/);
    const keys = Number(
      /DNSKEY/.test((await dig(real.oldAddress(domain), [domain.name, 'DNSKEY', '+noall', '+answer'])).stdout) &&
        /\s(\d+)\s+IN\s+DNSKEY/.exec((await dig(real.oldAddress(domain), [domain.name, 'DNSKEY', '+noall', '+answer'])).stdout)![1],
    );
    const removed = Date.now() / 1000;
    await nsupdate(real.servers.folder, PARENT, ['zone example.', `update delete ${domain.name}. DS`]);
    await said(driver, /Keys that were validated through the DS may be remembered still/);
    await real.open_(driver);
    expect(Date.now() / 1000).toBeGreaterThanOrEqual(removed + 4 + keys);
  });

  beside.it('names that stay are told by address, and nothing is settled while glue or old servers say the old one', async () => {
    const domain = SIGNED.renumbered;
    const driver = await real.lowered(domain, 'after');
    expect((await driver.move()).from).toBe('before');
    await real.open_(driver);
    await real.submitted(driver);
    await said(driver, /0 of 1 servers of the parent publish the new set/);
    await nsupdate(real.servers.folder, PARENT, [
      'zone example.',
      'update delete ns1.renumbered.example. A',
      `update add ns1.renumbered.example. 3 A ${loopback(3)}`,
    ]);
    await driver.done('switch');
    await driver.done('turn');
    expect((await dig(real.oldAddress(domain), ['ns1.renumbered.example', 'A', '+short'])).stdout.trim()).toBe(loopback(3));
    await driver.done('settle');
    // The host's own address in the new zone was left as it was.
    expect(await transferredLines(loopback(3), domain.name)).toContain(`ns1.renumbered.example. 5 IN A ${loopback(3)}`);
  });

  beside.it('names of the host that stay are told by their own authority, and nothing is switched or settled while it says the old address', async () => {
    const domain = SIGNED.hosts;
    const driver = await real.lowered(domain, 'host after');
    await real.open_(driver);
    // The parent names what is wanted all along; that says nothing.
    expect((await driver.move()).legs[0]!.seen.ts).toBeNull();
    await real.submitted(driver);
    const waiting = await said(driver, new RegExp(`dns\\.moving-host\\.test still says ns1\\.moving-host\\.test at ${loopback(2)}`));
    expect(waiting.legs[0]!.seen.t0).toBeNull();
    const changed = Date.now() / 1000;
    await nsupdate(real.servers.folder, NAMES_AT, [
      'zone moving-host.test.',
      'update delete ns1.moving-host.test. A',
      `update add ns1.moving-host.test. 4 A ${loopback(3)}`,
    ]);
    await driver.done('switch');
    await driver.done('settle');
    // Until then a cache may have had the old address, with a TTL of 4 s, and what the old server says, with one of 2.
    expect(Date.now() / 1000).toBeGreaterThanOrEqual(changed + 4 + 2);
  });

  it('a set equal in names and addresses is refused, in words that say what is possible instead', async () => {
    const driver = await real.chosen(SIGNED.renumbered, 'after').catch((error: unknown) => String(error));
    expect(driver).toMatch(/is being moved already/);
    const { moves } = await real.api.call<{ moves: { id: string; leg: string; domain: string }[] }>('GET', '/api/moves');
    const move = moves.find((one) => one.domain === SIGNED.renumbered.name)!;
    await real.api.call('DELETE', `/api/moves/${move.id}`);
    await expect(real.chosen(SIGNED.renumbered, 'after')).rejects.toThrow(/same names and addresses.*To change only records/s);
  });
});

const TRUSTED = { name: 'chain-of-trust.example', old: 'knot' } satisfies RealDomain;
/** Its DS is of an algorithm that resolvers do not know: to them the zone is unsigned (RFC 4035 §5.2). */
const UNKNOWN = {
  name: 'unknown-algorithm.example',
  old: 'knot',
  delegation: `unknown-algorithm.example. 3 NS ns1.oldknot.example.\nunknown-algorithm.example. 4 DS 4711 200 2 ${'ab'.repeat(32)}`,
} satisfies RealDomain;

(isRoot ? describe : describe.skip)('a signed zone with its DS, and a resolver that checks', () => {
  const real = new RealMoves([TRUSTED, UNKNOWN], {
    signed: 'nsec',
    signedAgain: 'nsec',
    validating: true,
    lookouts: `Unbound=${loopback(4)},Checks=${VALIDATOR}`,
  });
  const name = `www.${TRUSTED.name}`;
  const seen: string[] = [];
  let watching = true;
  beforeAll(() => real.open());
  afterAll(async () => {
    watching = false;
    await real.close();
  });

  /** The data of the DS for the key of the zone at one host. */
  async function digest(address = real.oldAddress(TRUSTED)): Promise<string> {
    const keys = await keysOf(address, `${TRUSTED.name}.`);
    const made = spawnSync('dnssec-dsfromkey', ['-2', '-f', '-', `${TRUSTED.name}.`], { input: `${keys.join('\n')}\n`, encoding: 'utf8' });
    return /IN DS (.*)/.exec(made.stdout)![1]!;
  }

  /** What the resolver answers, over and over, as a client would ask: code, whether it was checked, addresses. */
  async function watch(): Promise<void> {
    while (watching) {
      const { stdout } = await dig(VALIDATOR, [name, 'A', '+dnssec']);
      const what = `${/status: (\w+)/.exec(stdout)?.[1] ?? 'silent'} ${/flags:[^;]*\bad\b/.test(stdout) ? 'checked' : 'unchecked'} ${[...stdout.matchAll(/\sIN\s+A\s+([\d.]+)/g)].map((one) => one[1]).join(' ')}`;
      if (seen.at(-1) !== what) seen.push(what);
    }
  }

  const beside = new SideBySide(2);

  beside.it('a DS of an algorithm that nobody knows is no forgery: that is said, and who checks is answered all the way', async () => {
    const failed: string[] = [];
    let moving = true;
    const asked = (async () => {
      while (moving) {
        const { stdout } = await dig(VALIDATOR, [`www.${UNKNOWN.name}`, 'A']);
        if (!/status: NOERROR/.test(stdout)) failed.push(stdout);
      }
    })();
    const driver = await real.lowered(UNKNOWN);
    expect((await driver.survey()).findings.map((one) => one.text).join()).toMatch(/algorithm 200/);
    await said(driver, /algorithm 200/);
    await real.atParent(`delete ${UNKNOWN.name}. DS`);
    await real.switched(UNKNOWN, driver);
    await driver.done('settle');
    expect((await dig(VALIDATOR, [`www.${UNKNOWN.name}`, 'A', '+short'])).stdout.trim()).toBe('203.0.113.80');
    moving = false;
    await asked;
    expect(failed).toEqual([]);
  });

  beside.it('never fails in the whole move: first checked and old, then unchecked, then new, and with a DS of the new keys checked again', async () => {
    await real.atParent(`add ${TRUSTED.name}. 4 DS ${await digest()}`);
    await until('the chain of trust is there', async () => /flags:[^;]*\bad\b/.test((await dig(VALIDATOR, [name, 'A', '+dnssec'])).stdout));
    const watched = watch();
    const driver = await real.lowered(TRUSTED);
    await said(driver, /parent publishes a DS/);
    await real.atParent(`delete ${TRUSTED.name}. DS`);
    await real.switched(TRUSTED, driver);
    await driver.done('settle');
    await driver.until('a DS can be put in again', (move) => stepOf(move, 'ds-again').state === 'ready');
    await real.atParent(`add ${TRUSTED.name}. 4 DS ${await digest(real.newAddress(TRUSTED))}`);
    await driver.done('ds-again');
    await driver.done('raise');
    await until('it is checked again', () => Promise.resolve(seen.at(-1) === 'NOERROR checked 203.0.113.80'));
    watching = false;
    await watched;
    expect(seen.filter((one) => !one.startsWith('NOERROR'))).toEqual([]);
    expect(seen[0]).toBe('NOERROR checked 192.0.2.80');
    expect(seen).toContain('NOERROR unchecked 203.0.113.80');
  });

  it('would have failed had the nameservers been changed with the DS in place', async () => {
    await real.atParent(`delete ${TRUSTED.name}. DS`, `add ${TRUSTED.name}. 4 DS ${await digest()}`);
    await until('it fails', async () => /status: SERVFAIL/.test((await dig(VALIDATOR, [name, 'A'])).stdout));
  });
});

const LAME = {
  name: 'one-lame.example',
  delegation: 'one-lame.example. 3 NS ns1.oldbind.example.\none-lame.example. 3 NS ns1.newbind.example.',
  oldNs: '@ 5 NS ns1.oldbind.example.\n@ 5 NS ns1.newbind.example.',
} satisfies RealDomain;

(isRoot ? describe : describe.skip)('servers that are dead or lame from the start', () => {
  const dead = `example. NS ns2.nic.example.\nns2.nic.example. A ${loopback(77)}\nexample. NS ns3.nic.example.\nns3.nic.example. AAAA 2001:db8::53`;
  const real = new RealMoves([LAME], { parentMore: dead, lookouts: `Unbound=${loopback(4)},Refuses=${loopback(5)},Nobody=${loopback(78)}` });
  beforeAll(() => real.open());
  afterAll(() => real.close());

  it('a server that is lame from the start is named and not waited for; dead servers of the parent neither', async () => {
    const domain = LAME;
    const driver = await real.lowered(domain);
    await real.switched(domain, driver);
    await driver.done('settle', undefined, 150);
    const watch = await driver.watch();
    expect(
      watch.parent
        .filter((one) => one.state === 'none')
        .map((one) => one.server)
        .sort(),
    ).toEqual(['ns2.nic.example.', 'ns3.nic.example.']);
    // A lookout that refuses us, and one that nobody answers at, are set aside by name.
    expect(watch.setAside.sort()).toEqual(['Nobody', 'Refuses']);
  });
});
