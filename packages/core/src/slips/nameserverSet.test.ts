import fc from 'fast-check';
import { distance } from './names';
import { typedServers } from '../reading/typedServers';
import { namesTyped, readNameserverSet } from './nameserverSet';
import { otherSets } from './otherSets';

const context = {
  zone: 'choir.example.',
  wanted: ['ns1.quillmere.example.', 'ns2.quillmere.example.', 'ns3.quillmere-dns.example.'],
  old: ['ns1.oldquay.example.', 'ns2.oldquay.example.', 'ns3.oldquay.example.'],
  others: [
    { of: 'Quillmere Web', nameservers: ['web1.quillmere.example.', 'web2.quillmere.example.'] },
    { of: 'canoe-yard.example', nameservers: ['blue.given.example.', 'green.given.example.'] },
    { of: 'kelp.example', nameservers: ['ns7.quillmere.example.', 'ns8.quillmere.example.'] },
  ],
};
const good = ['ns1.quillmere.example', 'ns2.quillmere.example', 'ns3.quillmere-dns.example'];
const read = (...fields: string[]) => readNameserverSet(context, fields);
const told = (...fields: string[]): [string, string | null][] => read(...fields).slips.map(({ code, wanted }) => [code, wanted]);

describe('a nameserver set as somebody typed it', () => {
  it('is as planned in any order and spelling, with or without dots at the end, in one field more than are needed', () => {
    expect(read('NS3.Quillmere-DNS.example.', '  ns1.quillmere.example', 'ns2.quillmere.example', '')).toEqual({
      asPlanned: true,
      unchanged: false,
      slips: [],
    });
  });

  it.each<[string, string[], [string, string | null][]]>([
    ['a name left from before', [...good, 'ns3.oldquay.example'], [['left over', null]]],
    ['a number that was not changed', [good[0]!, good[0]!, good[2]!], [['number', good[1]!]]],
    ['another number', [good[0]!, 'ns4.quillmere.example', good[2]!], [['number', good[1]!]]],
    ['one name twice beside the others', [...good, good[0]!], [['twice', null]]],
    ['the domain appended', [good[0]!, `${good[1]!}.choir.example`, good[2]!], [['appended', good[1]!]]],
    ['only the beginning of a name', ['ns1', good[1]!, good[2]!], [['cut', good[0]!]]],
    ['two letters exchanged', ['ns1.quilmlere.example', good[1]!, good[2]!], [['misspelt', good[0]!]]],
    [
      'the set of another product',
      ['web1.quillmere.example', 'web2.quillmere.example', good[2]!],
      [
        ['other set', good[0]!],
        ['other set', good[1]!],
      ],
    ],
    ['the set of another client', ['blue.given.example', good[1]!, good[2]!], [['other set', good[0]!]]],
    ['a comma within a name', ['ns1,quillmere.example', good[1]!, good[2]!], [['within', good[0]!]]],
    ['a blank within a name', ['ns1. quillmere.example', good[1]!, good[2]!], [['within', good[0]!]]],
    ['a blank in the place of a dot', ['ns1 quillmere.example', good[1]!, good[2]!], [['within', good[0]!]]],
    ['another ending', ['ns1.quillmere.test', good[1]!, good[2]!], [['ending', good[0]!]]],
    ['a label in front', [good[0]!, `dns.${good[1]!}`, good[2]!], [['in front', good[1]!]]],
    ['the website of the host', ['www.quillmere-dns.example', good[0]!, good[1]!], [['website', good[2]!]]],
    ['the client’s own domain', [good[0]!, 'choir.example', good[2]!], [['own domain', good[1]!]]],
    ['two names run together', [`${good[0]!}${good[1]!}`, good[2]!], [['together', good[0]!]]],
    ['the set of another client of the same host, whose numbers differ', ['ns7.quillmere.example', good[1]!, good[2]!], [['other set', good[0]!]]],
    ['a server of nobody', [...good, 'dns.parking.test'], [['stranger', null]]],
    [
      'fields that were not saved',
      [good[0]!],
      [
        ['missing', good[1]!],
        ['missing', good[2]!],
      ],
    ],
  ])('names the slip: %s', (_what, fields, slips) => {
    expect(read(...fields).asPlanned).toBe(false);
    expect(told(...fields)).toEqual(slips);
  });

  it('says what is written in a field that is no name, and reads the name all the same', () => {
    expect(read(`https://${good[0]!}/`, good[1]!, good[2]!)).toMatchObject({ asPlanned: true, slips: [{ code: 'url' }] });
    expect(read(`${good[0]!}, ${good[1]!}`, good[2]!)).toMatchObject({ asPlanned: true, slips: [{ code: 'comma' }] });
    expect(read(`${good[0]!} ${good[1]!}`, good[2]!).slips).toMatchObject([{ code: 'blank' }]);
    expect(read(`"${good[0]!}"`, good[1]!, good[2]!).slips).toMatchObject([{ code: 'marks' }]);
    expect(told('203.0.113.53', good[1]!, good[2]!)).toEqual([
      ['address', null],
      ['missing', good[0]!],
    ]);
    expect(told('2001:db8::53', good[1]!, good[2]!)[0]).toEqual(['address', null]);
  });

  it('tells a set that was not changed at all from one that is wrong', () => {
    expect(read(...context.old).unchanged).toBe(true);
    expect(read(...context.old.slice(1)).unchanged).toBe(false);
    expect(readNameserverSet({ ...context, old: context.wanted }, good)).toMatchObject({ asPlanned: true, unchanged: false });
  });

  it('warns where a misspelt name leads into a domain of somebody else', () => {
    expect(read('ns1.qillmere.example', good[1]!, good[2]!).slips[0]!.text).toMatch(/leads into qillmere\.example, which is not the host’s/);
    expect(read('sn1.quillmere.example', good[1]!, good[2]!).slips[0]!.text).not.toMatch(/leads into/);
  });

  it('is as planned only where the names are the wanted ones, whatever is typed; what is wrong is always told', () => {
    const name = fc.oneof(fc.constantFrom(...good, ...context.old, 'ns1', 'web1.quillmere.example', '', ' '), fc.domain(), fc.string({ maxLength: 30 }));
    fc.assert(
      fc.property(fc.array(name, { maxLength: 8 }), (fields) => {
        const { asPlanned, slips } = read(...fields);
        // Told apart by nothing but the letters: what is left once blanks, final dots and marks are off is exactly the set.
        const bare = fields.map((field) => field.trim().replace(/\.$/, '').toLowerCase()).filter((field) => field !== '');
        if ([...bare].sort().join() === [...good].sort().join()) expect(asPlanned).toBe(true);
        if (asPlanned) for (const one of good) expect(fields.some((field) => field.toLowerCase().includes(one))).toBe(true);
        else expect(slips.length).toBeGreaterThan(0);
      }),
    );
  });

  it('explains every exchange, loss or doubling of a letter in a name', () => {
    fc.assert(
      fc.property(fc.nat({ max: 2 }), fc.nat({ max: 11 }), fc.constantFrom('lose', 'double', 'exchange'), (which, at, how) => {
        const name = good[which]!;
        const made = {
          lose: name.slice(0, at) + name.slice(at + 1),
          double: name.slice(0, at) + name[at]! + name.slice(at),
          exchange: name.slice(0, at) + name[at + 1]! + name[at]! + name.slice(at + 2),
        }[how]!;
        fc.pre(!good.includes(made) && !/\d/.test(name[at]! + name[at + 1]!) && !`${name[at]}${name[at + 1]}`.includes('.') && !made.startsWith('.'));
        const slips = read(...good.map((one, index) => (index === which ? made : one))).slips;
        expect(slips).toMatchObject([{ code: 'misspelt', typed: made, wanted: name }]);
      }),
    );
  });
});

describe('a form that was copied', () => {
  it('is read field by field, with the labels that stand before them left out', () => {
    expect(typedServers('Nameserver 1: ns1.quillmere.example\nNS2 = ns2.quillmere.example\n\n ns3.quillmere-dns.example\t\r\n')).toEqual(good);
    expect(typedServers('ns1.quillmere.example\tns2.quillmere.example')).toEqual(good.slice(0, 2));
  });
  it.each([
    ['with numbers', '1. ns1.quillmere.example\n2. ns2.quillmere.example\n3. ns3.quillmere-dns.example'],
    ['with addresses beside', 'ns1.quillmere.example 203.0.113.1\nns2.quillmere.example (203.0.113.2)\nns3.quillmere-dns.example [2001:db8::3]'],
    [
      'as lines of a zone file',
      'choir.example. 3600 IN NS ns1.quillmere.example.\nchoir.example. IN NS ns2.quillmere.example.\n@ NS ns3.quillmere-dns.example.',
    ],
    [
      'as a lookup shows it',
      'choir.example\tnameserver = ns1.quillmere.example.\nchoir.example nameserver = ns2.quillmere.example.\nchoir.example name server ns3.quillmere-dns.example.',
    ],
    [
      'under headings and above buttons',
      'Custom nameservers\n\nNS1 ns1.quillmere.example\nNS2 ns2.quillmere.example\nNS3 ns3.quillmere-dns.example\nSave changes\nCancel',
    ],
    [
      'in a table of a panel',
      'Nameserver\tIP\tStatus\nns1.quillmere.example\t203.0.113.1\tActive\nns2.quillmere.example\t203.0.113.2\tActive\nns3.quillmere-dns.example\t-\tActive',
    ],
    ['in German', 'Nameserver 1: ns1.quillmere.example\nNameserver 2: ns2.quillmere.example\nNameserver 3: ns3.quillmere-dns.example\nSpeichern'],
    ['with marks of a list', '- ns1.quillmere.example\n- ns2.quillmere.example\n- ns3.quillmere-dns.example'],
  ])('%s is the set that it is', (_what, text) => expect(read(...typedServers(text))).toMatchObject({ asPlanned: true, slips: [] }));
  it('of any length is read in part', () => {
    expect(typedServers('ns1.quillmere.example\n'.repeat(100_000)).length).toBeLessThanOrEqual(40);
  });
});

describe('letters that differ', () => {
  it.each([
    ['abc', 'abc', 0],
    ['abc', 'abd', 1],
    ['abc', 'ac', 1],
    ['abc', 'bac', 1],
    ['abcd', 'badc', 2],
    ['abcdef', 'badcfe', Infinity],
    ['', 'ab', 2],
    ['', 'abc', Infinity],
  ])('%s and %s: %d', (a, b, far) => expect(distance(a, b)).toBe(far));

  it('are counted as over the whole table, which is compared here cell by cell', () => {
    const text = fc.string({ unit: fc.constantFrom('a', 'b', 'c'), maxLength: 9 });
    fc.assert(
      fc.property(text, text, (a, b) => {
        const table = [...Array(a.length + 1)].map((_unused, i) => [...Array(b.length + 1)].map((_also, j) => (i === 0 ? j : j === 0 ? i : 0)));
        for (let i = 1; i <= a.length; i++)
          for (let j = 1; j <= b.length; j++) {
            const ways = [table[i - 1]![j]! + 1, table[i]![j - 1]! + 1, table[i - 1]![j - 1]! + Number(a[i - 1] !== b[j - 1])];
            if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) ways.push(table[i - 2]![j - 2]! + 1);
            table[i]![j] = Math.min(...ways);
          }
        const whole = table[a.length]![b.length]!;
        expect(distance(a, b)).toBe(whole <= 2 ? whole : Infinity);
      }),
      { numRuns: 2000 },
    );
  });
});

describe('the set of another service of the same company', () => {
  const hosts = [
    { name: 'Driftwood Zones', role: 'dns', nameservers: ['one.driftwood.test.', 'two.driftwood.test.'], company: 'Driftwood' },
    { name: 'Driftwood Plus', role: 'dns', nameservers: ['one.plus.driftwood.test.', 'two.plus.driftwood.test.'], company: 'driftwood' },
    { name: 'Millrace DNS', role: 'dns', nameservers: ['one.millrace.test.', 'two.millrace.test.'], company: '' },
    { name: 'Driftwood Sites', role: 'web', nameservers: ['one.sites.driftwood.test.'], company: 'Driftwood' },
  ];

  it('is told as one', () => {
    const sets = otherSets(hosts, { wanted: ['one.driftwood.test.', 'two.driftwood.test.'], old: ['ns1.old.test.'] });
    expect(sets.map((one) => one.of)).toEqual(['Driftwood Plus, another service of driftwood', 'Millrace DNS']);
    expect(otherSets(hosts, { wanted: ['one.millrace.test.', 'two.millrace.test.'], old: [] }).map((one) => one.of)).toEqual([
      'Driftwood Zones',
      'Driftwood Plus',
    ]);
  });

  it('names are found in what was copied from a page, each once', () => {
    expect(namesTyped('Nameserver 1: ns-4.driftwood.example.\nNS2 = https://ns-9.driftwood.example/\nns-4.Driftwood.example, 192.0.2.1')).toEqual([
      'ns-4.Driftwood.example',
      'ns-9.driftwood.example',
    ]);
    expect(namesTyped(' \n 192.0.2.1 \n')).toEqual([]);
  });
});
