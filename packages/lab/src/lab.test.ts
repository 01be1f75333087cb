import { request } from 'node:http';
import { Name, TYPE_CODES, groupRecords, parseRdata, printRdata, typeCode } from '@wanderon/core';
import { DnsClient, NetError, Walker, fetchBootstrap, rdapServiceFor, sendUpdates, transferZone } from '@wanderon/net';
import { Lab } from './lab';
import { LabResolver } from './resolver';
import { tsigKey } from './scenario/hosts';
import { RDAP } from './scenario/world';

const ZONE = Name.parse('canoe-yard.example.');
const OLD = { address: '198.51.100.11' };

describe('the lab', () => {
  let lab: Lab;
  let client: DnsClient;
  beforeEach(async () => {
    lab = await Lab.open({ rate: 0 });
    client = new DnsClient(lab.routes);
  });
  afterEach(() => lab.close());

  const key = () => tsigKey(lab.hosts[0]!)!;
  const ask = async (lookout: string, name: string, type: string): Promise<string> => {
    const answer = await client.ask({ address: lab.lookouts.find((one) => one.name === lookout)!.address }, Name.parse(name), typeCode(type)!, {
      recursive: true,
    });
    const record = answer.answers.find((one) => one.type === typeCode(type)!);
    return record ? `${printRdata(record.type, record.data)} ${record.ttl}` : `rcode ${answer.rcode}`;
  };

  it('delegates from root to host, and is walked from the hints', async () => {
    const delegation = await new Walker(client, lab.hints).delegation(ZONE);
    expect(delegation).toMatchObject({
      parent: 'example.',
      referrals: [{ server: 'ns1.nic.example.', ttl: 21_600, nameservers: ['ns1.oldquay.example.', 'ns2.oldquay.example.'] }, { server: 'ns2.nic.example.' }],
    });
    expect((await new Walker(client, lab.hints).delegation(Name.parse('nobody.example.'))).referrals.every((referral) => referral.denied)).toBe(true);
  });

  it('transfers by the right key only, and the refusals are told apart', async () => {
    expect((await transferZone(client, OLD, ZONE, { key: key() })).records.length).toBeGreaterThan(15);
    const refusal = async (asking: Promise<unknown>): Promise<string> =>
      asking.then(
        () => 'taken',
        (error: unknown) => (error instanceof NetError ? error.kind : String(error)),
      );
    expect(await refusal(transferZone(client, OLD, ZONE))).toBe('refused');
    expect(await refusal(transferZone(client, OLD, ZONE, { key: { ...key(), name: Name.parse('other.key.') } }))).toBe('key');
    expect(await refusal(transferZone(client, OLD, ZONE, { key: { ...key(), secret: new Uint8Array(32) } }))).toBe('signature');
    const late = new DnsClient(lab.routes, () => Math.floor(Date.now() / 1000) - 900);
    expect(await refusal(transferZone(late, OLD, ZONE, { key: key() }))).toBe('time');
    expect(await refusal(client.ask({ address: '192.0.2.250', port: 9 }, ZONE, 1, { timeout: 100, tries: 1 }))).toMatch(/timeout|unreachable/);
  });

  it('lets the second server of a host follow after its lag', async () => {
    const served = groupRecords((await transferZone(client, OLD, ZONE, { key: key() })).records);
    const a = served.find((set) => set.type === TYPE_CODES.A && set.owner.equals(ZONE))!;
    await sendUpdates(client, OLD, ZONE, [{ owner: a.owner, type: a.type, before: a, after: { ...a, ttl: 60 } }], key());
    const ttlAt = async (address: string): Promise<number> => (await client.ask({ address }, ZONE, TYPE_CODES.A)).answers[0]!.ttl;
    expect([await ttlAt('198.51.100.11'), await ttlAt('198.51.100.12')]).toEqual([60, 3600]);
    lab.clock.jump(299);
    expect(await ttlAt('198.51.100.12')).toBe(3600);
    lab.clock.jump(2);
    expect(await ttlAt('198.51.100.12')).toBe(60);
  });

  it('caches by the habits of each resolver', async () => {
    const names = lab.lookouts.map((lookout) => lookout.name);
    for (const name of names) expect(await ask(name, 'canoe-yard.example.', 'A')).toMatch(/^198\.51\.100\.80 (3600|1800)$/);
    expect(await ask('Dunlin', 'canoe-yard.example.', 'A')).toBe('198.51.100.80 1800');
    lab.clock.jump(600);
    expect(await ask('Gannet', 'canoe-yard.example.', 'A')).toBe('198.51.100.80 3000');
    const zone = lab.dnsHosts.get('oldquay')!.zones.get(ZONE.key)!;
    zone.put(ZONE, TYPE_CODES.A, 5, [parseRdata(TYPE_CODES.A, '203.0.113.80')]);
    lab.dnsHosts.get('oldquay')!.spread(zone);
    lab.clock.jump(1300);
    expect(await ask('Gannet', 'canoe-yard.example.', 'A')).toBe('198.51.100.80 1700');
    expect(await ask('Dunlin', 'canoe-yard.example.', 'A')).toBe('203.0.113.80 5');
    lab.clock.jump(1800);
    // The floor keeps a TTL of 5 for 15 minutes.
    expect(await ask('Plover', 'canoe-yard.example.', 'A')).toBe('203.0.113.80 900');
    expect(await ask('Gannet', 'canoe-yard.example.', 'A')).toBe('203.0.113.80 5');
  });

  it('keeps nothing for longer than its TTL from when it was asked for, however long that was on its way', async () => {
    const way = 7;
    class Slow extends DnsClient {
      override async ask(...asked: Parameters<DnsClient['ask']>): ReturnType<DnsClient['ask']> {
        const answer = await super.ask(...asked);
        lab.clock.jump(way);
        return answer;
      }
    }
    const chain = [
      { address: '192.0.2.98', habits: { follows: 'parent' } },
      { address: '192.0.2.99', habits: { follows: 'parent', forwardsTo: '192.0.2.98' } },
    ] as const;
    const resolvers = chain.map(({ address, habits }) => new LabResolver(address, address, habits, lab.hints, new Slow(lab.routes), lab.clock));
    try {
      for (const resolver of resolvers) await resolver.open(lab.routes);
      const left = async (address: string): Promise<number> =>
        (await client.ask({ address }, Name.parse('canoe-yard.example.'), TYPE_CODES.A, { recursive: true })).answers[0]!.ttl;
      expect(await left('192.0.2.98')).toBe(3600 - way);
      lab.clock.jump(0.5);
      expect(await left('192.0.2.98')).toBe(3600 - way - 1);
      expect(await left('192.0.2.99')).toBe(3600 - way - 1 - way);
    } finally {
      for (const resolver of resolvers) resolver.close();
    }
  });

  it('follows a delegation as parent- and child-preferring resolvers do', async () => {
    for (const name of ['Gannet', 'Curlew']) await ask(name, 'canoe-yard.example.', 'TXT');
    lab.addDomain('quillmere', 'canoe-yard.example.');
    lab.changeNameservers('canoe-yard.example.', ['ns1.quillmere.example', 'ns2.quillmere.example']);
    lab.clock.jump(14_401);
    // The child's NS set (4 h) has run out, the parent's referral (6 h) has not.
    expect(await ask('Curlew', 'canoe-yard.example.', 'MX')).toBe('rcode 0');
    expect(await ask('Gannet', 'canoe-yard.example.', 'MX')).toMatch(/mx1\.brinepost/);
    lab.clock.jump(7300);
    expect(await ask('Gannet', 'canoe-yard.example.', 'MX')).toMatch(/mx1\.brinepost/);
    lab.clock.jump(14_401);
    expect(await ask('Gannet', 'canoe-yard.example.', 'MX')).toBe('rcode 0');
  });

  it('takes no request that a page of another site makes', async () => {
    const { port, host } = new URL(lab.address);
    const post = (headers: Record<string, string>): Promise<number | undefined> =>
      new Promise((resolve, reject) => {
        const sent = request({ host: '127.0.0.1', port, path: '/clock', method: 'POST', headers }, (answer) => {
          answer.resume();
          resolve(answer.statusCode);
        });
        sent.on('error', reject).end('rate=7');
      });
    const before = lab.clock.state().rate;
    for (const headers of [
      { host, origin: 'http://elsewhere.example' },
      { host, origin: 'null' },
      { host: 'led-here.example', origin: 'http://led-here.example' },
    ])
      expect([headers, await post(headers)]).toEqual([headers, 403]);
    expect(lab.clock.state().rate).toBe(before);
    expect([await post({ host, origin: lab.address }), await post({ host })]).toEqual([200, 200]);
    expect(lab.clock.state().rate).toBe(7);
    lab.clock.setRate(before);
  });

  it('refuses nonsense at the registrar', () => {
    expect(() => lab.changeNameservers('canoe-yard.example.', ['ns1.quillmere.example'])).toThrow(RangeError);
    expect(() => lab.changeNameservers('not-ours.example.', ['a.example', 'b.example'])).toThrow(RangeError);
    expect(() => lab.changeNameservers('canoe-yard.example.', ['a..b', 'c.example'])).toThrow(/label is empty/);
  });
});

describe('the list of registration data services', () => {
  let lab: Lab;
  beforeAll(async () => {
    lab = await Lab.open({ rate: 0 });
  });
  afterAll(() => lab.close());

  const world = (ca: string | undefined) => ({ routes: lab.routes, resolve: () => Promise.resolve([RDAP.address]), ca });

  it('comes from where the lab says, in the form of the bootstrap registry, and leads to the service', async () => {
    const { registryList, ca } = lab.scenario();
    const list = await fetchBootstrap(world(ca), new URL(registryList!));
    expect(rdapServiceFor(list, 'canoe-yard.example')).toBe(`https://${RDAP.name}/`);
    expect(rdapServiceFor(list, 'canoe-yard.test')).toBeUndefined();
  });

  it('is not taken from a page that is none, nor from whom no authority vouches for', async () => {
    const at = world(lab.scenario().ca);
    await expect(fetchBootstrap(at, new URL(`https://${RDAP.name}/nothing`))).rejects.toThrow('answered with status 404');
    await expect(fetchBootstrap(at, new URL(`https://${RDAP.name}/domain/canoe-yard.example`))).rejects.toThrow('cannot be read');
    await expect(fetchBootstrap({ ...at, ca: undefined }, new URL(lab.scenario().registryList!))).rejects.toThrow('is not trusted');
  });
});
