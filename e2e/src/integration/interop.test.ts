import { Socket as UdpSocket, createSocket } from 'node:dgram';
import { AddressInfo, createServer, Socket } from 'node:net';
import { Name, RRset, ResourceRecord, TYPE_CODES, TsigKey, fromBase64, groupRecords, parseRdata, printZoneFile, changesBetween } from '@wanderon/core';
import { Lab } from '@wanderon/lab';
import { DnsClient, NetError, RouteTable, ZoneChanges, sendUpdates, transferChanges, transferZone } from '@wanderon/net';
import { until } from '../../../command/src/api';
import { KEY, RealServers, dig, nsupdate, transferredLines, loopback } from '../support/realServers';

const ZONE = Name.parse('heron-books.example.');
const TEXT = `$TTL 300
@ SOA ns1.oldhost.example. host.oldhost.example. 100 3600 600 86400 300
@ NS ns1.oldhost.example.
@ A 192.0.2.80
www CNAME @
@ MX 10 mail
mail A 192.0.2.25
@ TXT "v=spf1 mx -all" "and \\"more\\""
odd\\.label TXT "\\200\\000"
blob TYPE65400 \\# 6 00ff10203040
_sip._tcp SRV 1 2 5060 mail
@ CAA 0 issue "certs.example"
*.wild AAAA 2001:db8::44
`;
const BIND = loopback(11);
const KNOT = loopback(12);
const NSD = loopback(13);
const SECONDARIES = { bind: loopback(14), knot: loopback(15), nsd: loopback(16) } as const;
const key: TsigKey = { name: Name.parse(KEY.name), algorithm: KEY.algorithm, secret: fromBase64(KEY.secret) };

const isRoot = process.getuid?.() === 0;

(isRoot ? describe : describe.skip)('bind9, knot and nsd (port 53 on loopback, so as root)', () => {
  const servers = new RealServers();
  const client = new DnsClient();
  const many = `$TTL 60\n@ SOA ns1.other.example. h.other.example. 1 1 1 1 1\n@ NS ns1.other.example.\n$GENERATE 1-199998 n$ A 192.0.2.1\n`;

  beforeAll(async () => {
    await servers.bind(BIND, { 'heron-books.example.': TEXT, 'many.example.': many }, { keyed: true, encrypted: true });
    await servers.knot(KNOT, { 'heron-books.example.': TEXT, 'many.example.': expanded(199_998) });
    await servers.nsd(NSD, { 'heron-books.example.': TEXT, 'many.example.': expanded(199_998) });
  });
  afterAll(() => servers.close());

  const kindOf = (asking: Promise<unknown>): Promise<string> =>
    asking.then(
      () => 'done',
      (error: unknown) => (error instanceof NetError ? error.kind : String(error)),
    );
  const each = [
    ['bind9', BIND],
    ['knot', KNOT],
    ['nsd', NSD],
  ] as const;

  it.each(each)('%s transfers what its own client sees', async (_name, address) => {
    const { records } = await transferZone(client, { address }, ZONE, { key });
    const theirs = (await transferredLines(address, 'heron-books.example')).map((line) => line.replace(/^(\S+) (\d+) IN /, '$1 $2 '));
    const ours = printZoneFile(records)
      .split('\n')
      .filter(Boolean)
      .map((line) => line.replace(' IN ', ' '));
    expect(ours.sort()).toEqual([...new Set(theirs)].sort());
    expect(ours.length).toBe(12);
  });

  it.each(each)('%s: a transfer without key, an unknown key, a wrong secret and a wrong clock are told apart', async (_name, address) => {
    expect(await kindOf(transferZone(client, { address }, ZONE))).toBe('refused');
    expect(await kindOf(transferZone(client, { address }, ZONE, { key: { ...key, name: Name.parse('other.key.') } }))).toBe('key');
    expect(await kindOf(transferZone(client, { address }, ZONE, { key: { ...key, secret: new Uint8Array(32) } }))).toBe('signature');
    const late = new DnsClient(new RouteTable(), () => Math.floor(Date.now() / 1000) - 3600);
    await expect(transferZone(late, { address }, ZONE, { key })).rejects.toMatchObject({
      kind: 'time',
      // A server that reads a coarse clock may be a tick behind us.
      message: expect.stringMatching(/(3599|36\d\d) s away/) as string,
    });
  });

  it.each(each)('%s: a connection that is cut on the way is neither a zone nor a refusal', async (_name, address) => {
    const routes = new RouteTable();
    const cutting = await cutAfter(address, 20_000);
    routes.add({ address, port: 53, transport: 'tcp', toAddress: '127.0.0.1', toPort: (cutting.address() as AddressInfo).port });
    expect(await kindOf(transferZone(new DnsClient(routes), { address }, Name.parse('many.example.'), { key }))).toBe('cut');
    cutting.close();
  });

  it.each(each)('%s: 200,000 records come whole', async (_name, address) => {
    const { records } = await transferZone(client, { address }, Name.parse('many.example.'), { key });
    expect(records).toHaveLength(200_000);
    expect(new Set(records.filter((one) => one.type === TYPE_CODES.A).map((one) => one.owner.toString())).size).toBe(199_998);
  });

  it('bind9 answers over TLS and HTTPS, and its certificate is checked where we know its name', async () => {
    for (const over of ['udp', 'tcp', 'tls', 'https'] as const) {
      const answer = await client.ask({ address: BIND }, ZONE, TYPE_CODES.MX, { over });
      expect(answer.answers.map((one) => one.type)).toEqual([TYPE_CODES.MX]);
    }
    const { records } = await transferZone(client, { address: BIND, tlsName: 'ns1.oldhost.example' }, ZONE, { key });
    expect(records).toHaveLength(12);
    for (const over of ['tls', 'https'] as const)
      expect(await kindOf(client.ask({ address: BIND, tlsName: 'ns1.oldhost.example' }, ZONE, TYPE_CODES.MX, { over }))).toBe('certificate');
  });

  it.each([
    ['bind9', BIND],
    ['knot', KNOT],
  ])('%s takes updates guarded by what was seen, and gives the changes since a serial', async (_name, address) => {
    const before = await transferZone(client, { address }, ZONE, { key });
    const soa = before.records[0]!;
    expect(await transferChanges(client, { address }, ZONE, soa, { key })).toMatchObject({ kind: 'current', serial: 100 });

    const sets = groupRecords(before.records);
    const set = (owner: string, type: number, ...data: string[]): RRset => ({
      owner: Name.parse(owner, ZONE),
      type,
      ttl: 60,
      data: data.map((text) => parseRdata(type, text, ZONE)),
    });
    const long = Array.from({ length: 12 }, () => `"${'x'.repeat(200)}"`).join(' ');
    const added = Array.from({ length: 200 }, (_, i) => set(`t${i}`, TYPE_CODES.TXT, long));
    const wanted = [
      ...sets.filter((one) => !(one.type === TYPE_CODES.CNAME || (one.type === TYPE_CODES.A && one.owner.equals(ZONE)))),
      set('www', TYPE_CODES.A, '203.0.113.80'),
      set('@', TYPE_CODES.A, '203.0.113.80', '203.0.113.81'),
      ...added,
    ];
    const ownSoa = (one: RRset): boolean => one.type === TYPE_CODES.SOA;
    const changes = changesBetween(sets, wanted, ownSoa).filter((change) => change.type !== TYPE_CODES.SOA);
    // Half a megabyte does not fit into one message.
    expect(await sendUpdates(client, { address }, ZONE, changes, key)).toBeGreaterThan(8);
    const after = await transferZone(client, { address }, ZONE, { key });
    expect(changesBetween(groupRecords(after.records), wanted, ownSoa).filter((change) => change.type !== TYPE_CODES.SOA)).toEqual([]);

    // Steps that are longer than the zone a server may send as the zone; a small one comes as it is.
    const whole = await transferChanges(client, { address }, ZONE, soa, { key });
    expect(whole.kind === 'whole' ? printed(whole.records) : applied(before.records, whole)).toEqual(
      whole.kind === 'whole' ? printed(after.records) : printed(after.records.slice(1)),
    );
    const www = set('www', TYPE_CODES.A, '203.0.113.80');
    const small = [{ owner: www.owner, type: www.type, before: www, after: { ...www, ttl: 30 } }];
    expect(await sendUpdates(client, { address }, ZONE, small, key)).toBe(1);
    const since = await transferChanges(client, { address }, ZONE, after.records[0]!, { key });
    expect(since.kind).toBe('steps');
    expect(applied(after.records, since)).toEqual(printed((await transferZone(client, { address }, ZONE, { key })).records.slice(1)));

    // The same again is refused: the sets are no longer as they were seen.
    expect(await kindOf(sendUpdates(client, { address }, ZONE, changes, key))).toBe('refused');
    await expect(sendUpdates(client, { address }, ZONE, changes, { ...key, secret: new Uint8Array(32) })).rejects.toMatchObject({ kind: 'signature' });
  });

  it('nsd says that it takes no updates', async () => {
    const change = { owner: ZONE, type: TYPE_CODES.TXT, before: undefined, after: { owner: ZONE, type: TYPE_CODES.TXT, ttl: 60, data: [parseRdata(16, 'x')] } };
    expect(await kindOf(sendUpdates(client, { address: NSD }, ZONE, [change], key))).toBe('refused');
  });

  describe('and our own server', () => {
    let lab: Lab;
    let port: number;
    let theirKey: { name: string; algorithm: TsigKey['algorithm']; secret: string };
    let labKey: TsigKey;
    let relay: UdpSocket;
    beforeAll(async () => {
      // UDP and TCP under one number: that of a lab's TCP may be somebody else's for UDP, and another lab has another.
      for (let tries = 0; ; tries++) {
        lab = await Lab.open({ rate: 0 });
        try {
          relay = await relayUdp(portOf('tcp'), portOf('udp'));
          break;
        } catch (error) {
          lab.close();
          if (tries > 10) throw error;
        }
      }
      port = portOf('tcp');
      theirKey = lab.hosts[0]!.key!;
      labKey = { name: Name.parse(theirKey.name), algorithm: theirKey.algorithm, secret: fromBase64(theirKey.secret) };
    });
    const portOf = (transport: string): number => lab.routes.list().find((route) => route.address === '198.51.100.11' && route.transport === transport)!.toPort;
    afterAll(() => {
      relay.close();
      lab.close();
    });

    it.each(['bind', 'knot', 'nsd'] as const)('%s fetches a zone from it with the key, record for record', async (kind) => {
      const zone = Name.parse('gull-radio.example.');
      const address = SECONDARIES[kind];
      await servers.secondary(kind, address, 'gull-radio.example.', port, theirKey);
      await until(`${kind} has the zone`, async () => /SOA/.test((await dig(address, ['gull-radio.example', 'SOA', '+noall', '+answer'])).stdout));
      const ours = await transferZone(client, { address: '127.0.0.1', port }, zone, { key: labKey });
      const theirs = await transferZone(client, { address }, zone);
      expect(printed(theirs.records)).toEqual(printed(ours.records));
      expect(ours.records.length).toBeGreaterThan(10);
    });

    it("takes updates from Debian's own client", async () => {
      const zone = Name.parse('gull-radio.example.');
      const keyLine = `key ${theirKey.algorithm}:${theirKey.name} ${theirKey.secret}`;
      await nsupdate(servers.folder, '127.0.0.1', [keyLine, 'zone gull-radio.example.', 'update add fresh.gull-radio.example. 60 TXT "a b"'], port);
      const { records } = await transferZone(client, { address: '127.0.0.1', port }, zone, { key: labKey });
      expect(printed(records)).toContain('fresh.gull-radio.example. 60 IN TXT "a b"');
    });
  });
});

/** Not every server reads $GENERATE. */
function expanded(count: number): string {
  const lines = ['$TTL 60', '@ SOA ns1.other.example. h.other.example. 1 1 1 1 1', '@ NS ns1.other.example.'];
  for (let i = 1; i <= count; i++) lines.push(`n${i} A 192.0.2.1`);
  return lines.join('\n') + '\n';
}

function printed(records: Iterable<ResourceRecord>): string[] {
  return printZoneFile(records).split('\n').filter(Boolean).sort();
}

/** The zone without its SOA after the steps. */
function applied(records: readonly ResourceRecord[], changes: ZoneChanges): string[] {
  const zone = new Set(printed(records.slice(1)));
  for (const { deleted, added } of changes.kind === 'steps' ? changes.steps : []) {
    for (const line of printed(deleted)) expect(zone.delete(line)).toBe(true);
    for (const line of printed(added)) zone.add(line);
  }
  return [...zone].sort();
}

/** Passes packets for a port on to another: servers expect UDP and TCP under one number. */
function relayUdp(port: number, to: number): Promise<UdpSocket> {
  return new Promise((resolve, reject) => {
    const outer = createSocket('udp4');
    outer.once('error', reject);
    outer.on('message', (raw, from) => {
      const inner = createSocket('udp4');
      inner.once('message', (answer) => {
        outer.send(answer, from.port, from.address);
        inner.close();
      });
      inner.send(raw, to, '127.0.0.1');
    });
    outer.bind(port, '127.0.0.1', () => resolve(outer));
  });
}

/** A way to a server that passes on so many octets of its answers and then hangs up. */
function cutAfter(address: string, octets: number): Promise<ReturnType<typeof createServer>> {
  return new Promise((resolve) => {
    const server = createServer((inner) => {
      const outer = new Socket();
      let left = octets;
      inner.on('error', () => undefined);
      outer.on('error', () => undefined);
      outer.connect(53, address);
      inner.pipe(outer);
      outer.on('data', (chunk: Buffer) => {
        inner.write(chunk.subarray(0, left));
        left -= chunk.length;
        if (left > 0) return;
        inner.end();
        outer.destroy();
      });
    });
    server.listen(0, '127.0.0.1', () => resolve(server));
  });
}
