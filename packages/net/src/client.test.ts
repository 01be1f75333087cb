import { createSocket, Socket as UdpSocket } from 'node:dgram';
import { AddressInfo, createServer, Server, Socket } from 'node:net';
import { Message, Name, TsigKey, decodeMessage, encodeMessage, parseRdata, query, readTsig, reply, signMessage } from '@wanderon/core';
import { DnsClient } from './client';
import { framed } from './framing';
import { hasher } from './hasher';
import { NetError } from './netError';
import { RouteTable } from './routes';
import { transferZone } from './transfer';

const SERVER = { address: '192.0.2.53' };
const ZONE = Name.parse('zone.example.');
const KEY: TsigKey = { name: Name.parse('our.key.'), algorithm: 'hmac-sha256', secret: new Uint8Array(32).fill(3) };
const NOW = 1_800_000_000;
const record = (owner: string, type: number, data: string) => ({ owner: Name.parse(owner, ZONE), type, cls: 1, ttl: 60, data: parseRdata(type, data, ZONE) });
const address = (request: Message, last: number): Message => reply(request, { answers: [record('www', 1, `192.0.2.${last}`)] });
const SOA = record('@', 6, 'ns1 host 7 1 2 3 4');

/** A server that does what a test tells it: octets to send back for what arrived. */
class Puppet {
  udp!: UdpSocket;
  tcp!: Server;
  readonly sockets = new Set<Socket>();
  readonly asked: { over: 'udp' | 'tcp'; request: Message }[] = [];
  onUdp: (request: Message, raw: Uint8Array) => Uint8Array[] = () => [];
  onTcp: (request: Message, raw: Uint8Array, socket: Socket) => Uint8Array[] = () => [];

  async open(): Promise<RouteTable> {
    this.udp = createSocket('udp4');
    this.udp.on('message', (raw, from) => {
      const request = decodeMessage(new Uint8Array(raw));
      this.asked.push({ over: 'udp', request });
      for (const answer of this.onUdp(request, new Uint8Array(raw))) this.udp.send(answer, from.port, from.address);
    });
    await new Promise<void>((resolve) => this.udp.bind(0, '127.0.0.1', resolve));
    this.tcp = createServer((socket) => {
      this.sockets.add(socket);
      socket.on('error', () => undefined);
      socket.on('data', (chunk: Buffer) => {
        const raw = new Uint8Array(chunk.subarray(2));
        const request = decodeMessage(raw);
        this.asked.push({ over: 'tcp', request });
        for (const answer of this.onTcp(request, raw, socket)) socket.write(answer);
      });
    });
    await new Promise<void>((resolve) => this.tcp.listen(0, '127.0.0.1', resolve));
    return new RouteTable([
      { address: SERVER.address, port: 53, transport: 'udp', toAddress: '127.0.0.1', toPort: this.udp.address().port },
      { address: SERVER.address, port: 53, transport: 'tcp', toAddress: '127.0.0.1', toPort: (this.tcp.address() as AddressInfo).port },
    ]);
  }

  close(): void {
    this.udp.close();
    for (const socket of this.sockets) socket.destroy();
    this.tcp.close();
  }
}

describe('the DNS client', () => {
  let puppet: Puppet;
  let client: DnsClient;
  beforeEach(async () => {
    puppet = new Puppet();
    client = new DnsClient(await puppet.open(), () => NOW);
  });
  afterEach(() => puppet.close());

  it.each([
    ['FORMERR', 1],
    ['NOTIMP', 4],
    ['SERVFAIL', 2],
  ])('asks without EDNS a server that answers %s to it (RFC 6891 §7), and goes on so', async (_name, rcode) => {
    puppet.onUdp = (request) => [encodeMessage(request.edns ? reply(request, { rcode, edns: undefined }) : address(request, 7))];
    for (let time = 0; time < 2; time++) expect((await client.ask(SERVER, Name.parse('www', ZONE), 1)).answers).toHaveLength(1);
    expect(puppet.asked.map((one) => one.request.edns !== undefined)).toEqual([true, false, false]);
  });

  it('asks without EDNS a server that says nothing to it, and never where signatures are asked for', async () => {
    puppet.onUdp = (request) => (request.edns && !request.edns.dnssecOk ? [] : [encodeMessage(address(request, 7))]);
    expect((await client.ask(SERVER, Name.parse('www', ZONE), 1, { timeout: 100 })).answers).toHaveLength(1);
    const signed = query(Name.parse('www', ZONE), 1, { edns: { udpSize: 1232, version: 0, dnssecOk: true, options: [] } });
    await client.exchange(SERVER, signed);
    expect(puppet.asked.map((one) => one.request.edns !== undefined)).toEqual([true, false, true]);
  });

  it.each([
    [4096, undefined],
    [9000, 'truncated'],
  ])('an answer of %i octets that TCP does not bring is asked for in pieces, and told as too long where that does not help', async (octets, kind) => {
    puppet.onUdp = (request) => [encodeMessage((request.edns?.udpSize ?? 512) < octets ? reply(request, { truncated: true }) : address(request, 7))];
    puppet.onTcp = (_request, _raw, socket) => (socket.destroy(), []);
    const asked = client.ask(SERVER, Name.parse('www', ZONE), 16, { timeout: 200 });
    if (kind === undefined) expect((await asked).answers).toHaveLength(1);
    else await expect(asked).rejects.toMatchObject({ kind });
  });

  it('keeps an error for an answer where the server knows EDNS', async () => {
    puppet.onUdp = (request) => [encodeMessage(reply(request, { rcode: 2, edns: request.edns }))];
    expect((await client.ask(SERVER, Name.parse('www', ZONE), 1)).rcode).toBe(2);
    expect(puppet.asked).toHaveLength(1);
  });

  const ask = (options = {}): Promise<Message> => client.ask(SERVER, Name.parse('www', ZONE), 1, { timeout: 300, ...options });
  const kindOf = async (asking: Promise<unknown>): Promise<string> =>
    asking.then(
      () => 'answered',
      (error: unknown) => (error instanceof NetError ? error.kind : String(error)),
    );

  it('passes over answers with another id, question, opcode or none of them, and takes the right one', async () => {
    puppet.onUdp = (request) => [
      encodeMessage({ ...address(request, 1), id: request.id ^ 1 }),
      encodeMessage({ ...address(request, 2), questions: [{ name: Name.parse('other', ZONE), type: 1, cls: 1 }] }),
      encodeMessage({ ...address(request, 3), questions: [{ name: request.questions[0]!.name, type: 28, cls: 1 }] }),
      encodeMessage({ ...address(request, 4), opcode: 4 }),
      encodeMessage({ ...address(request, 5), response: false }),
      encodeMessage({ ...address(request, 6), questions: [] }),
      encodeMessage(address(request, 9)),
    ];
    expect([...(await ask()).answers[0]!.data]).toEqual([192, 0, 2, 9]);
  });

  it("lets a packet too short to be anybody's fail nobody, where several wait", async () => {
    let come = 0;
    // Forty questions share a few sockets; what goes back to the last of them reaches all that wait on its socket.
    puppet.onUdp = (request) => (++come < 40 ? [] : [Uint8Array.of(1, 2, 3), encodeMessage(address(request, 1))]);
    const kinds = await Promise.all(Array.from({ length: 40 }, () => kindOf(ask({ timeout: 3000, tries: 1 }))));
    expect(kinds).toContain('answered');
    expect(kinds).not.toContain('malformed');
  });

  it('asks with an id of its own each time', async () => {
    puppet.onUdp = (request) => [encodeMessage(address(request, 1))];
    for (let i = 0; i < 20; i++) await ask();
    expect(new Set(puppet.asked.map(({ request }) => request.id)).size).toBeGreaterThan(15);
  });

  it('tries again where nothing comes, and gives up', async () => {
    let times = 0;
    puppet.onUdp = (request) => (++times === 1 ? [] : [encodeMessage(address(request, 1))]);
    expect(await kindOf(ask())).toBe('answered');
    puppet.onUdp = () => [];
    expect(await kindOf(ask({ tries: 2, timeout: 50 }))).toBe('timeout');
    expect(puppet.asked).toHaveLength(4);
    // Whoever counts what is sent has a say before it is sent again.
    expect(await kindOf(ask({ tries: 5, timeout: 50, mayRetry: () => false }))).toBe('timeout');
    expect(puppet.asked).toHaveLength(5);
  });

  it('asks nobody at an address that may not be reached, whatever way, save where a route leads', async () => {
    const routes = new RouteTable(
      [{ address: SERVER.address, port: 53, transport: 'udp', toAddress: '127.0.0.1', toPort: puppet.udp.address().port }],
      () => false,
    );
    const careful = new DnsClient(routes);
    puppet.onUdp = (request) => [encodeMessage(address(request, 1))];
    await careful.ask(SERVER, ZONE, 1);
    const before = puppet.asked.length;
    for (const over of ['udp', 'tcp', 'tls', 'https'] as const)
      await expect(careful.ask({ address: '127.0.0.1', port: puppet.udp.address().port }, ZONE, 1, { over })).rejects.toMatchObject({
        kind: 'refused',
        message: expect.stringMatching(/^127\.0\.0\.1 is not an address of the public internet/) as string,
      });
    expect(puppet.asked.length).toBe(before);
  });

  it('goes on over TCP where the answer was cut', async () => {
    puppet.onUdp = (request) => [encodeMessage({ ...reply(request), truncated: true })];
    puppet.onTcp = (request) => [framed(encodeMessage(address(request, 7)))];
    expect((await ask()).answers).toHaveLength(1);
    expect(puppet.asked.map(({ over }) => over)).toEqual(['udp', 'tcp']);
  });

  it('reads a TCP answer that comes in pieces', async () => {
    puppet.onTcp = (request, _raw, socket) => {
      const whole = framed(encodeMessage(address(request, 7)));
      socket.write(whole.subarray(0, 1));
      setImmediate(() => socket.write(whole.subarray(1, 9), () => setImmediate(() => socket.write(whole.subarray(9)))));
      return [];
    };
    expect((await ask({ over: 'tcp' })).answers).toHaveLength(1);
  });

  it('tells garbage, a cut connection, silence and cancelling apart', async () => {
    puppet.onUdp = () => [Uint8Array.from([1, 2, 3])];
    expect(await kindOf(ask({ tries: 1 }))).toBe('malformed');
    puppet.onTcp = (_request, _raw, socket) => (socket.end(Uint8Array.from([0, 50, 1])), []);
    expect(await kindOf(ask({ over: 'tcp', tries: 1 }))).toBe('cut');
    puppet.onTcp = (_request, _raw, socket) => (socket.end(), []);
    expect(await kindOf(ask({ over: 'tcp', tries: 1 }))).toBe('cut');
    puppet.onTcp = () => [];
    expect(await kindOf(ask({ over: 'tcp', tries: 1, timeout: 60 }))).toBe('timeout');
    puppet.onUdp = () => [];
    const control = new AbortController();
    const asking = kindOf(ask({ signal: control.signal, timeout: 5000 }));
    control.abort();
    expect(await asking).toBe('cancelled');
    expect(await kindOf(new DnsClient(new RouteTable()).ask({ address: '127.0.0.1', port: 1 }, ZONE, 1, { over: 'tcp', tries: 1 }))).toBe('unreachable');
  });

  describe('with a key', () => {
    const signed = (message: Message, priorMac: Uint8Array, key = KEY, time = NOW, error = 0): Uint8Array =>
      signMessage(encodeMessage(message), key, time, hasher, { priorMac, error }).message;
    const macOf = (request: Message): Uint8Array => readTsig(request)!.mac;

    it('takes an answer that is signed with it, over what was asked', async () => {
      puppet.onUdp = (request) => [signed(address(request, 1), macOf(request))];
      expect(await kindOf(ask({ key: KEY }))).toBe('answered');
    });

    it.each<[string, string, (request: Message) => Uint8Array]>([
      ['signature', 'unsigned', (request) => encodeMessage(address(request, 1))],
      ['signature', 'signed over another question', (request) => signed(address(request, 1), new Uint8Array(32))],
      ['signature', 'signed with another secret', (request) => signed(address(request, 1), macOf(request), { ...KEY, secret: new Uint8Array(32) })],
      ['key', 'signed with another key', (request) => signed(address(request, 1), macOf(request), { ...KEY, name: Name.parse('other.key.') })],
      ['time', 'signed an hour ago', (request) => signed(address(request, 1), macOf(request), KEY, NOW - 3600)],
      ['key', 'a refusal of the key', (request) => signed(reply(request, { rcode: 9 }), macOf(request), KEY, NOW, 17)],
      ['signature', 'a refusal of the signature', (request) => signed(reply(request, { rcode: 9 }), macOf(request), KEY, NOW, 16)],
      ['time', 'a refusal of the time', (request) => signed(reply(request, { rcode: 9 }), macOf(request), KEY, NOW, 18)],
      ['refused', 'an unsigned refusal', (request) => encodeMessage(reply(request, { rcode: 5 }))],
    ])('says %s of an answer that is %s', async (kind, _what, answer) => {
      puppet.onUdp = (request) => [answer(request)];
      expect(await kindOf(ask({ key: KEY, tries: 1 }))).toBe(kind);
    });

    it('notices one changed octet anywhere in the answer', async () => {
      let at = 0;
      puppet.onUdp = (request) => {
        const answer = signed(address(request, 1), macOf(request)).slice();
        answer[at]! ^= 0x01;
        return [answer];
      };
      // Past the id, which would make it an answer to nothing, and before the signature's own fields.
      for (at = 12; at < 60; at += 3) expect(await kindOf(ask({ key: KEY, tries: 1, timeout: 40 }))).not.toBe('answered');
    });
  });

  describe('transfers', () => {
    const transfer = (options = {}): Promise<{ records: readonly unknown[] }> => transferZone(client, SERVER, ZONE, { timeout: 300, ...options });
    const stream = (...parts: ((request: Message) => Message)[]): void => {
      puppet.onTcp = (request) => parts.map((part) => framed(encodeMessage(part(request))));
    };

    it('come whole over several messages', async () => {
      stream(
        (request) => reply(request, { answers: [SOA, record('a', 1, '192.0.2.1')] }),
        (request) => reply(request, { questions: [], answers: [record('b', 1, '192.0.2.2'), SOA] }),
      );
      expect((await transfer()).records).toHaveLength(3);
    });

    it.each<[string, string, ((request: Message) => Message)[]]>([
      ['refused', 'refused', [(request) => reply(request, { rcode: 5 })]],
      ['malformed', 'without SOA first', [(request) => reply(request, { answers: [record('a', 1, '192.0.2.1')] })]],
      [
        'malformed',
        'with data from outside the zone',
        [(request) => reply(request, { answers: [SOA, { ...record('a', 1, '192.0.2.1'), owner: Name.parse('a.other.example.') }, SOA] })],
      ],
      ['malformed', 'with another SOA at its end', [(request) => reply(request, { answers: [SOA, record('@', 6, 'ns1 host 8 1 2 3 4')] })]],
      ['refused', 'empty', [(request) => reply(request)]],
    ])('say %s where they are %s', async (kind, _what, parts) => {
      stream(...parts);
      expect(await kindOf(transfer())).toBe(kind);
    });

    it('stop at a limit, and where the connection is cut', async () => {
      stream((request) => reply(request, { answers: [SOA, ...Array.from({ length: 20 }, (_, i) => record(`n${i}`, 1, '192.0.2.1'))] }));
      expect(await kindOf(transfer({ limit: 10 }))).toBe('limit');
      puppet.onTcp = (request, _raw, socket) => (socket.end(framed(encodeMessage(reply(request, { answers: [SOA, record('a', 1, '192.0.2.1')] })))), []);
      expect(await kindOf(transfer())).toBe('cut');
    });

    it('end where they take too long though nothing is silent, told as that; and where too many octets come', async () => {
      const soa = (request: Message): Uint8Array => framed(encodeMessage(reply(request, { answers: [SOA] })));
      const filler = (request: Message, n: number): Uint8Array => framed(encodeMessage(reply(request, { answers: [record(`n${n}`, 1, '192.0.2.9')] })));
      puppet.onTcp = (request, _raw, socket) => {
        let n = 0;
        const timer = setInterval(() => (socket.destroyed ? clearInterval(timer) : socket.write(filler(request, n++))), 5);
        return [soa(request)];
      };
      await expect(transferZone(client, SERVER, ZONE, { longest: 150 })).rejects.toMatchObject({
        kind: 'timeout',
        message: expect.stringMatching(/took longer than/) as string,
      });
      const stopped = new AbortController();
      setTimeout(() => stopped.abort(), 50);
      await expect(transferZone(client, SERVER, ZONE, { longest: 60_000, signal: stopped.signal })).rejects.toMatchObject({ kind: 'cancelled' });
      await expect(transferZone(client, SERVER, ZONE, { octets: 2000 })).rejects.toMatchObject({ kind: 'limit' });
      // Beside each other there is room for so much: the largest goes, and a small one gets through.
      const narrow = new DnsClient(client.routes, undefined, { inStreams: 3000 });
      let small = true;
      const endless = puppet.onTcp;
      puppet.onTcp = (request, raw, socket) => {
        if (small) return endless(request, raw, socket);
        return [framed(encodeMessage(reply(request, { answers: [SOA, record('a', 1, '192.0.2.1'), SOA] })))];
      };
      const before = puppet.asked.length;
      const first = transferZone(narrow, SERVER, ZONE).catch((error: unknown) => error);
      while (puppet.asked.length === before) await new Promise((resolve) => setImmediate(resolve));
      small = false;
      expect((await transferZone(narrow, SERVER, ZONE)).records).toHaveLength(2);
      expect(await first).toMatchObject({ kind: 'limit', message: expect.stringMatching(/more than there is room for/) as string });
      // One answer that comes octet by octet.
      puppet.onTcp = (request, _raw, socket) => {
        const octets = [...filler(request, 0)];
        const timer = setInterval(() => (socket.destroyed || octets.length < 5 ? clearInterval(timer) : socket.write(Uint8Array.of(octets.shift()!))), 20);
        return [];
      };
      await expect(client.ask(SERVER, ZONE, 1, { over: 'tcp', timeout: 60, tries: 1 })).rejects.toMatchObject({
        kind: 'timeout',
        message: expect.stringMatching(/took too long for one answer/) as string,
      });
    });

    it('check the signatures of a stream in which not every message is signed', async () => {
      let spoil = false;
      puppet.onTcp = (request) => {
        const first = signMessage(encodeMessage(reply(request, { answers: [SOA, record('a', 1, '192.0.2.1')] })), KEY, NOW, hasher, {
          priorMac: readTsig(request)!.mac,
        });
        const between = encodeMessage(reply(request, { answers: [record('b', 1, spoil ? '192.0.2.66' : '192.0.2.2')] }));
        const last = encodeMessage(reply(request, { answers: [SOA] }));
        // RFC 8945 §5.3.1: the digest runs over the MAC before, the unsigned messages since, and the last with its timers only.
        const honest = encodeMessage(reply(request, { answers: [record('b', 1, '192.0.2.2')] }));
        const prior = Uint8Array.from([0, first.mac.length, ...first.mac, ...honest]);
        const covered = Uint8Array.from([...prior, ...last, ...timers()]);
        return [framed(first.message), framed(between), framed(withMac(last, hasher.hmac(KEY.algorithm, KEY.secret, covered)))];
      };
      expect((await transfer({ key: KEY })).records).toHaveLength(3);
      spoil = true;
      expect(await kindOf(transfer({ key: KEY }))).toBe('signature');
    });
  });
});

function timers(): number[] {
  return [0, 0, (NOW >>> 24) & 255, (NOW >>> 16) & 255, (NOW >>> 8) & 255, NOW & 255, 1, 44];
}

/** A TSIG record written by hand, so that the test does not lean on the code under test. */
function withMac(encoded: Uint8Array, mac: Uint8Array): Uint8Array {
  const name = (text: string): number[] => [...text.split('.').flatMap((label) => [label.length, ...Buffer.from(label)]), 0];
  const data = [...name('hmac-sha256'), ...timers(), 0, mac.length, ...mac, encoded[0]!, encoded[1]!, 0, 0, 0, 0];
  const out = Uint8Array.from([...encoded, ...name('our.key'), 0, 250, 0, 255, 0, 0, 0, 0, data.length >> 8, data.length & 255, ...data]);
  out[11]! += 1;
  return out;
}

describe('a query', () => {
  it('offers EDNS with a size that survives most paths', () => expect(query(ZONE, 1).edns).toMatchObject({ udpSize: 1232, version: 0 }));
});
