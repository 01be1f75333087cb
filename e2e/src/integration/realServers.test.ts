import { MoveView } from '@wanderon/contract';
import { Api } from '../../../command/src/api';
import { DEMO_PASSWORD } from '../../../command/src/demoData';
import { Driver } from '../support/drive';
import { KEY, NEW, OLD, PARENT, RESOLVER, RealServers, dig, nsupdate, transferredLines } from '../support/realServers';
import { ServerUnderTest } from '../support/world';

const ROOT_ZONE = `$TTL 60
. SOA root.servers.test. root.servers.test. 1 60 60 600 4
. NS root.servers.test.
root.servers.test. A ${PARENT}
example. NS ns1.nic.example.
192.in-addr.arpa. NS ns1.nic.example.
ns1.nic.example. A ${PARENT}
`;
const PARENT_ZONE = `$TTL 60
example. SOA ns1.nic.example. nic.nic.example. 1 60 60 600 4
example. NS ns1.nic.example.
ns1.nic.example. A ${PARENT}
oldhost.example. NS ns1.oldhost.example.
ns1.oldhost.example. A ${OLD}
newhost.example. NS ns1.newhost.example.
ns1.newhost.example. A ${NEW}
heron-books.example. 5 NS ns1.oldhost.example.
many-notes.example. 60 NS ns1.oldhost.example.
`;
const hostZone = (name: string, address: string): string => `$TTL 60
${name}. SOA ns1.${name}. host.${name}. 1 60 60 600 4
${name}. NS ns1.${name}.
ns1.${name}. A ${address}
`;
const RANGES = `$TTL 60
192.in-addr.arpa. SOA ns1.nic.example. nic.nic.example. 1 60 60 600 4
192.in-addr.arpa. NS ns1.nic.example.
2.0.192.in-addr.arpa. 5 NS ns1.oldhost.example.
`;
const RANGE = '2.0.192.in-addr.arpa';
const NAMES = `$ORIGIN ${RANGE}.
$TTL 8
@ SOA ns1.oldhost.example. host.oldhost.example. 100 60 60 600 3
@ 6 NS ns1.oldhost.example.
25 PTR mail.heron-books.example.
80 PTR www.heron-books.example.
65 CNAME 65.64-127
64-127 NS ns1.elsewhere.example.
`;
const LONG = Array.from({ length: 16 }, (_, i) => `"${'abcdefghijklmnopqrstuvwxyz0123456789 ;()\\"'.repeat(6).slice(0, 240).replace(/\\+$/, '')}${i}"`).join(
  ' ',
);
const CLIENT_ZONE = `$ORIGIN heron-books.example.
$TTL 8
@ SOA ns1.oldhost.example. host.oldhost.example. 100 60 60 600 3
@ 6 NS ns1.oldhost.example.
@ A 192.0.2.80
www CNAME @
@ MX 10 mail
mail A 192.0.2.25
@ TXT "v=spf1 mx -all"
long TXT ${LONG}
odd\\.label TXT "an escaped dot" "and a second string \\200\\000"
blob TYPE65400 \\# 6 00ff10203040
svc TYPE65 \\# 3 000100
_sip._tcp SRV 1 2 5060 mail
@ CAA 0 issue "certs.example"
*.wild A 192.0.2.44
sub NS ns1.elsewhere.example.
`;

/** More than one update holds, and enough that pages are told how far the push is. */
const MANY = 600;
const MANY_NOTES = `$ORIGIN many-notes.example.
$TTL 60
@ SOA ns1.oldhost.example. host.oldhost.example. 100 60 60 600 3
@ NS ns1.oldhost.example.
${Array.from({ length: MANY }, (_, index) => `note-${index} TXT "${'x'.repeat(99)}"`).join('\n')}
`;

const isRoot = process.getuid?.() === 0;

/** The same path with Debian's servers in the lab's place, by the machine's own clock and with TTLs of seconds. */
(isRoot ? describe : describe.skip)('a move between real servers (port 53 on loopback, so as root)', () => {
  const servers = new RealServers();
  let server: ServerUnderTest;
  let watching = true;

  beforeAll(async () => {
    await servers.bind(PARENT, { '.': ROOT_ZONE, 'example.': PARENT_ZONE, '192.in-addr.arpa.': RANGES }, { keyed: false });
    const old = {
      'oldhost.example.': hostZone('oldhost.example', OLD),
      'heron-books.example.': CLIENT_ZONE,
      [`${RANGE}.`]: NAMES,
      'many-notes.example.': MANY_NOTES,
    };
    await servers.bind(OLD, old, { keyed: true });
    const empty = (zone: string): string => `${zone}. 60 SOA ns1.newhost.example. host.newhost.example. 1 60 60 600 3\n${zone}. 60 NS ns1.newhost.example.\n`;
    const fresh = { 'heron-books.example.': empty('heron-books.example'), [`${RANGE}.`]: empty(RANGE), 'many-notes.example.': empty('many-notes.example') };
    await servers.knot(NEW, { 'newhost.example.': hostZone('newhost.example', NEW), ...fresh });
    await servers.unbound(RESOLVER, PARENT);
    const hints = servers.file('hints', `. 3600 NS root.servers.test.\nroot.servers.test. 3600 A ${PARENT}\n`);
    const real = { WANDERON_ROOT_HINTS: hints, WANDERON_LOOKOUTS: `Unbound=${RESOLVER}`, WANDERON_PROBE_ALLOW: '127.0.0.0/8' };
    server = await new ServerUnderTest({ ...real, WANDERON_LOOK_EVERY: '1' }).open();
  });
  afterAll(async () => {
    watching = false;
    await server?.close();
    servers.close();
  });

  it('carries every record from bind9 to knot, and unbound follows', async () => {
    const before = await transferredLines(OLD, 'heron-books.example');
    const api = await new Api(server.address).signIn('admin', DEMO_PASSWORD);
    const host = (name: string, more: object): Promise<{ id: string }> =>
      api.call('POST', '/api/hosts', {
        name,
        role: 'dns',
        nameservers: [],
        addresses: [],
        aliasTarget: null,
        requires: [],
        updateAddress: null,
        note: '',
        ...more,
      });
    await host('Old DNS', { nameservers: ['ns1.oldhost.example.'], key: KEY });
    await host('Old web', { role: 'web', addresses: ['192.0.2.80'] });
    const dns = await host('New DNS', { nameservers: ['ns1.newhost.example.'], key: KEY });
    const web = await host('New web', { role: 'web', addresses: ['203.0.113.80'], requires: [{ owner: '_proof', type: 'TXT', data: '"site={zone}"' }] });

    const mail: string[] = [];
    const watcher = (async () => {
      while (watching)
        mail.push(
          (await dig(RESOLVER, ['heron-books.example', 'MX', '+short'])).stdout.trim(),
          (await dig(RESOLVER, ['mail.heron-books.example', 'A', '+short'])).stdout.trim(),
        );
    })();

    const driver = await Driver.begin(api, 'heron-books.example');
    await driver.done('survey');
    expect((await driver.survey()).coverage.grade).toBe('whole');
    await driver.act('/hosts', { newDnsHost: dns.id, newWebHost: web.id });
    await driver.act('/push');
    await driver.done('served');
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    await driver.done('lowered');
    expect((await dig(OLD, ['heron-books.example', 'A', '+noall', '+answer'])).stdout).toMatch(/heron-books\.example\.\s+2\s/);
    let open = await driver.move();
    // No page answered before, and none does where the plan leads: nobody says that the new web host answers.
    expect(open.legs[0]!.gate.lines.find((line) => line.key === 'website')!.holds).toBe(false);
    while (!open.legs[0]!.gate.open) {
      await driver.letPass(['website']);
      open = await driver.move();
    }
    await driver.act('/submitted');
    await nsupdate(servers.folder, PARENT, [
      'zone example.',
      'update delete heron-books.example. NS',
      'update add heron-books.example. 5 NS ns1.newhost.example.',
    ]);
    await driver.done('switch');
    await driver.done('settle');
    await driver.done('raise');
    watching = false;
    await watcher;
    const closed: MoveView = await driver.act('/close');
    expect(closed.state).toBe('closed');

    const after = await transferredLines(NEW, 'heron-books.example');
    const carried = before.filter((line) => !/ (SOA|NS) ns1\.oldhost/.test(line) && !/^heron-books\.example\. 8 IN A /.test(line));
    expect(carried.length).toBeGreaterThan(11);
    for (const line of carried) expect(after).toContain(line);
    expect(after.filter((line) => !carried.includes(line) && !/ SOA /.test(line)).sort()).toEqual([
      '_proof.heron-books.example. 3600 IN TXT "site=heron-books.example"',
      'heron-books.example. 60 IN NS ns1.newhost.example.',
      'heron-books.example. 8 IN A 203.0.113.80',
    ]);
    expect((await dig(RESOLVER, ['heron-books.example', 'A', '+short'])).stdout.trim()).toBe('203.0.113.80');
    expect((await dig(RESOLVER, ['heron-books.example', 'NS', '+short'])).stdout.trim()).toBe('ns1.newhost.example.');
    expect(mail.length).toBeGreaterThan(20);
    expect([...new Set(mail)].sort()).toEqual(['10 mail.heron-books.example.', '192.0.2.25']);
  });

  it('carries the names of a range of addresses, given as one', async () => {
    const api = await new Api(server.address).signIn('admin', DEMO_PASSWORD);
    const { hosts } = await api.call<{ hosts: { id: string; name: string }[] }>('GET', '/api/hosts');
    const driver = await Driver.begin(api, '192.0.2.0/24');
    await driver.done('survey');
    expect((await driver.move()).domain).toBe(RANGE);
    const { coverage } = await driver.survey();
    expect(coverage.grade).toBe('whole');
    await driver.act('/hosts', { newDnsHost: hosts.find(({ name }) => name === 'New DNS')!.id, newWebHost: null });
    const { rulings, remarks } = await driver.ledger();
    expect(remarks).toEqual([]);
    expect(rulings.filter(({ ruling }) => ruling === 'carry').map(({ owner, type }) => `${owner.replace(`.${RANGE}.`, '')} ${type}`)).toEqual(
      expect.arrayContaining(['25 PTR', '80 PTR', '65 CNAME', '64-127 NS']),
    );
    await driver.act('/push');
    await driver.done('served');
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    await driver.done('lowered');
    let open = await driver.move();
    while (!open.legs[0]!.gate.open) open = await driver.move();
    await driver.act('/submitted');
    await nsupdate(servers.folder, PARENT, ['zone 192.in-addr.arpa.', `update delete ${RANGE}. NS`, `update add ${RANGE}. 5 NS ns1.newhost.example.`]);
    await driver.done('settle');
    expect((await dig(RESOLVER, ['-x', '192.0.2.25', '+short'])).stdout.trim()).toBe('mail.heron-books.example.');
    expect((await transferredLines(NEW, RANGE)).filter((line) => !/ SOA /.test(line))).toEqual([
      `${RANGE}. 60 IN NS ns1.newhost.example.`,
      `25.${RANGE}. 8 IN PTR mail.heron-books.example.`,
      `64-127.${RANGE}. 8 IN NS ns1.elsewhere.example.`,
      `65.${RANGE}. 8 IN CNAME 65.64-127.${RANGE}.`,
      `80.${RANGE}. 8 IN PTR www.heron-books.example.`,
    ]);
  });

  it('tells open pages how far a long push is, and that it is over', async () => {
    const api = await new Api(server.address).signIn('admin', DEMO_PASSWORD);
    const { hosts } = await api.call<{ hosts: { id: string; name: string }[] }>('GET', '/api/hosts');
    const driver = await Driver.begin(api, 'many-notes.example');
    await driver.done('survey');
    await driver.act('/hosts', { newDnsHost: hosts.find(({ name }) => name === 'New DNS')!.id, newWebHost: null });
    const told = new AbortController();
    const progress = pushProgress(api, driver.id, told.signal);
    await driver.act('/push');
    await driver.done('push');
    const far = await progress.finally(() => told.abort());
    expect(far[0]!.doing).toBe('Sending record sets to ns1.newhost.example');
    expect([far[0]!.asked > 0, far[0]!.asked + far[0]!.left!]).toEqual([true, MANY]);
    expect(far.at(-1)).toEqual({ doing: '', asked: 0 });
    expect((await transferredLines(NEW, 'many-notes.example')).filter((line) => line.startsWith('note-'))).toHaveLength(MANY);
    await driver.abandoned();
  });
});

interface Far {
  readonly doing: string;
  readonly asked: number;
  readonly left?: number;
}

/** What open pages are told of a push of a move, until it is said to be over. */
async function pushProgress(api: Api, move: string, signal: AbortSignal): Promise<Far[]> {
  const stream = await fetch(`${api.address}/api/live`, { headers: api.headers, signal });
  const far: Far[] = [];
  let text = '';
  for await (const piece of stream.body!) {
    text += Buffer.from(piece as Uint8Array).toString();
    const lines = text.split('\n');
    text = lines.pop()!;
    for (const line of lines) {
      const { topic, move: of, step, ...told } = JSON.parse(/^data: (\{.*)$/.exec(line)?.[1] ?? '{}') as Record<string, unknown>;
      if (topic !== 'progress' || of !== move || step !== 'push') continue;
      far.push(told as unknown as Far);
      if (told.doing === '') return far;
    }
  }
  return far;
}
