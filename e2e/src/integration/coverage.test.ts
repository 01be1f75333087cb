import fc from 'fast-check';
import {
  Name,
  RRset,
  TYPE_CODES,
  TsigKey,
  fromBase64,
  groupRecords,
  parsePrefix,
  parseZoneFile,
  printZoneFile,
  recordsOf,
  rrsetKey,
  sameData,
  typeMnemonic,
} from '@wanderon/core';
import { AuthZone, DnsHost, DnsHostHabits, LabClock, deniesEmptyNames, answersAsAddresses, fronts, rotates } from '@wanderon/lab';
import { DnsClient, RouteTable } from '@wanderon/net';
import { TakenSurvey } from '../../../packages/server/src/survey/takeSurvey';
import { until } from '../../../command/src/api';
import { KEY, RealServers, loopback } from '../support/realServers';
import { setsOf, surveyOf } from '../support/surveyOf';

const ZONE = Name.parse('eel-weir.example.');
const NS = ['ns1.host.test.', 'ns2.host.test.'];
const HEAD = `$ORIGIN eel-weir.example.
$TTL 300
@ SOA ns1.host.test. post.host.test. 2027030101 7200 900 1209600 300
@ NS ns1.host.test.
@ NS ns2.host.test.
`;
/** Wildcards at two depths, empty names, a delegated subzone with glue, an unknown type; every name likely. */
const LIKELY = `@ A 192.0.2.80
@ MX 10 mail
@ TXT "v=spf1 include:_spf.eel-weir.example -all"
_spf TXT "v=spf1 ip4:192.0.2.1 -all"
www CNAME eel-weir.example.
mail A 192.0.2.25
_sip._tcp SRV 1 2 5060 sip
sip AAAA 2001:db8::5
*.dev A 192.0.2.9
dev TXT x
* TXT "a wildcard"
shop NS ns.shop
ns.shop A 192.0.2.53
k1._domainkey TXT "v=DKIM1; p=AAAA"
blog TYPE65400 \\# 2 00ff
`;
const UNLIKELY = 'nobody-would-guess-this-name A 192.0.2.66\nunder.nobody-knows-this-either TXT hidden\n';
const MADE_BY_SIGNING = new Set<number>([
  TYPE_CODES.RRSIG,
  TYPE_CODES.NSEC,
  TYPE_CODES.NSEC3,
  TYPE_CODES.NSEC3PARAM,
  TYPE_CODES.DNSKEY,
  TYPE_CODES.CDS,
  TYPE_CODES.CDNSKEY,
]);

const zoneSets = (text: string): RRset[] => {
  const { records, findings } = parseZoneFile(text, ZONE);
  expect(findings).toEqual([]);
  return groupRecords(records);
};
const lines = (sets: readonly RRset[]): string[] =>
  printZoneFile(sets.filter((set) => !MADE_BY_SIGNING.has(set.type) && set.type !== TYPE_CODES.SOA).flatMap(recordsOf))
    .split('\n')
    .filter(Boolean)
    .sort();

/** The one promise: nothing is claimed that is not there, and whole means that everything is. */
function expectHonest(taken: TakenSurvey, truth: readonly RRset[]): void {
  const found = lines(setsOf(taken));
  const there = lines(truth);
  const hidden = new Set(taken.survey.sets.filter((set) => set.fronted !== null || set.varying !== null).map((set) => `${set.owner} ${set.type}`));
  const claimed = found.filter((line) => !hidden.has(`${line.split(' ')[0]} ${line.split(' ')[3]}`));
  expect(claimed.filter((line) => !there.includes(line))).toEqual([]);
  if (taken.survey.coverage.grade === 'whole') expect(found).toEqual(there);
}

(process.getuid?.() === 0 ? describe : describe.skip)('what a survey claims, with real servers (port 53 on loopback, so as root)', () => {
  const servers = new RealServers();
  const client = new DnsClient();
  const key: TsigKey = { name: Name.parse(KEY.name), algorithm: KEY.algorithm, secret: fromBase64(KEY.secret) };
  const at = (address: string, second?: string): { name: string; address: string }[] => [
    { name: NS[0]!, address },
    { name: NS[1]!, address: second ?? address },
  ];
  const OPEN = loopback(31);
  const KEYED = loopback(32);
  const NSEC = loopback(33);
  const HASHED = loopback(34);
  const HASHED_ODD = loopback(35);
  const CLOSED = loopback(36);
  const LATE = loopback(37);
  const LAME = loopback(38);
  const VIEWS = loopback(39);
  const VIEW_AT_ONE_SERIAL = loopback(40);
  const OTHER = loopback(41);
  const NESTED = loopback(42);
  const REWRITTEN = loopback(43);
  const zone = 'eel-weir.example.';
  beforeAll(async () => {
    await servers.bind(OPEN, { [zone]: HEAD + LIKELY + UNLIKELY }, { keyed: false });
    await servers.knot(KEYED, { [zone]: HEAD + LIKELY + UNLIKELY });
    await servers.knot(NSEC, { [zone]: HEAD + LIKELY + UNLIKELY }, 'nsec');
    await servers.knot(HASHED, { [zone]: HEAD + LIKELY }, 'nsec3');
    await servers.knot(HASHED_ODD, { [zone]: HEAD + LIKELY + UNLIKELY }, 'nsec3');
    await servers.knot(LAME, { 'another.example.': HEAD.replaceAll('eel-weir', 'another') });
    await servers.nsd(CLOSED, { [zone]: HEAD + LIKELY + UNLIKELY });
    const edited = (text: string, ...changes: readonly (readonly [string, string])[]): string =>
      changes.reduce((before, [from, to]) => {
        expect(before).toContain(from);
        return before.replace(from, to);
      }, text);
    const inner = edited(HEAD + LIKELY, ['2027030101', '2027030102'], ['192.0.2.80', '192.0.2.81']);
    await servers.bindViews(VIEWS, zone, inner, HEAD + LIKELY);
    await servers.bindViews(
      VIEW_AT_ONE_SERIAL,
      zone,
      edited(HEAD + LIKELY, ['MX 10 mail', 'MX 10 inside'], ['mail A', 'inside A 10.0.0.1\nmail A']),
      HEAD + LIKELY,
    );
    await servers.nsd(OTHER, { [zone]: edited(HEAD + LIKELY, ['MX 10 mail', 'MX 10 sip'], ['dev TXT x', 'dev TXT x\n_mta-sts TXT "v=STSv1; id=1"']) });
    const child = edited(HEAD, ['$ORIGIN eel-weir', '$ORIGIN portal.eel-weir']);
    await servers.bind(NESTED, { [zone]: HEAD + LIKELY, 'portal.eel-weir.example.': `${child}@ A 192.0.2.77\n` }, { keyed: false });
    await servers.nsd(REWRITTEN, { [zone]: `${HEAD}a TXT x\nold.a DNAME new.a\nnew.a TXT y\nwww.new.a A 192.0.2.7\n*.deep.new.a A 192.0.2.8\n` });
    await servers.bind(LATE, { [zone]: HEAD.replace('2027030101', '2027030100') + LIKELY }, { keyed: false });
  });
  afterAll(() => servers.close());
  const truth = zoneSets(HEAD + LIKELY + UNLIKELY);

  it('bind9, transfer open: is whole, from both servers', async () => {
    const taken = await surveyOf(client, ZONE, at(OPEN));
    expect(taken.survey.coverage.grade).toBe('whole');
    expectHonest(taken, truth);
  });

  it('knot, keyed: is whole with the key, and partial without', async () => {
    const taken = await surveyOf(client, ZONE, at(KEYED), { key });
    expect(taken.survey.coverage.grade).toBe('whole');
    expectHonest(taken, truth);
    const without = await surveyOf(client, ZONE, at(KEYED));
    expect(without.survey.coverage.grade).toBe('partial');
    expectHonest(without, truth);
  });

  it('knot, signed with NSEC: is whole by a walk', async () => {
    const taken = await surveyOf(client, ZONE, at(NSEC));
    expect([taken.survey.coverage.grade, taken.survey.sets[0]!.evidence[0]!.kind]).toEqual(['whole', 'walk']);
    expectHonest(taken, truth);
  });

  it('knot, signed with NSEC3: is whole where every name could be put to its hash, wildcards and empty names too', async () => {
    const taken = await until('the zone is signed', async () => {
      const one = await surveyOf(client, ZONE, at(HASHED));
      return one.survey.authorities.every((authority) => authority.signed) ? one : undefined;
    });
    expect(taken.survey.coverage).toEqual({ grade: 'whole', reasons: [expect.stringMatching(/walked name by name/)] });
    expectHonest(taken, zoneSets(HEAD + LIKELY));
  });

  it('knot, signed with NSEC3: is partial where a name stays hidden, says how many, and is whole once it is told', async () => {
    const taken = await surveyOf(client, ZONE, at(HASHED_ODD));
    expect(taken.survey.coverage.grade).toBe('partial');
    expect(taken.survey.coverage.reasons.join(' ')).toMatch(/3 names exist by hash alone/);
    expect(taken.survey.hints.map((hint) => hint.text.replace(/:.*/, '')).sort()).toEqual([
      'a name exists that has this hash, and holds A',
      'a name exists that has this hash, and holds TXT',
      'a name exists that has this hash, and holds nothing of its own',
    ]);
    expectHonest(taken, truth);
    const names = ['nobody-would-guess-this-name', 'under.nobody-knows-this-either'].map((name) => Name.parse(name, ZONE));
    const told = await surveyOf(client, ZONE, at(HASHED_ODD), { given: { names, sets: [] } });
    expect(told.survey.coverage.grade).toBe('whole');
    expectHonest(told, truth);
  });

  it('nsd, closed: is partial, and likely whole with a file at the same serial', async () => {
    const taken = await surveyOf(client, ZONE, at(CLOSED));
    expect(taken.survey.coverage.grade).toBe('partial');
    expectHonest(taken, truth);
    const sets = truth.filter((set) => set.type !== TYPE_CODES.SOA);
    const told = await surveyOf(client, ZONE, at(CLOSED), { given: { names: [], sets, serial: 2027030101 } });
    expect(told.survey.coverage.grade).toBe('likely whole');
    expectHonest(told, truth);
    const old = await surveyOf(client, ZONE, at(CLOSED), { given: { names: [], sets, serial: 2027030100 } });
    expect(old.survey.coverage.grade).toBe('partial');
  }, 120_000);

  it('nsd, closed: is likely whole where a server that somebody names gives the zone at the serial that is served', async () => {
    const named = { names: [], sets: [], servers: ['192.0.2.99', OPEN] };
    const told = await surveyOf(client, ZONE, at(CLOSED), { given: named });
    expect([told.survey.coverage.grade, told.survey.coverage.reasons.join(' ')]).toEqual([
      'likely whole',
      expect.stringMatching(/^The zone as .* gave it has the serial that /),
    ]);
    expectHonest(told, truth);
  }, 120_000);

  it.each([
    ['questions', CLOSED, 1, 0],
    ['questions', CLOSED, 12, 3],
    ['questions', CLOSED, 60, 3],
    ['a walk', NSEC, 6, 0],
    ['a walk', NSEC, 24, 3],
  ])('is partial where the time for it is over in the midst of %s, says so, and keeps what was found by then', async (_means, address, after, least) => {
    let looks = 0;
    const taken = await surveyOf(client, ZONE, at(address), { isEnough: () => ++looks > after });
    const { coverage, sets, hints } = taken.survey;
    expect([coverage.grade, coverage.reasons.join(' ')]).toEqual(['partial', expect.stringMatching(/The time for a survey was over before all was asked/)]);
    expect(coverage.reasons.join(' ')).toMatch(/nor the website was looked at any more/);
    expectHonest(taken, truth);
    // What was not asked is no sign of anything.
    expect(hints).toEqual([]);
    expect(sets.length).toBeGreaterThanOrEqual(least);
  });

  it('is partial where a second server is behind, and says which', async () => {
    const taken = await surveyOf(client, ZONE, at(OPEN, LATE));
    expect(taken.survey.coverage.grade).toBe('partial');
    expect(taken.survey.findings.map((finding) => finding.code)).toContain('serials');
    expectHonest(taken, truth);
  });

  it('is partial where the key opens a view of its own, whose serial is another, and says so', async () => {
    const taken = await surveyOf(client, ZONE, at(VIEWS), { key });
    expect(taken.survey.coverage.grade).toBe('partial');
    expect(taken.survey.coverage.reasons.join(' ')).toMatch(/gives serial 2027030102 by transfer and answers 2027030101 to questions: a view of its own/);
    const apex = taken.survey.sets.find((set) => set.owner === zone && set.type === 'A')!;
    expect([apex.data, apex.evidence.find((one) => one.kind === 'answer')?.data]).toEqual([['192.0.2.81'], ['192.0.2.80']]);
  });

  it('is partial where the view has the serial that is served, and shows both answers', async () => {
    const taken = await surveyOf(client, ZONE, at(VIEW_AT_ONE_SERIAL), { key });
    expect(taken.survey.coverage.grade).toBe('partial');
    const mx = taken.survey.sets.find((set) => set.owner === zone && set.type === 'MX')!;
    expect(mx.varying).toMatch(/answers 10 mail\.eel-weir\.example\., and the transfer from .* holds 10 inside\.eel-weir\.example\.: a view/);
    expect(mx.evidence.map(({ kind, data }) => [kind, data])).toContainEqual(['answer', ['10 mail.eel-weir.example.']]);
    // What stands in the view alone is answered to nobody.
    expect(taken.survey.sets.find((set) => set.owner.startsWith('inside.'))?.evidence.at(-1)).toMatchObject({ kind: 'answer', absent: true });
  });

  it('is partial where two servers at one serial have other mail, and finds the policy that only the second one has', async () => {
    for (const known of [{ key }, {}]) {
      const taken = await surveyOf(client, ZONE, at(OPEN, OTHER), known);
      expect(taken.survey.coverage.grade).toBe('partial');
      const mx = taken.survey.sets.find((set) => set.owner === zone && set.type === 'MX')!;
      expect(mx.varying ?? '').toMatch(/10 mail\.eel-weir\.example\.[^]*10 sip\.eel-weir\.example\./);
      const said = [...taken.survey.hints.map((hint) => hint.owner), ...taken.survey.sets.filter((set) => set.type === 'TXT').map((set) => set.owner)];
      expect(said).toContain('_mta-sts.eel-weir.example.');
    }
    // Asked of one that gives no transfer, its own answers are held against the other's as well.
    const asked = await surveyOf(client, ZONE, at(CLOSED, OTHER));
    expect(asked.survey.sets.find((set) => set.owner === zone && set.type === 'MX')!.varying).toMatch(/servers differ/);
    expect(asked.survey.hints.map((hint) => hint.owner)).toContain('_mta-sts.eel-weir.example.');
  });

  it('finds a zone of its own below that is not delegated, which a transfer does not show', async () => {
    const taken = await surveyOf(client, ZONE, at(NESTED));
    expect([taken.survey.coverage.grade, taken.survey.findings.map((finding) => finding.code)]).toEqual(['partial', expect.arrayContaining(['zone-below'])]);
    expect(taken.survey.findings.find((finding) => finding.code === 'zone-below')!.text).toMatch(/^portal\.eel-weir\.example is a zone of its own at/);
    // One that is delegated is no surprise.
    expect((await surveyOf(client, ZONE, at(OPEN))).survey.findings.map((finding) => finding.code)).not.toContain('zone-below');
  });

  it('makes no record out of what a DNAME or a deep wildcard answers', async () => {
    const names = ['www.old.a', 'x.deep.old.a', 'x.deep.new.a', 'y.x.deep.new.a', 'www.new.a'].map((name) => Name.parse(name, ZONE));
    const taken = await surveyOf(client, ZONE, at(REWRITTEN), { given: { names, sets: [] } });
    expect(
      setsOf(taken)
        .filter((set) => !set.owner.equals(ZONE))
        .map((set) => `${set.owner.toString()} ${typeMnemonic(set.type)}`),
    ).toEqual([
      'a.eel-weir.example. TXT',
      'new.a.eel-weir.example. TXT',
      '*.deep.new.a.eel-weir.example. A',
      'www.new.a.eel-weir.example. A',
      'old.a.eel-weir.example. DNAME',
    ]);
  });

  it('is likely whole where a second server is away, and names it lame where it knows nothing of the zone', async () => {
    const away = await surveyOf(client, ZONE, at(OPEN, loopback(99)));
    expect(away.survey.coverage.grade).toBe('likely whole');
    expect(away.survey.findings.map((finding) => finding.code)).toEqual(expect.arrayContaining(['silent']));
    expectHonest(away, truth);
    const lame = await surveyOf(client, ZONE, at(OPEN, LAME));
    expect([lame.survey.coverage.grade, lame.survey.findings.map((finding) => finding.code).includes('lame')]).toEqual(['likely whole', true]);
    expectHonest(lame, truth);
  });
});

describe('what a survey claims, at hosts of any habit', () => {
  const label = fc.constantFrom('www', 'mail', 'shop', 'dev', '*', 'hidden-here', '_tcp', '_sip', 'a', 'deep');
  const owner = fc
    .array(label, { minLength: 1, maxLength: 3 })
    .map((labels) => labels.join('.'))
    .filter((name) => !/.\*/.test(name));
  const data = fc.constantFrom(
    'A 192.0.2.1',
    'A 192.0.2.2',
    'A 192.0.2.3',
    'AAAA 2001:db8::1',
    'TXT "x"',
    'MX 10 mail',
    'SRV 1 1 1 www',
    'CNAME away.test.',
    'DNAME away.test.',
    'TYPE65400 \\# 1 00',
  );
  const habit = fc.record({
    transfer: fc.constantFrom('open', 'key', 'none'),
    lies: fc.boolean(),
    turns: fc.boolean(),
    front: fc.boolean(),
    flat: fc.boolean(),
    lame: fc.boolean(),
    behind: fc.boolean(),
  });

  it('is never better than the truth', async () => {
    let port = 10;
    await fc.assert(
      fc.asyncProperty(fc.array(fc.tuple(owner, data), { maxLength: 12 }), habit, async (pairs, { transfer, lies, turns, front, flat, lame, behind }) => {
        const aliased = new Map(pairs.filter(([, what]) => what.startsWith('CNAME')));
        const apart = pairs.filter(([one, what]) => !aliased.has(one) || what.startsWith('CNAME'));
        const zone = new AuthZone(ZONE, zoneSets(`${HEAD}${[...new Set(apart.map(([one, what]) => `${one} ${what}`))].join('\n')}\n`).flatMap(recordsOf));
        const addresses = [`198.51.100.${port++ % 250}`, `203.0.113.${port++ % 250}`];
        const key: TsigKey = { name: Name.parse('k.test.'), algorithm: 'hmac-sha256', secret: new Uint8Array(32).fill(3) };
        const habits: DnsHostHabits = {
          transfer: transfer as DnsHostHabits['transfer'],
          update: 'none',
          key,
          lag: 60,
          lame: lame ? [1] : [],
          dressings: [
            ...(lies ? [deniesEmptyNames] : []),
            ...(front ? [fronts((name) => name.equals(ZONE.child('www')), ['203.0.113.130', '203.0.113.131'])] : []),
            ...(turns ? [rotates(1)] : []),
            ...(flat ? [answersAsAddresses(ZONE, ['192.0.2.200'], 300)] : []),
          ],
        };
        const clock = new LabClock(0, 0);
        const questions = new Map<string, number>();
        const host = new DnsHost(
          'host',
          addresses.map((address) => [address]),
          habits,
          clock,
          () => undefined,
          {
            asked: (_host, at, question, over) => {
              const one = `${at} ${over} ${question.name.toString()} ${typeMnemonic(question.type)}`;
              questions.set(one, (questions.get(one) ?? 0) + 1);
            },
          },
          () => Math.floor(Date.now() / 1000),
        );
        const routes = new RouteTable();
        host.load(zone);
        if (behind) zone.put(ZONE.child('www2'), TYPE_CODES.TXT, 60, zoneSets(`${HEAD}x TXT late\n`).find((set) => set.type === TYPE_CODES.TXT)!.data);
        await host.open(routes);
        try {
          const taken = await surveyOf(
            new DnsClient(routes),
            ZONE,
            addresses.map((address, index) => ({ name: NS[index]!, address })),
            { key: transfer === 'key' ? key : undefined, fronts: [{ host: 'Host', prefix: parsePrefix('203.0.113.128/29')! }] },
          );
          expectHonest(taken, zone.all());
          // Nothing is asked twice of one server in one way, but for samples of what may vary, and the serial where something did.
          const sampled = /(?: A| AAAA| CNAME| HTTPS)$/;
          const most = (question: string): number => (sampled.test(question) ? 4 : question.endsWith('udp eel-weir.example. SOA') ? 2 : 1);
          const often = [...questions].filter(([question, times]) => times > most(question));
          if (transfer === 'none') expect(often).toEqual([]);
          const { grade } = taken.survey.coverage;
          if (transfer === 'none') expect(grade).toBe('partial');
          if (behind && !lame) expect(grade).toBe('partial');
          const unlike = taken.survey.hints.length > 0 || taken.survey.sets.some((set) => set.varying !== null || set.fronted !== null);
          if (transfer !== 'none' && !behind && !lame) expect(grade).toBe(unlike ? 'partial' : 'whole');
          // A transfer shows what is stored; what is answered in its place is said beside it.
          const www = taken.survey.sets.find((set) => set.owner === 'www.eel-weir.example.' && (set.type === 'A' || set.type === 'CNAME'));
          if (front && www && zone.get(ZONE.child('www'), TYPE_CODES[www.type as 'A']))
            expect([www.fronted !== null, www.stored !== null]).toEqual([true, transfer !== 'none']);
          for (const set of transfer === 'none' ? [] : zone.all()) {
            const there = setsOf(taken).find((one) => rrsetKey(one.owner, one.type) === rrsetKey(set.owner, set.type));
            expect([set.owner.toString(), there && sameData(set.type, there.data, set.data)]).toEqual([set.owner.toString(), true]);
          }
        } finally {
          host.close();
          clock.stop();
        }
      }),
      { numRuns: Number(process.env['WORLDS'] ?? 25) },
    );
  }, 240_000);
});
