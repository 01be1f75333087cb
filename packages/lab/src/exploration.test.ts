import fc from 'fast-check';
import {
  CATALOGUE_NAMES,
  Exploration,
  Explored,
  Name,
  RRset,
  SurveyAnswer,
  TYPE_CODES,
  parseZoneFile,
  printZoneFile,
  recordsOf,
  rrsetKey,
  sameData,
} from '@wanderon/core';
import { AuthZone } from './authZone';

const ORIGIN = Name.parse('zone.example.');
const BASE = '$TTL 60\n@ SOA ns1.host.test. h.host.test. 1 2 3 4 5\n@ NS ns1.host.test.\n';

function zoneOf(text: string, origin = ORIGIN): AuthZone {
  const { records, findings } = parseZoneFile(`${BASE}${text}\n`, origin);
  expect(findings).toEqual([]);
  return new AuthZone(origin, records);
}

type Server = (name: Name, type: number) => SurveyAnswer | undefined;
const honest =
  (zone: AuthZone): Server =>
  (name, type) =>
    zone.lookUp(name, type);

function explore(server: Server, names: readonly string[] = [], origin = ORIGIN): Explored & { questions: string[] } {
  const exploration = new Exploration(
    origin,
    () => 'zq7x-nobody-has-this',
    names.map((name) => ({ name: Name.parse(name, origin), types: [65400] })),
  );
  const questions: string[] = [];
  while (!exploration.done) {
    const batch = exploration.next(50);
    for (const question of batch) {
      questions.push(`${question.name.toString()} ${question.type}`);
      exploration.take(question, server(question.name, question.type));
    }
    if (questions.length > 60_000) throw new Error('it does not end');
  }
  return { ...exploration.report(), questions };
}

const shown = (explored: Explored): string[] =>
  printZoneFile(explored.sets.flatMap(({ set }) => recordsOf(set)))
    .split('\n')
    .filter((line) => line !== '' && !/ IN (SOA|NS) \S+\.test\./.test(line));

describe('an inventory by questions', () => {
  it('finds what the catalogue names, what is found leads to, and asks nothing twice', () => {
    const explored = explore(
      honest(
        zoneOf(`@ A 192.0.2.1\n@ MX 10 odd-mail-name\nodd-mail-name A 192.0.2.2\nwww CNAME strange-target\nstrange-target A 192.0.2.3
@ TXT "v=spf1 include:_spf-part.zone.example a:sender.zone.example -all"\n_spf-part TXT "v=spf1 ip4:192.0.2.9 -all"\nsender A 192.0.2.10
_sip._tcp SRV 1 2 5060 telephone-box\ntelephone-box AAAA 2001:db8::5\nselector1._domainkey TXT "v=DKIM1; p=AAAA"\nunheard-of TXT "nobody knows this name"`),
      ),
    );
    const found = shown(explored);
    for (const line of ['odd-mail-name', 'strange-target', '_spf-part', 'sender', 'telephone-box', '_sip._tcp', 'selector1._domainkey'])
      expect(found.some((one) => one.startsWith(`${line}.zone.example.`))).toBe(true);
    expect(found.some((one) => one.startsWith('unheard-of'))).toBe(false);
    expect(new Set(explored.questions).size).toBe(explored.questions.length);
    expect(explored.spared).toBeGreaterThan(15);
    const told = shown(explore(honest(zoneOf('unheard-of TXT x\nunheard-of TYPE65400 \\# 1 aa')), ['unheard-of']));
    expect(told).toEqual(['unheard-of.zone.example. 60 IN TXT "x"', 'unheard-of.zone.example. 60 IN TYPE65400 \\# 1 AA']);
  });

  it.each([
    [
      '2.0.192.in-addr.arpa.',
      `${Array.from({ length: 256 }, (_, address) => (address % 5 === 0 ? `${address} PTR host-${address}.lighthouse.example.\n` : '')).join('')}
64-127 NS ns1.client.example.\n65 CNAME 65.64-127\n7 NS ns1.other.example.\n9 TXT "beside no name"`,
      6000,
    ],
    ['64-127.2.0.192.in-addr.arpa.', '65 PTR quay.example.\n127 PTR mill.example.', 1000],
    ['51.198.in-addr.arpa.', '7.100 PTR quay.example.\n8.100 PTR mill.example.\n44 NS ns1.elsewhere.example.', 2000],
    [
      '8.b.d.0.1.0.0.2.ip6.arpa.',
      `${[1, 2, 0xabc].map((address) => `${[...`0${'0'.repeat(20)}${address.toString(16).padStart(3, '0')}`].reverse().join('.')} PTR host-${address}.quay.example.`).join('\n')}
${[...'00a1'].reverse().join('.')} NS ns1.client.example.`,
      3000,
    ],
  ])('asks a zone of addresses, %s, for these, and finds every one that has a name', (origin, text, most) => {
    const zone = Name.parse(origin);
    const auth = zoneOf(text, zone);
    const explored = explore(honest(auth), [], zone);
    const found = shown(explored);
    const written = printZoneFile(parseZoneFile(`${BASE}${text}\n`, zone).records)
      .split('\n')
      .filter((line) => line !== '' && !/ IN (SOA|NS) \S+\.test\./.test(line));
    expect([...found].sort()).toEqual([...written].filter((line) => !/^64-127\./.test(line) || found.includes(line)).sort());
    // The name of a smaller range nobody can guess, but where an alias leads into it.
    if (text.includes('64-127')) expect(found.some((line) => line.startsWith('64-127.'))).toBe(true);
    expect(explored.questions.length).toBeLessThan(most);
  });

  it('names each set that it knows to be there and could not read, and each that may be where a server would not say', () => {
    const zone = zoneOf('@ A 192.0.2.1\n@ MX 10 mail\nmail A 192.0.2.2\nwww A 192.0.2.3');
    const exploration = new Exploration(ORIGIN, () => 'zq7x-nobody-has-this');
    while (!exploration.done)
      for (const question of exploration.next(50)) {
        const is = (name: string, type: number): boolean => question.type === type && question.name.equals(Name.parse(name, ORIGIN));
        if (is('@', TYPE_CODES.TXT) || is('_dmarc', TYPE_CODES.TXT)) exploration.take(question, undefined, 'truncated');
        else if (is('www', TYPE_CODES.CAA)) exploration.take(question, undefined, 'refused');
        else exploration.take(question, zone.lookUp(question.name, question.type));
      }
    expect(
      exploration
        .report()
        .hints.map((hint) => `${hint.name.relativeTo(ORIGIN)} ${hint.unread!}`)
        .sort(),
    ).toEqual(['@ TXT', '_dmarc TXT', 'www CAA']);
  });

  it('takes a name that holds nothing for a hint, unless what hangs below it was found', () => {
    const { hints } = explore(honest(zoneOf('deep.media A 192.0.2.1\n_sip._tcp SRV 1 1 1 x.test.\nshop TYPE65400 \\# 1 00')));
    expect(hints.map((hint) => hint.name.toString())).toEqual(['media.zone.example.', 'shop.zone.example.']);
  });

  it('tells wildcards at two depths from what stands beside them', () => {
    const explored = explore(
      honest(zoneOf('* A 192.0.2.1\nwww A 192.0.2.2\nmail A 192.0.2.1\nftp TXT "only text"\n*.dev A 192.0.2.3\ndev TXT x\n_sip._tcp SRV 1 1 1 x.test.')),
    );
    expect(shown(explored)).toEqual([
      '*.zone.example. 60 IN A 192.0.2.1',
      '_sip._tcp.zone.example. 60 IN SRV 1 1 1 x.test.',
      'dev.zone.example. 60 IN TXT "x"',
      'ftp.zone.example. 60 IN TXT "only text"',
      'www.zone.example. 60 IN A 192.0.2.2',
    ]);
    expect(explored.remarks.join(' ')).toMatch(/\*\.zone\.example answers for every name/);
    expect(explored.remarks.join(' ')).toMatch(/cannot be told/);
    const below = explore(honest(zoneOf('* A 192.0.2.1\n*.dev A 192.0.2.3\ndev TXT x')), ['one.dev']);
    expect(shown(below)).toContain('*.dev.zone.example. 60 IN A 192.0.2.3');
    const far = explore(honest(zoneOf('*.far.off MX 1 mx.test.')), ['*.far.off']);
    expect([shown(far), far.hints]).toEqual([['*.far.off.zone.example. 60 IN MX 1 mx.test.'], []]);
    const alias = explore(honest(zoneOf('* CNAME edge.test.\nwww CNAME other.test.\nmail MX 1 mx.test.')));
    expect(shown(alias)).toEqual([
      '*.zone.example. 60 IN CNAME edge.test.',
      'mail.zone.example. 60 IN MX 1 mx.test.',
      'www.zone.example. 60 IN CNAME other.test.',
    ]);
  });

  it('concludes nothing from the denials of a server that denies names with something below them', () => {
    const zone = zoneOf('_sip._tcp SRV 1 1 1 x.test.\n_sip._tls SRV 1 1 1 x.test.\nselector1._domainkey TXT k');
    const lying: Server = (name, type) => {
      const found = zone.lookUp(name, type);
      const empty = found.rcode === 0 && found.answers.length === 0 && zone.all().every((set) => !set.owner.equals(name));
      return empty ? { ...found, rcode: 3 } : found;
    };
    const explored = explore(lying);
    expect(shown(explored)).toHaveLength(3);
    expect(explored.spared).toBe(0);
    expect(explored.remarks.join(' ')).toMatch(/nothing was concluded from its denials/);
  });

  it('sees a delegated subzone with its glue, and asks nothing below it', () => {
    const explored = explore(honest(zoneOf('shop NS ns1.shop\nns1.shop A 192.0.2.9\nns1.shop TXT hidden\nwww A 192.0.2.1')));
    expect(shown(explored)).toEqual([
      'shop.zone.example. 60 IN NS ns1.shop.zone.example.',
      'ns1.shop.zone.example. 60 IN A 192.0.2.9',
      'www.zone.example. 60 IN A 192.0.2.1',
    ]);
    expect(explored.questions.filter((one) => one.includes('.shop.zone'))).toEqual([]);
  });

  it('claims nothing of a wildcard that it could not hold answers against', () => {
    const zone = zoneOf('* TXT "a wildcard"\nwww A 192.0.2.1');
    const holding = explore((name, type) => (name.isWildcard && type === TYPE_CODES.TXT ? undefined : zone.lookUp(name, type)));
    expect(shown(holding)).toEqual(['www.zone.example. 60 IN A 192.0.2.1']);
    expect(holding.hints.some((hint) => /TXT was answered, and may stand here or come from a wildcard/.test(hint.text))).toBe(true);
    let turn = 0;
    // Every fifth question is lost, whichever it is.
    for (let seed = 0; seed < 5; seed++) {
      turn = seed;
      const lossy = explore((name, type) => (turn++ % 5 === 0 ? undefined : zone.lookUp(name, type)));
      for (const line of shown(lossy)) expect(['*.zone.example. 60 IN TXT "a wildcard"', 'www.zone.example. 60 IN A 192.0.2.1']).toContain(line);
    }
  });

  it('keeps an alias whose target does not exist, which servers answer with NXDOMAIN (RFC 6604)', () => {
    const zone = zoneOf('www CNAME gone\n*.dev CNAME gone\ndev TXT x');
    const strict: Server = (name, type) => {
      const found = zone.lookUp(name, type);
      return found.answers.some((record) => record.type === TYPE_CODES.CNAME) ? { ...found, rcode: 3 } : found;
    };
    expect(shown(explore(strict, ['one.dev']))).toEqual([
      'dev.zone.example. 60 IN TXT "x"',
      '*.dev.zone.example. 60 IN CNAME gone.zone.example.',
      'www.zone.example. 60 IN CNAME gone.zone.example.',
    ]);
  });

  it('claims no alias that may come from a wildcard whose answers were lost, and does not call silence consent', () => {
    const zone = zoneOf('* CNAME edge.test.');
    const holding = explore((name, type) => (name.isWildcard || name.labels[0]?.length === 20 ? undefined : zone.lookUp(name, type)));
    expect(shown(holding)).toEqual([]);
    expect(holding.hints.some((hint) => /CNAME was answered, and may stand here/.test(hint.text))).toBe(true);
    expect(holding.remarks.join(' ')).not.toMatch(/denies no name/);
    expect(holding.remarks.join(' ')).toMatch(/not known what the server says of names that do not exist/);
  });

  it('says what was not answered, and that a server denies nothing', () => {
    const zone = zoneOf('www A 192.0.2.1\nwww TXT x');
    const silent = explore((name, type) => (type === TYPE_CODES.TXT ? undefined : zone.lookUp(name, type)));
    expect(shown(silent)).toEqual(['www.zone.example. 60 IN A 192.0.2.1']);
    expect(silent.remarks.join(' ')).toMatch(/not answered/);
    const agreeable = explore((name, type) => ({ ...zone.lookUp(name, type), rcode: 0 }));
    expect(shown(agreeable)).toContain('www.zone.example. 60 IN A 192.0.2.1');
    expect(agreeable.hints).toEqual([]);
    expect(agreeable.remarks.join(' ')).toMatch(/denies no name/);
  });

  it('ends at a server that leads from each name to the next without end', () => {
    let made = 0;
    const endless: Server = (name, type) => {
      const answers =
        type === TYPE_CODES.CNAME || type === TYPE_CODES.A
          ? [{ owner: name, type: TYPE_CODES.CNAME, cls: 1, ttl: 60, data: ORIGIN.child(`n${(made += 1)}`).wire }]
          : [];
      return { rcode: 0, authoritative: true, answers, authorities: [], additionals: [] };
    };
    const exploration = new Exploration(ORIGIN, () => 'zq7x-nobody-has-this');
    let asked = 0;
    while (!exploration.done)
      for (const question of exploration.next(500)) {
        asked += 1;
        exploration.take(question, endless(question.name, question.type));
      }
    expect(asked).toBeLessThan(600_000);
    expect(exploration.report().remarks.join(' ')).toMatch(/More than 20000 names were led to/);
  });

  it('never claims a set that the zone does not hold, and misses none whose name it asked for', () => {
    const label = fc.constantFrom('www', 'mail', 'shop', 'dev', '*', 'hidden', '_tcp', '_sip', 'a');
    const owner = fc
      .array(label, { minLength: 1, maxLength: 3 })
      .map((labels) => labels.join('.'))
      .filter((name) => !/.\*/.test(name));
    const data = fc.constantFrom(
      'A 192.0.2.1',
      'A 192.0.2.2',
      'AAAA 2001:db8::1',
      'TXT "x"',
      'MX 10 hidden',
      'SRV 1 1 1 www',
      'CAA 0 issue "x"',
      'CNAME away.test.',
    );
    fc.assert(
      fc.property(fc.array(fc.tuple(owner, data), { maxLength: 9 }), fc.integer({ min: 2, max: 9 }), (lines, lost) => {
        // Beside an alias there is nothing else.
        const aliased = new Map(lines.filter(([, what]) => what.startsWith('CNAME')));
        const apart = lines.filter(([one, what]) => !aliased.has(one) || what.startsWith('CNAME'));
        const zone = zoneOf([...new Set(apart.map(([one, what]) => `${one} ${what}`))].join('\n'));
        const explored = explore(honest(zone));
        let turn = 0;
        const lossy = explore((name, type) => (++turn % lost === 0 ? undefined : zone.lookUp(name, type)));
        for (const { set } of [...explored.sets, ...lossy.sets]) {
          const there = zone.get(set.owner, set.type);
          expect([set.owner.toString(), set.type, there && sameData(set.type, there.data, set.data)]).toEqual([set.owner.toString(), set.type, true]);
        }
        const claimed = new Set(explored.sets.map(({ set }) => rrsetKey(set.owner, set.type)));
        const wild = (set: RRset): boolean => {
          for (let above = set.owner.parent; above.isAtOrBelow(ORIGIN); above = above.parent) {
            const same = zone.get(above.child('*'), set.type);
            if (same && sameData(set.type, same.data, set.data)) return true;
          }
          return false;
        };
        // Names of the catalogue whose types tell them from a wildcard.
        for (const set of zone.all())
          if (
            CATALOGUE_NAMES.includes(set.owner.relativeTo(ORIGIN)) &&
            ['A', 'AAAA', 'MX', 'TXT', 'CNAME'].some((type) => set.type === TYPE_CODES[type as 'A'])
          )
            if (!wild(set))
              expect([set.owner.toString(), set.type, claimed.has(rrsetKey(set.owner, set.type))]).toEqual([set.owner.toString(), set.type, true]);
      }),
      { numRuns: 60 },
    );
  });
});
