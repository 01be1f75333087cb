import { Acted, LedgerView, MoveSurvey, MoveView, WatchView, WebsiteLookView } from '@wanderon/contract';
import {
  Exploration,
  Name,
  RRset,
  TYPE_CODES,
  TsigKey,
  fromBase64,
  groupRecords,
  printZoneFile,
  readText,
  recordsOf,
  rrsetToText,
  takenSets,
} from '@wanderon/core';
import { DnsClient, exploreZone, transferZone, walkZone } from '@wanderon/net';
import { Api, until } from '../../../command/src/api';
import { KEY, RealServers, loopback } from '../support/realServers';
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

const RANGE = Name.parse('2.0.192.in-addr.arpa.');
/** Names of addresses, an alias into a smaller range that is a zone of its own, and one that is in nobody's range. */
const NAMED = `7 PTR mill.marsh-ferry.example.
255 PTR post-room.marsh-ferry.example.
65 CNAME 65.64-127
64-127 NS ns.elsewhere.example.
office TXT "no address has this name"
`;

const SIGNED = loopback(21);
const NSEC3 = loopback(22);
const BIND = loopback(23);
const CLOSED = loopback(24);
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
    await servers.nsd(CLOSED, { 'marsh-ferry.example.': HEAD + ODD, [RANGE.toString()]: HEAD + NAMED });
  });
  afterAll(() => servers.close());

  const whole = async (address: string): Promise<string[]> => lines(groupRecords((await transferZone(client, { address }, ZONE, { key })).records));

  it.each([
    ['knot, 5,000 names', SIGNED, 5000],
    ['bind9', BIND, 10],
  ])('%s: walks a zone signed with NSEC, and finds what a transfer has', async (_name, address, least) => {
    // bind signs in the background and notes in the zone how far it is: the zone is at rest where it is the same before and after.
    const [walked, there] = await until('the zone is signed, and at rest', async () => {
      const before = await whole(address);
      const one = await walkZone(client, { address }, ZONE, { inFlight: 32 });
      const after = await whole(address);
      return one.names > 0 && before.join('\n') === after.join('\n') ? ([one, after] as const) : undefined;
    });
    expect(walked.problems).toEqual([]);
    expect(walked.whole).toBe(true);
    expect(walked.names).toBeGreaterThan(least);
    expect(lines(walked.sets)).toEqual(there);
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
    expect(remarks.join(' ')).toMatch(/\*\.marsh-ferry\.example answers for every name/);
    expect(asked).toBeLessThan(6000);
    expect(sets.every(({ set }) => set.type !== TYPE_CODES.NSEC)).toBe(true);
  });

  it('nsd: finds by questions every address of a range that has a name, and what an alias leads to', async () => {
    const exploration = new Exploration(RANGE, () => 'nobody-has-this-label');
    await exploreZone(client, { address: CLOSED }, exploration);
    const found = lines(exploration.report().sets.map(({ set }) => set));
    const there = lines(groupRecords((await transferZone(client, { address: CLOSED }, RANGE, { key })).records));
    expect(found).toEqual(there.filter((line) => !line.startsWith('office.')));
    expect(exploration.report().asked).toBeLessThan(1000);
  });
});

describe('a survey of a domain whose host gives no transfer', () => {
  let world: World;
  beforeAll(async () => (world = await openWorld({}, { WANDERON_QUESTIONS_PER_SECOND: '100000' })));
  afterAll(() => world.close());

  it('is partial with its reasons, goes on to the plan, and is whole once there is a key', async () => {
    const { api } = world;
    const { hosts } = await api.call<{ hosts: { id: string; name: string; keyName: string | null }[] }>('GET', '/api/hosts');
    const old = hosts.find((host) => host.name === 'Oldquay DNS')!;
    const { id, keyName, ...input } = old;
    expect([id, keyName]).toEqual([expect.any(String), world.lab.hosts[0]!.key!.name]);
    await api.call('PUT', `/api/hosts/${old.id}`, { ...input, key: null });
    const begun = await beginning(api, 'canoe-yard.example');
    const partial = await surveyed(api, begun.id);
    expect(partial.coverage.grade).toBe('partial');
    expect(partial.coverage.reasons.join(' ')).toMatch(/questions were put to/);
    const owners = partial.sets.map((set) => `${set.owner} ${set.type}`);
    for (const set of ['canoe-yard.example. MX', 'www.canoe-yard.example. CNAME', '_sip._tcp.canoe-yard.example. SRV']) expect(owners).toContain(set);
    // Nothing common leads to it: it is not found, and a name that only leads to it is a hint.
    expect(owners).not.toContain('*.boats.canoe-yard.example. A');
    expect(partial.sets.every((set) => set.evidence.some((one) => one.because !== null))).toBe(true);

    await api.call('PUT', `/api/hosts/${old.id}`, { ...input, key: world.lab.hosts[0]!.key });
    await api.call('POST', `${legOf(begun)}/ways`, { step: 'survey', act: 'retry', subject: 'survey' });
    const again = await surveyed(api, begun.id, partial.id);
    expect(again.coverage.grade).not.toBe('partial');
    expect(again.sets.length).toBeGreaterThan(partial.sets.length);
    expect(again.hints).toEqual([]);
  });
});

describe('surveys of domains at hosts of different habits', () => {
  let world: World;
  beforeAll(async () => (world = await openWorld({}, { WANDERON_QUESTIONS_PER_SECOND: '100000' })));
  afterAll(() => world.close());
  const begin = async (domain: string): Promise<MoveSurvey> =>
    surveyed(world.api, (await world.api.call<MoveView>('POST', '/api/moves', { domain, scope: 'whole' })).id);
  const codes = (survey: MoveSurvey): string[] => survey.findings.map((finding) => finding.code).sort();

  it('says of a domain in order who its registrar is, which panel is live, and what its records end at', async () => {
    const survey = await begin('lighthouse-museum.example');
    expect(survey.coverage.grade).toBe('whole');
    expect(survey.registration).toMatchObject({ kind: 'found', registration: { registrar: 'Harbourlight Names', service: 'rdap.nic.example' } });
    expect(codes(survey)).toEqual(['live-panel']);
    expect(survey.findings[0]!.text).toBe('Records typed at Oldquay DNS take effect.');
    const mx = survey.sets.find((set) => set.type === 'MX')!;
    expect(mx.evidence.map((one) => [one.kind, one.server])).toEqual([
      ['transfer', 'ns1.oldquay.example.'],
      ['transfer', 'ns2.oldquay.example.'],
    ]);
    expect(survey.ends).toContainEqual({ target: 'mx1.brinepost.example.', addresses: ['198.51.100.25'] });
    const pages = new Map(survey.pages.map((look) => [look.start, look]));
    expect([...pages.keys()].sort()).toEqual(
      ['lighthouse-museum.example/', 'www.lighthouse-museum.example/'].flatMap((page) => [`http://${page}`, `https://${page}`]).sort(),
    );
    const front = pages.get('http://lighthouse-museum.example/')!;
    expect(front.hops.map((hop) => [hop.url, hop.status])).toEqual([
      ['http://lighthouse-museum.example/', 301],
      ['https://www.lighthouse-museum.example/', 200],
    ]);
    expect([front.keepsPath, front.page?.title]).toEqual([true, 'www.lighthouse-museum.example']);
    expect(front.hops[1]!.certificate).toMatchObject({
      names: ['lighthouse-museum.example', '*.lighthouse-museum.example'],
      issuer: 'Lab Authority',
      problem: null,
    });
  });

  it('finds a closed zone by questions, with what hurts later: a status, an expiry, a nameserver left over, ties to certificate and policy', async () => {
    const survey = await begin('seed-library.example');
    expect(survey.coverage.grade).toBe('partial');
    expect(codes(survey)).toEqual(['expires', 'lame', 'leftover-at-parent', 'live-panel', 'status']);
    expect(survey.hints.map((hint) => hint.owner)).toContain('archive.seed-library.example.');
    expect(survey.ties.map((tie) => tie.code).sort()).toEqual(['certificate', 'policy host']);
    expect(survey.sets.map((set) => set.owner)).not.toContain('unheard-of.seed-library.example.');
    // Its policy for mail is a page of the old web host's, and is read as senders read it.
    expect(survey.outside!.mtaSts).toMatchObject({
      problem: null,
      text: expect.stringMatching(/^version: STSv1\s+mode: enforce\s+mx: \*\.brinepost/) as string,
    });
    // The name behind a hint is asked for at once, and a name that lies elsewhere is none.
    const { moves } = await world.api.call<{ moves: { id: string; leg: string; domain: string }[] }>('GET', '/api/moves');
    const { id, leg } = moves.find((move) => move.domain === 'seed-library.example')!;
    const hint = survey.hints.find((one) => one.owner === 'archive.seed-library.example.')!;
    const named = { owner: hint.owner, text: hint.text };
    await expect(world.api.call('POST', `/api/legs/${leg}/hints/name`, { ...named, name: 'archive.other.example.' })).rejects.toThrow(/outside the zone/);
    await world.api.call('POST', `/api/legs/${leg}/hints/name`, { ...named, name: 'deep.archive' });
    const again = await surveyed(world.api, id, survey.id);
    expect(again.sets.map((set) => `${set.owner} ${set.type}`)).toContain('deep.archive.seed-library.example. A');
    expect(again.hints.map((one) => one.owner)).not.toContain('archive.seed-library.example.');
  });

  it('tells a fronted value from a stored one, and asks for it before anything is planned with it', async () => {
    const survey = await begin('regatta-club.example');
    const of = (owner: string, type: string): (typeof survey.sets)[number] => survey.sets.find((set) => set.owner === owner && set.type === type)!;
    const apex = of('regatta-club.example.', 'A');
    expect(apex.fronted).toMatch(/an address of Brackenfold DNS's own front/);
    expect(apex.stored).toBeNull();
    expect(apex.varying).toMatch(/servers differ/);
    expect(of('stream.regatta-club.example.', 'A').varying).toMatch(/from one question to the next/);
    expect(of('*.regatta-club.example.', 'CNAME').fronted).toBeNull();
    const { moves } = await world.api.call<{ moves: { id: string; leg: string; domain: string }[] }>('GET', '/api/moves');
    const { leg } = moves.find((move) => move.domain === 'regatta-club.example')!;
    const { hosts } = await world.api.call<{ hosts: { id: string; name: string }[] }>('GET', '/api/hosts');
    const named = (name: string): string => hosts.find((host) => host.name === name)!.id;
    const to = { newDnsHost: named('Quillmere DNS'), newWebHost: named('Thornwick Web') };
    await world.api.call('PUT', `/api/legs/${leg}/hosts`, to);
    const planned = await world.api.call<LedgerView>('GET', `/api/legs/${leg}/ledger`);
    expect(planned.remarks.filter((remark) => remark.code === 'fronts-own').map((remark) => remark.owner)).toEqual(
      expect.arrayContaining(['regatta-club.example.']),
    );
    await expect(world.api.call('PUT', `/api/legs/${leg}/stored`, { owner: 'regatta-club.example.', type: 'A', data: '198.51.100.80' })).rejects.toThrow(
      /plan was made/,
    );
  });

  it('holds the website where the plan leads against how it was, before anything is switched', async () => {
    const { api } = world;
    const begun = await beginning(api, 'gull-radio.example');
    const { id } = begun;
    const leg = legOf(begun);
    await surveyed(api, id);
    await expect(api.call('POST', `${leg}/website`)).rejects.toThrow(/once the hosts are chosen/);
    const { hosts } = await api.call<{ hosts: { id: string; name: string }[] }>('GET', '/api/hosts');
    const named = (name: string): string => hosts.find((host) => host.name === name)!.id;
    const to = { newDnsHost: named('Quillmere DNS'), newWebHost: named('Thornwick Web') };
    await api.call('PUT', `${leg}/hosts`, to);
    const planned = await api.call<LedgerView>('GET', `${leg}/ledger`);
    const website = async (after: number): Promise<WebsiteLookView> => {
      await api.call('POST', `${leg}/website`);
      return until('the website is looked at', async () => {
        const seen = (await api.call<WatchView>('GET', `${leg}/watch`)).website;
        return seen && seen.lastSeen > after ? seen : undefined;
      });
    };
    const first = await website(0);
    const pages = ['http://gull-radio.example/', 'https://gull-radio.example/', 'http://www.gull-radio.example/', 'https://www.gull-radio.example/'];
    expect(first.changes).toEqual([
      { weight: 'broken', pages: pages.slice(0, 2), text: 'the redirect drops the path: every page leads to the front page' },
      { weight: 'otherwise', pages, text: 'the header strict-transport-security is gone, before max-age=31536000' },
    ]);
    const second = await website(first.lastSeen);
    expect([second.firstSeen, second.changes]).toEqual([first.firstSeen, first.changes]);
    // Nobody serves the site where this leads.
    for (const type of ['A', 'AAAA']) {
      const row = planned.rulings.find((ruling) => ruling.owner === 'gull-radio.example.' && ruling.type === type)!;
      await api.call('PUT', `${leg}/rulings/${row.id}`, type === 'A' ? { ruling: 'repoint', data: '127.0.0.9' } : { ruling: 'drop' });
    }
    const third = await website(second.lastSeen);
    expect(third.changes[0]).toMatchObject({
      weight: 'broken',
      pages: pages.slice(0, 2),
      text: expect.stringMatching(/does not answer: .*127\.0\.0\.9.*not an address of the public internet/),
    });
    const { events } = await api.call<{ events: { text: string }[] }>('GET', `/api/moves/${id}/events`);
    expect(events.filter(({ text }) => text.startsWith('Where the plan leads:'))).toHaveLength(2);
  });

  it('takes the stored value from the person, and from a file', async () => {
    const survey = await begin('regatta-club.example').catch(() => undefined);
    expect(survey).toBeUndefined(); // it is being moved already
    const { moves } = await world.api.call<{ moves: { id: string; leg: string; domain: string }[] }>('GET', '/api/moves');
    const before = moves.find((move) => move.domain === 'regatta-club.example')!;
    await world.api.call('DELETE', `/api/moves/${before.id}`);
    const begun = await beginning(world.api, 'regatta-club.example');
    const { id } = begun;
    const leg = legOf(begun);
    const first = await surveyed(world.api, id);
    await world.api.call('PUT', `${leg}/stored`, { owner: 'regatta-club.example.', type: 'A', data: '198.51.100.80' });
    const said = await surveyed(world.api, id);
    expect(said.sets.find((set) => set.owner === 'regatta-club.example.' && set.type === 'A')!.stored).toEqual(['198.51.100.80']);
    await world.api.call('POST', `${leg}/in-hand`, {
      names: [],
      sets: [{ owner: 'www.regatta-club.example.', type: 'A', ttl: 3600, data: ['198.51.100.81'] }],
    });
    const again = await surveyed(world.api, id, first.id);
    const www = again.sets.find((set) => set.owner === 'www.regatta-club.example.' && set.type === 'A')!;
    expect([www.stored, www.evidence.slice(0, 2).map((one) => one.kind)]).toEqual([['198.51.100.81'], ['answer', 'given']]);
    const { hosts } = await world.api.call<{ hosts: { id: string; name: string }[] }>('GET', '/api/hosts');
    const named = (name: string): string => hosts.find((host) => host.name === name)!.id;
    await world.api.call('PUT', `${leg}/hosts`, { newDnsHost: named('Quillmere DNS'), newWebHost: named('Thornwick Web') });
    const planned = await world.api.call<LedgerView>('GET', `${leg}/ledger`);
    const row = planned.rulings.find((ruling) => ruling.owner === 'regatta-club.example.' && ruling.type === 'A')!;
    expect([row.found!.data, row.planned!.data]).toEqual([['198.51.100.80'], ['203.0.113.80']]);
    expect(again.earlier).toHaveLength(1);
    const drift = await world.api.call<{ changes: unknown[]; remarks: string[] }>('GET', `${leg}/drift/${first.id}`);
    expect(drift.remarks[0]).toMatch(/The serial is still/);
    // After the plan was made a survey changes nothing of it, and is held against it.
    await world.api.call('POST', `${leg}/survey`);
    await expect(world.api.call('POST', `${leg}/survey`)).rejects.toThrow(/being taken already/);
    const third = await surveyed(world.api, id, again.id);
    expect(third.earlier.map((one) => one.id)).toEqual([again.id, first.id]);
    const kept = await world.api.call<LedgerView>('GET', `${leg}/ledger`);
    expect(kept.rulings).toEqual(planned.rulings);
    // So is what somebody finds in hand only now: what is not served is a hint, and the plan stays as it is.
    const late = { owner: 'late.regatta-club.example.', type: 'A', ttl: 3600, data: ['192.0.2.9'] };
    await world.api.call('POST', `${leg}/in-hand`, { names: [], sets: [late] });
    const fourth = await surveyed(world.api, id, third.id);
    expect(fourth.hints.map(({ owner }) => owner)).toContain(late.owner);
    expect((await world.api.call<LedgerView>('GET', `${leg}/ledger`)).rulings).toEqual(planned.rulings);
  });
});

describe('what is given in hand while a survey is under way', () => {
  let world: World;
  // Slow enough for the survey to be under way when something is given.
  beforeAll(async () => (world = await openWorld({}, { WANDERON_QUESTIONS_PER_SECOND: '1000' })));
  afterAll(() => world.close());

  it('is asked for right after it', async () => {
    const { api } = world;
    const begun = await beginning(api, 'seed-library.example');
    const leg = legOf(begun);
    await until('the survey is under way', async () => {
      const { legs } = await api.call<MoveView>('GET', `/api/moves/${begun.id}`);
      return legs[0]!.steps.find((step) => step.id === 'survey')!.state === 'doing';
    });
    await api.call('POST', `${leg}/in-hand`, { names: ['unheard-of.seed-library.example.'], sets: [] });
    expect((await api.call<{ survey: MoveSurvey | null }>('GET', `${leg}/survey`)).survey).toBeNull();
    const survey = await until('the name is found', async () => {
      const { survey } = await api.call<{ survey: MoveSurvey | null }>('GET', `${leg}/survey`);
      return survey?.sets.some((set) => set.owner === 'unheard-of.seed-library.example.') ? survey : undefined;
    });
    expect(survey.sets.find((set) => set.owner === 'unheard-of.seed-library.example.')!.evidence[0]!.because).toBe('given by a person');
  });
});

describe('a zone file of thousands of record sets that no catalogue has', () => {
  const held = ['A 192.0.2.77', 'AAAA 2001:db8::77', 'SRV 1 1 5060 @', `TXT ${`"${'long '.repeat(50)}" `.repeat(3)}`];
  const extra = Array.from({ length: 1300 }, (_, i) => held.map((data) => `reed-bed-${i} ${data}`)).flat();
  const zone = Name.parse('great-fen.example.');
  let world: World;
  beforeAll(async () => {
    const more = [{ zone: zone.toString(), client: 'Great fen', at: 'pebbledock', extra }];
    world = await openWorld({ more }, { WANDERON_QUESTIONS_PER_SECOND: '100000' });
  });
  afterAll(() => world.close());

  it('is read, taken, asked for, and makes the inventory likely whole; one of which a line is lost does not', async () => {
    const { api, lab } = world;
    const [found] = [...lab.dnsHosts.get('pebbledock')!.zones.values()].filter((one) => one.origin.equals(zone));
    const text = printZoneFile(found!.transfer().slice(0, -1));
    const begun = await beginning(api, 'great-fen.example');
    const { id } = begun;
    const first = await surveyed(api, id);
    expect([first.coverage.grade, first.sets.length < 100]).toEqual(['partial', true]);
    const trail = async (): Promise<{ kind: string; text: string; after: unknown }[]> =>
      (await api.call<{ events: { kind: string; text: string; after: unknown }[] }>('GET', `/api/moves/${id}/events`)).events;
    const give = async (file: string): Promise<MoveSurvey> => {
      const { finds, serial } = readText(file, { zone: zone.toString(), as: 'old', own: [] });
      const input = { serial: serial ?? null, names: [], sets: takenSets(finds, zone, 3600).map(rrsetToText) };
      const taken = async (): Promise<number> => (await trail()).filter(({ text }) => text.startsWith('Survey taken')).length;
      const before = await taken();
      await api.call('POST', `${legOf(begun)}/in-hand`, input);
      // The move itself is large by now: to look at it again and again would keep the survey from its work.
      await until('the survey is taken', async () => (await taken()) > before);
      return surveyed(api, id);
    };
    const told = await give(text);
    expect([told.coverage.grade, told.hints]).toEqual(['likely whole', []]);
    expect(told.sets).toHaveLength(found!.all().length);
    const garbled = await give(text.replace('192.0.2.77', '192.0.2.777'));
    expect(garbled.coverage.grade).toBe('partial');
    expect((await trail()).filter(({ kind }) => kind === 'in hand').map(({ after }) => after)).toEqual([{ inHand: 2 }, { inHand: 1 }]);
    const endless = Array.from({ length: 9000 }, (_, i) => ({ owner: zone.toString(), type: 'TXT', ttl: 60, data: [`"${i} ${'x'.repeat(1000)}"`] }));
    await expect(api.call('POST', `${legOf(begun)}/in-hand`, { names: [], sets: endless })).rejects.toThrow(/more than can be taken at once/);
  });
});

async function beginning(api: Api, domain: string): Promise<MoveView> {
  const { id } = await api.call<Acted>('POST', '/api/moves', { domain, scope: 'whole' });
  return api.call<MoveView>('GET', `/api/moves/${id}`);
}

function legOf(move: MoveView): string {
  return `/api/legs/${move.legs[0]!.id}`;
}

async function surveyed(api: Api, id: string, before?: string): Promise<MoveSurvey> {
  const leg = legOf(await api.call<MoveView>('GET', `/api/moves/${id}`));
  return until('the survey is taken', async () => {
    const { survey } = await api.call<{ survey: MoveSurvey | null }>('GET', `${leg}/survey`);
    return survey && survey.id !== before ? survey : undefined;
  });
}
