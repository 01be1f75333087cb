import { FrontView } from '@wanderon/contract';
import { WayId } from '@wanderon/core';
import { Api } from '../../../command/src/api';
import { DEMO_PASSWORD } from '../../../command/src/demoData';
import { Driver } from '../support/drive';
import { KEY, NEW, OLD, PARENT, RESOLVER, RealServers, dig, nsupdate } from '../support/realServers';
import { ServerUnderTest } from '../support/world';

const head = (host: string, serial = 1): string =>
  `$TTL 4\n@ SOA ns1.${host}.example. host.${host}.example. ${serial} 60 60 600 2\n@ NS ns1.${host}.example.\n`;
const SITE = '@ A 192.0.2.80\nwww CNAME @\n@ MX 10 mail\nmail A 192.0.2.25\n';

/** Zones as they are found, each with something that few have. */
const ZONES: Readonly<Record<string, string>> = {
  'bare.example': '',
  'new-name.example': SITE,
  'other-account.example': SITE,
  'cut.example': `${SITE}sub NS ns.sub\nns.sub A 192.0.2.90\nfar NS ns1.elsewhere.example.\nsafe NS ns1.elsewhere.example.\nsafe DS 4711 13 2 ${'ab'.repeat(32)}\n`,
  'elsewhere.example': `${SITE}old DNAME new.marsh.example.\n`,
  'all-elsewhere.example': '@ DNAME marsh.example.\n@ MX 10 mx.marsh.example.\n',
  'wild.example': `${SITE}* A 192.0.2.81\n*.deep.down TXT "far"\nbelow.this.and.that TXT "further"\n*.mail MX 5 mail\n`,
  'aliases.example': '@ A 192.0.2.80\nwww CNAME a\na CNAME b\nb CNAME a\nshop CNAME nowhere.invalid.\nself CNAME self\n',
  'services.example': `${SITE}_sip._tcp SRV 1 2 5060 mail\n_imaps._tcp SRV 0 0 0 .\n@ HTTPS 0 www.marsh.example.\nwww2 HTTPS 1 . alpn=h2 ipv4hint=192.0.2.80\n@ CAA 0 issue ";"\n_443._tcp.www2 TLSA 3 1 1 ${'cd'.repeat(32)}\nhost SSHFP 1 1 ${'ef'.repeat(20)}\nhere LOC 52 22 23.000 N 4 53 32.000 E -2.00m 0.00m 10000m 10m\n_ftp._tcp URI 10 1 "ftp://ftp.marsh.example/"\n4 NAPTR 100 10 "u" "E2U+sip" "!^.*$!sip:desk@marsh.example!" .\n`,
  'no-mail.example': '@ A 192.0.2.80\n@ MX 0 .\n@ TXT "v=spf1 -all"\n_dmarc TXT "v=DMARC1; p=reject"\n',
  'odd.example': `${SITE}odd\\.label TXT "an escaped dot" "\\200\\000"\n\\255octets A 192.0.2.83\nblob TYPE65400 \\# 6 00ff10203040\n${'x'.repeat(63)} TXT "a long label"\nlong TXT ${Array.from({ length: 12 }, (_, index) => `"${'0123456789'.repeat(24)}${index}"`).join(' ')}\n`,
  'broken.example':
    '@ A 192.0.2.80\n@ MX 10 gone\nwww A 127.0.0.1\n@ TXT "v=spf1 include:loop.broken.example -all"\nloop TXT "v=spf1 include:broken.example ?all"\n_dmarc TXT "v=DMARC1; p=maybe"\nk._domainkey TXT "v=DKIM1; p=AAAA"\n',
  '2.0.192.in-addr.arpa': '25 PTR mail.cut.example.\n65 CNAME 65.64-127\n64-127 NS ns1.elsewhere.example.\n7 PTR slip.example\n',
};
/** They go another way than the others. */
const BY_THEMSELVES: ReadonlySet<string> = new Set(['new-name.example', 'other-account.example']);
const isRoot = process.getuid?.() === 0;

/** Whatever stands in a zone, no page of its move is missing, and nothing that Wanderon works out of it fails. */
(isRoot ? describe : describe.skip)('zones with something odd in them (port 53 on loopback, so as root)', () => {
  const servers = new RealServers();
  let server: ServerUnderTest;
  let api: Api;
  /** Addresses of the API that only ask. */
  let asking: string[];
  const hosts = new Map<string, string>();

  beforeAll(async () => {
    const all = Object.entries(ZONES);
    const parent = (zone: string): string => `${zone}. NS ns1.oldhost.example.\n`;
    await servers.bind(
      PARENT,
      {
        '.': `$TTL 60\n. SOA r.test. r.test. 1 60 60 600 4\n. NS root.servers.test.\nroot.servers.test. A ${PARENT}\nexample. NS ns1.nic.example.\n192.in-addr.arpa. NS ns1.nic.example.\nns1.nic.example. A ${PARENT}\n`,
        'example.': `${head('nic')}ns1.nic A ${PARENT}\noldhost NS ns1.oldhost\nns1.oldhost A ${OLD}\nnewhost NS ns1.newhost\nns1.newhost A ${NEW}\n${all
          .filter(([zone]) => zone.endsWith('.example'))
          .map(([zone]) => parent(zone))
          .join('')}`,
        '192.in-addr.arpa.': `${head('nic')}${parent('2.0.192.in-addr.arpa')}`,
      },
      { keyed: false },
    );
    const host = (name: string, address: string): string => `${head(name)}ns1 A ${address}\n`;
    await servers.bind(
      OLD,
      { 'oldhost.example.': host('oldhost', OLD), ...Object.fromEntries(all.map(([zone, text]) => [`${zone}.`, `${head('oldhost', 100)}${text}`])) },
      { keyed: true },
    );
    await servers.knot(NEW, { 'newhost.example.': host('newhost', NEW), ...Object.fromEntries(all.map(([zone]) => [`${zone}.`, head('newhost')])) });
    await servers.unbound(RESOLVER, PARENT);
    const hints = servers.file('hints', `. 3600 NS root.servers.test.\nroot.servers.test. 3600 A ${PARENT}\n`);
    const real = { WANDERON_ROOT_HINTS: hints, WANDERON_LOOKOUTS: `Unbound=${RESOLVER}`, WANDERON_PROBE_ALLOW: '127.0.0.0/8' };
    server = await new ServerUnderTest({ ...real, WANDERON_LOOK_EVERY: '2' }).open();
    api = await new Api(server.address).signIn('admin', DEMO_PASSWORD);
    const document = await api.call<{ paths: Record<string, Record<string, unknown>> }>('GET', '/api/openapi.json');
    asking = Object.entries(document.paths).flatMap(([path, methods]) => ('get' in methods && /\{(id|leg)\}/.test(path) ? [path] : []));
    const none = { nameservers: [], addresses: [], aliasTarget: null, requires: [], updateAddress: null, note: '' };
    for (const one of [
      { name: 'Old DNS', role: 'dns', nameservers: ['ns1.oldhost.example.'], key: KEY },
      { name: 'New DNS', role: 'dns', nameservers: ['ns1.newhost.example.'], key: KEY },
      { name: 'Old web', role: 'web', addresses: ['192.0.2.80'] },
      { name: 'New web', role: 'web', addresses: ['203.0.113.80'] },
    ])
      hosts.set(one.name, (await api.call<{ id: string }>('POST', '/api/hosts', { ...none, ...one })).id);
  });
  afterAll(async () => {
    await server?.close();
    servers.close();
  });

  /** Every page of the move, and what lies behind each row: none of them fails. */
  async function allAnswer(driver: Driver, where: string): Promise<void> {
    const leg = (await driver.leg()).slice('/api/legs/'.length);
    const rows = (await driver.ledger()).rulings.map((row) => row.id);
    const paths = asking.flatMap((path) => {
      const here = path.replace('/moves/{id}', `/moves/${driver.id}`).replace('{leg}', leg);
      return here.includes('/rows/{') ? rows.map((row) => here.replace(/\{\w+\}/, row)) : [here];
    });
    expect(paths.length).toBeGreaterThan(8);
    const failed = async (path: string): Promise<string[]> => {
      const { status } = await fetch(`${server.address}${path}`, { headers: api.headers });
      return status >= 500 ? [`${where}: ${status} at ${path}`] : [];
    };
    expect((await Promise.all(paths.filter((path) => !path.includes('{')).map(failed))).flat()).toEqual([]);
  }

  /** Surveyed, taken each way that is open to it, moved with its nameservers, and back; every page is read at every stop. */
  async function wholeWay(zone: string): Promise<void> {
    const driver = await Driver.begin(api, zone);
    await driver.done('survey');
    await allAnswer(driver, 'surveyed');
    const { ways } = await driver.call<FrontView>('POST', `${await driver.leg()}/front`, { given: null });
    const open = ways.flatMap(({ way, ruledOut }) => (ruledOut === null ? [way] : []));
    expect(open).toContain('nameservers');
    const choose = (way: WayId): Promise<unknown> =>
      driver.act('/hosts', {
        way,
        newDnsHost: way === 'repoint' ? null : hosts.get(way === 'another account' ? 'Old DNS' : 'New DNS'),
        newWebHost: way === 'another account' ? null : hosts.get('New web'),
      });
    for (const way of [...open.filter((one) => one !== 'nameservers'), 'nameservers'] as const) {
      // Where nothing of the zone leads to a website there is nothing to repoint, which is said.
      const taken = await allowed(choose(way));
      expect([way, taken || way !== 'nameservers']).toEqual([way, true]);
      if (taken) await allAnswer(driver, way);
    }
    const { counts } = (await driver.move()).legs[0]!;
    if (counts.stops > 0) return driver.abandoned();
    await driver.act('/push');
    await driver.done('served');
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    await driver.done('lowered');
    await allAnswer(driver, 'lowered');
    await driver.throughGate();
    const parent = zone.endsWith('.arpa') ? '192.in-addr.arpa.' : 'example.';
    await nsupdate(servers.folder, PARENT, [`zone ${parent}`, `update delete ${zone}. NS`, `update add ${zone}. 4 NS ns1.newhost.example.`]);
    await driver.done('switch');
    await allAnswer(driver, 'switched');
    await driver.done('settle');
    await allAnswer(driver, 'settled');
    await driver.done('raise');
    // Where no record has another value there is nothing to set back.
    await allowed(driver.act('/back', { how: 'records' }));
    await allAnswer(driver, 'back');
    await driver.abandoned();
  }

  it('get a name that is new, where there is no TTL to lower', async () => {
    const driver = await Driver.begin(api, 'shop.new-name.example', undefined, 'name');
    await driver.done('survey');
    await driver.act('/hosts', { way: 'repoint', newDnsHost: null, newWebHost: hosts.get('New web') });
    const planned = async (): Promise<string[]> =>
      (await driver.ledger()).rulings.flatMap(({ owner, type, ruling }) => (ruling === 'carry' ? [] : [`${ruling} ${owner} ${type}`]));
    if (!(await planned()).some((row) => row.startsWith('new ')))
      await driver.act('/rulings', { owner: 'shop.new-name.example.', type: 'A', ttl: '300', data: '203.0.113.80' });
    expect(await planned()).toEqual(['new shop.new-name.example. A']);
    expect((await driver.move()).legs[0]!.steps.map(({ id }) => id)).not.toContain('lowered');
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    await driver.throughGate();
    await driver.done('changed');
    await driver.done('settle');
    await allAnswer(driver, 'settled');
    expect((await dig(OLD, ['shop.new-name.example', 'A', '+short'])).stdout.trim()).toBe('203.0.113.80');
  });

  it('go into another account as they are, by the word of whoever takes them over', async () => {
    const driver = await Driver.begin(api, 'other-account.example');
    await driver.done('survey');
    await driver.act('/hosts', { way: 'another account', newDnsHost: hosts.get('Old DNS'), newWebHost: null });
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    await driver.way('push', 'leave');
    await driver.throughGate();
    await driver.done('changed');
    await driver.done('settle');
    await allAnswer(driver, 'settled');
  });

  it('have every page along their way, and nothing that is worked out of them fails', async () => {
    const zones = Object.keys(ZONES).filter((zone) => !BY_THEMSELVES.has(zone));
    const done = await Promise.allSettled(zones.map(wholeWay));
    expect(done.flatMap((one, index) => (one.status === 'rejected' ? [`${zones[index]!}: ${String(one.reason)}`] : []))).toEqual([]);
    const moves = await api.call<{ moves: { domain: string; legs?: unknown }[] }>('GET', '/api/moves');
    expect(moves.moves.map(({ domain }) => domain)).toEqual(expect.arrayContaining(zones));
  });
});

/** False where it was refused in words. */
async function allowed(act: Promise<unknown>): Promise<boolean> {
  try {
    await act;
    return true;
  } catch (error) {
    expect(String(error)).toMatch(/^(ApiError|Error): 4\d\d: /);
    return false;
  }
}
