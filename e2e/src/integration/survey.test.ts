import { MoveView } from '@wanderon/contract';
import { Exploration, Name, RRset, TYPE_CODES, TsigKey, fromBase64, groupRecords, printZoneFile, recordsOf } from '@wanderon/core';
import { DnsClient, exploreZone, transferZone, walkZone } from '@wanderon/net';
import { Api, until } from '../../../command/src/api';
import { KEY, RealServers } from '../support/realServers';
import { World, openWorld } from '../support/world';

const ZONE = Name.parse('marsh-ferry.example.');
const HEAD = `$TTL 300
@ SOA ns1.oldhost.example. host.oldhost.example. 100 3600 600 86400 300
@ NS ns1.oldhost.example.
`;
/** Names that no catalogue has, two depths of wildcards, names that hold nothing themselves, delegations with and without glue. */
const ODD = `@ A 192.0.2.80
@ MX 10 post-room
post-room A 192.0.2.25
www CNAME odd-target
odd-target A 192.0.2.81
* TXT "a wildcard"
*.deep.down A 192.0.2.82
below.this.and.that TXT "far down"
_sip._tcp SRV 1 2 5060 post-room
sub NS ns.sub
sub NS ns.elsewhere.example.
ns.sub A 192.0.2.90
secured NS ns.elsewhere.example.
secured DS 4711 13 2 ${'ab'.repeat(32)}
odd\\.label TXT "\\200\\000"
\\255octets A 192.0.2.83
blob TYPE65400 \\# 3 00ff10
`;
const many = Array.from({ length: 5000 }, (_, i) => `name-${i} ${i % 3 === 0 ? 'A 192.0.2.1' : i % 3 === 1 ? `TXT "number ${i}"` : 'MX 10 post-room'}\n`).join(
  '',
);

const SIGNED = '127.53.0.21';
const NSEC3 = '127.53.0.22';
const BIND = '127.53.0.23';
const CLOSED = '127.53.0.24';
const key: TsigKey = { name: Name.parse(KEY.name), algorithm: KEY.algorithm, secret: fromBase64(KEY.secret) };
const isRoot = process.getuid?.() === 0;

const lines = (sets: readonly RRset[]): string[] =>
  printZoneFile(sets.flatMap(recordsOf))
    .split('\n')
    .filter((line) => line !== '' && !/ IN (RRSIG|NSEC|SOA) /.test(line))
    .sort();

(isRoot ? describe : describe.skip)('an inventory without a transfer (port 53 on loopback, so as root)', () => {
  const servers = new RealServers();
  const client = new DnsClient();
  beforeAll(async () => {
    await servers.knot(SIGNED, { 'marsh-ferry.example.': HEAD + ODD + many }, 'nsec');
    await servers.knot(NSEC3, { 'marsh-ferry.example.': HEAD + ODD }, 'nsec3');
    await servers.bind(BIND, { 'marsh-ferry.example.': HEAD + ODD }, { keyed: true, signed: true });
    await servers.nsd(CLOSED, { 'marsh-ferry.example.': HEAD + ODD });
  });
  afterAll(() => servers.close());

  const whole = async (address: string): Promise<string[]> => lines(groupRecords((await transferZone(client, { address }, ZONE, { key })).records));

  it.each([
    ['knot, 5,000 names', SIGNED, 5000],
    ['bind9', BIND, 10],
  ])('%s: walks a zone signed with NSEC, and finds what a transfer has', async (_name, address, least) => {
    // bind signs in the background; until it is through there is no chain.
    const walked = await until('the zone is signed', async () => {
      const one = await walkZone(client, { address }, ZONE, { inFlight: 32 });
      return one.names > 0 ? one : undefined;
    });
    expect(walked.problems).toEqual([]);
    expect(walked.whole).toBe(true);
    expect(walked.names).toBeGreaterThan(least);
    expect(lines(walked.sets)).toEqual(await whole(address));
  });

  it('knot: says of a zone signed with NSEC3 that it hides its names', async () => {
    const walked = await walkZone(client, { address: NSEC3 }, ZONE);
    expect([walked.whole, walked.sets.length]).toEqual([false, 0]);
    expect(walked.problems.join(' ')).toMatch(/NSEC3/);
  });

  it.each([
    ['nsd', CLOSED],
    ['knot with NSEC3', NSEC3],
    ['bind9', BIND],
  ])('%s: finds by questions what has a common name or is named by it, claims nothing that is not there, and hints at the rest', async (_name, address) => {
    const exploration = new Exploration(ZONE, () => 'nobody-has-this-label');
    await exploreZone(client, { address }, exploration);
    const { sets, remarks, asked } = exploration.report();
    const found = lines(sets.map(({ set }) => set));
    const there = await whole(address);
    expect(found.filter((line) => !there.includes(line))).toEqual([]);
    for (const start of ['www.', 'odd-target.', 'post-room.', '_sip._tcp.', '*.marsh-ferry', 'marsh-ferry.example. 300 IN MX'])
      expect([start, found.some((line) => line.startsWith(start))]).toEqual([start, true]);
    expect(found.some((line) => line.startsWith('below.'))).toBe(false);
    expect(remarks.join(' ')).toMatch(/\*\.marsh-ferry\.example\. answers for every name/);
    expect(asked).toBeLessThan(6000);
    expect(sets.every(({ set }) => set.type !== TYPE_CODES.NSEC)).toBe(true);
  });
});

describe('a survey of a domain whose host gives no transfer', () => {
  let world: World;
  beforeAll(async () => (world = await openWorld()));
  afterAll(() => world.close());

  it('is partial with its reasons, goes on to the plan, and is whole once there is a key', async () => {
    const { api } = world;
    const { hosts } = await api.call<{ hosts: { id: string; name: string; keyName: string | null }[] }>('GET', '/api/hosts');
    const old = hosts.find((host) => host.name === 'Oldquay DNS')!;
    const { id, keyName, ...input } = old;
    expect([id, keyName]).toEqual([expect.any(String), world.lab.hosts[0]!.key!.name]);
    await api.call('PUT', `/api/hosts/${old.id}`, { ...input, key: null });
    const begun = await api.call<MoveView>('POST', '/api/moves', { domain: 'canoe-yard.example', scope: 'whole' });
    const partial = await surveyed(api, begun.id);
    expect(partial.coverage.grade).toBe('partial');
    expect(partial.coverage.reasons.join(' ')).toMatch(/questions were put to/);
    const owners = partial.sets.map((set) => `${set.owner} ${set.type}`);
    for (const set of ['canoe-yard.example. MX', 'www.canoe-yard.example. CNAME', '_sip._tcp.canoe-yard.example. SRV']) expect(owners).toContain(set);
    // Nothing common leads to it: it is not found, and a name that only leads to it is a hint.
    expect(owners).not.toContain('*.boats.canoe-yard.example. A');
    expect(partial.sets.every((set) => set.evidence !== '')).toBe(true);

    await api.call('PUT', `/api/hosts/${old.id}`, { ...input, key: world.lab.hosts[0]!.key });
    await api.call('POST', `/api/moves/${begun.id}/steps`, { step: 'survey', action: 'retry' });
    const again = await surveyed(api, begun.id, partial.id);
    expect(again.coverage.grade).not.toBe('partial');
    expect(again.sets.length).toBeGreaterThan(partial.sets.length);
    expect(again.hints).toEqual([]);
  });
});

function surveyed(api: Api, id: string, before?: string): Promise<NonNullable<MoveView['survey']>> {
  return until('the survey is taken', async () => {
    const { survey } = await api.call<MoveView>('GET', `/api/moves/${id}`);
    return survey && survey.id !== before ? survey : undefined;
  });
}
