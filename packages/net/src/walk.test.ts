import { AddressInfo } from 'node:net';
import { Socket, createSocket } from 'node:dgram';
import { Message, Name, decodeMessage, encodeMessage, parseRdata, reply, typeCode } from '@wanderon/core';
import { DnsClient } from './client';
import { RouteTable } from './routes';
import { Walker } from './walk';

const record = (owner: string, type: string, data: string, ttl = 60) => ({
  owner: Name.parse(owner),
  type: typeCode(type)!,
  cls: 1,
  ttl,
  data: parseRdata(typeCode(type)!, data),
});

/** Servers at documentation addresses that answer as a test tells them. */
class Servers {
  readonly routes = new RouteTable();
  readonly asked: string[] = [];
  private readonly sockets: Socket[] = [];

  async add(address: string, answer: (request: Message) => Message): Promise<void> {
    const socket = createSocket('udp4');
    socket.on('message', (raw, from) => {
      const request = decodeMessage(new Uint8Array(raw));
      this.asked.push(`${address} ${request.questions[0]!.name.toString()}`);
      socket.send(encodeMessage(answer(request)), from.port, from.address);
    });
    await new Promise<void>((resolve) => socket.bind(0, '127.0.0.1', resolve));
    this.sockets.push(socket);
    this.routes.add({ address, port: 53, transport: 'udp', toAddress: '127.0.0.1', toPort: (socket.address() as AddressInfo).port });
  }

  close(): void {
    for (const socket of this.sockets) socket.close();
  }
}

const ROOT = '192.0.2.1';
const PARENT = '192.0.2.2';
const LAME = '192.0.2.3';
const LIAR = '192.0.2.66';
const ZONE = Name.parse('heron.example.');

describe('the walk from the root', () => {
  let servers: Servers;
  beforeEach(() => (servers = new Servers()));
  afterEach(() => servers.close());
  const walk = () => new Walker(new DnsClient(servers.routes), [{ name: 'root.test.', addresses: [ROOT] }], { timeout: 300, tries: 1 }).delegation(ZONE);

  const referral = (request: Message, zone: string, ...glue: [string, string][]): Message =>
    reply(request, { authorities: glue.map(([name]) => record(zone, 'NS', name)), additionals: glue.map(([name, address]) => record(name, 'A', address)) });

  it('finds the delegation with its TTLs, glue and DS, and passes over a server that is lame for the parent', async () => {
    await servers.add(ROOT, (request) => referral(request, 'example.', ['lame.nic.example.', LAME], ['ns.nic.example.', PARENT]));
    await servers.add(LAME, (request) => reply(request, { authorities: [record('.', 'NS', 'root.test.')] }));
    await servers.add(PARENT, (request) =>
      request.questions[0]!.type === typeCode('DS')
        ? reply(request, { authoritative: true, answers: [record('heron.example.', 'DS', `1 13 2 ${'AA'.repeat(32)}`, 900)] })
        : reply(request, {
            authorities: [record('heron.example.', 'NS', 'ns1.heron.example.', 7200)],
            additionals: [record('ns1.heron.example.', 'A', '203.0.113.9', 3600)],
          }),
    );
    const { parent, referrals } = await walk();
    expect(parent).toBe('example.');
    expect(referrals.find((one) => one.address === PARENT)).toMatchObject({
      nameservers: ['ns1.heron.example.'],
      ttl: 7200,
      glue: [{ name: 'ns1.heron.example.', address: '203.0.113.9', ttl: 3600 }],
      ds: [`1 13 2 ${'AA'.repeat(32)}`],
      dsTtl: 900,
    });
  });

  it('takes no server of the zone from glue for a name that is not below its cut', async () => {
    await servers.add(ROOT, (request) => referral(request, 'example.', ['ns.nic.example.', PARENT]));
    await servers.add(PARENT, (request) =>
      reply(request, {
        authorities: ['ns1.heron.example.', 'ns.else.test.', 'ns1.plover.example.'].map((name) => record('heron.example.', 'NS', name)),
        additionals: [
          ['ns1.heron.example.', '203.0.113.9'],
          ['ns.else.test.', LIAR],
          ['ns1.plover.example.', LIAR],
        ].map(([name, at]) => record(name!, 'A', at!)),
      }),
    );
    const [said] = (await walk()).referrals;
    expect(said!.nameservers).toHaveLength(3);
    expect(said!.glue.map((one) => one.address)).toEqual(['203.0.113.9']);
  });

  it('does not believe an address for a name that the answering zone has no say in', async () => {
    // The server of example. names a server under test. and gives an address for it; only test. can do that.
    await servers.add(ROOT, (request) =>
      request.questions[0]!.name.isAtOrBelow(Name.parse('test.'))
        ? reply(request, { authoritative: true, answers: [record('ns.other.test.', 'A', '203.0.113.1')] })
        : referral(request, 'example.', ['ns.nic.example.', PARENT]),
    );
    await servers.add(PARENT, (request) => referral(request, 'deep.example.', ['ns.other.test.', LIAR]));
    await servers.add(LIAR, (request) => reply(request, { authoritative: true }));
    const walker = new Walker(new DnsClient(servers.routes), [{ name: 'root.test.', addresses: [ROOT] }], { timeout: 200, tries: 1 });
    await walker.delegation(Name.parse('x.deep.example.')).catch(() => undefined);
    expect(servers.asked.filter((line) => line.startsWith(LIAR))).toEqual([]);
  });

  it('ends where referrals lead in a circle, and asks few questions of a referral to thousands', async () => {
    await servers.add(ROOT, (request) => referral(request, 'example.', ['ns.nic.example.', PARENT]));
    await servers.add(PARENT, (request) =>
      reply(request, { authorities: Array.from({ length: 500 }, (_, i) => record('deep.example.', 'NS', `ns${i}.circle.test.`)).slice(0, 20) }),
    );
    const walker = new Walker(new DnsClient(servers.routes), [{ name: 'root.test.', addresses: [ROOT] }], { timeout: 200, tries: 1 });
    await expect(walker.delegation(Name.parse('a.deep.example.'))).rejects.toMatchObject({ name: 'NetError' });
    expect(servers.asked.length).toBeLessThan(2000);
  });

  it('follows three of the servers whose address a referral does not give, and asks no more than so much for one name and for all', async () => {
    const VICTIM = '192.0.2.99';
    await servers.add(ROOT, (request) =>
      referral(request, request.questions[0]!.name.toString().endsWith('victim.test.') ? 'victim.test.' : 'example.', ['ns.nic.test.', PARENT]),
    );
    // Each referral names twenty servers somewhere else, each of which leads to twenty others.
    let n = 0;
    const fan = (request: Message, zone: string): Message =>
      reply(request, { authorities: Array.from({ length: 20 }, () => record(zone, 'NS', `n${n++}.x${n}.victim.test.`)) });
    await servers.add(PARENT, (request) => {
      const { name } = request.questions[0]!;
      return fan(request, name.labels.length > 3 ? name.parent.toString() : name.toString());
    });
    await servers.add(VICTIM, (request) => reply(request, {}));
    const walker = new Walker(new DnsClient(servers.routes), [{ name: 'root.test.', addresses: [ROOT] }], { timeout: 300, tries: 1 });
    expect(await walker.addressesOf(Name.parse('ns1.a.hostile.example.'))).toEqual([]);
    expect(servers.asked.length).toBeLessThanOrEqual(60);
    expect([...walker.givenUp]).toEqual([Name.parse('ns1.a.hostile.example.').key]);
    for (let index = 0; index < 30; index++) await walker.addressesOf(Name.parse(`ns${index}.b${index}.hostile.example.`));
    expect(servers.asked.length).toBeLessThanOrEqual(300);
    expect(walker.givenUp.size).toBeGreaterThan(5);
    // What was not asked is not said to be silent.
    await expect(walker.delegation(Name.parse('other.example.'))).rejects.toMatchObject({ kind: 'limit' });
  });

  it('of one referral looks up no more than three servers without address', async () => {
    await servers.add(ROOT, (request) => {
      const name = request.questions[0]!.name.toString();
      return name.endsWith('hostile.example.')
        ? reply(request, { authorities: Array.from({ length: 20 }, (_, index) => record('hostile.example.', 'NS', `ns${index}.elsewhere.test.`)) })
        : reply(request, { authoritative: true });
    });
    const walker = new Walker(new DnsClient(servers.routes), [{ name: 'root.test.', addresses: [ROOT] }], { timeout: 300, tries: 1 });
    await walker.addressesOf(Name.parse('www.hostile.example.'));
    expect([...new Set(servers.asked.filter((line) => line.includes('elsewhere')))].sort()).toEqual(
      [0, 1, 2].map((index) => `${ROOT} ns${index}.elsewhere.test.`),
    );
  });
});
