import fc from 'fast-check';
import { Name } from '../dns/name';
import { ruling } from '../testing/moving';
import { cleanPasted } from './cleanPasted';
import { readRow } from './editRuling';
import { suggestValues, withSuggested } from './suggestValues';

const ZONE = Name.parse('zone.test.');

describe('what was pasted', () => {
  it.each([
    ['A', '192.0.2.7', '192.0.2.7', []],
    ['A', ' 192.0.2.7, 192.0.2.8;\n192.0.2.9 ', '192.0.2.7\n192.0.2.8\n192.0.2.9', []],
    ['A', 'http://192.0.2.7:8080/shop', '192.0.2.7', [/around the address/]],
    ['AAAA', '[2001:db8::7]:443', '2001:db8::7', [/around the address/]],
    ['A', '\u200b192.0.2.7\ufeff', '192.0.2.7', [/cannot be seen/]],
    ['A', 'sites.new.test', 'sites.new.test', []],
    ['CNAME', 'https://sites.new.test/', 'sites.new.test.', [/scheme/, /dot ends it/]],
    ['CNAME', 'sites.new.test.', 'sites.new.test.', []],
    ['CNAME', 'www', 'www', []],
    ['CNAME', '“sites.new.test”,', 'sites.new.test.', [/mark at the end/, /quotes around/, /dot ends it/]],
    ['CNAME', 'www.zone.test. 3600 IN CNAME sites.new.test.', 'sites.new.test.', [/name, TTL and type/]],
    ['MX', 'mx.post.test 10', '10 mx.post.test.', [/priority/, /dot ends it/]],
    ['MX', '@\t3600\tIN\tMX\t10 mx.post.test.\n20 mx2.post.test.', '10 mx.post.test.\n20 mx2.post.test.', [/name, TTL and type/]],
    ['SRV', '0 5 443 sip.post.test:5061', '0 5 443 sip.post.test.', [/port/, /dot ends it/]],
    ['CNAME', '0/25.2.0.192.in-addr.arpa.', '0/25.2.0.192.in-addr.arpa.', []],
    ['TXT', 'v=spf1 include:post.test -all', '"v=spf1 include:post.test -all"', [/quotes are around/]],
    ['TXT', '“v=DMARC1; p=none”', '"v=DMARC1; p=none"', [/curly/]],
    ['TXT', '"a b" "c"', '"a b" "c"', []],
    ['TXT', '" TXT "', '" TXT "', []],
    ['TXT', '@ TXT "a b"', '"a b"', [/name, TTL and type/]],
    ['TXT', 'x'.repeat(300), `"${'x'.repeat(255)}" "${'x'.repeat(45)}"`, [/quotes are around/]],
    ['CAA', '0 issue "certs.test"', '0 issue "certs.test"', []],
  ] as [string, string, string, RegExp[]][])('%s %j', (type, pasted, text, said) => {
    const cleaned = cleanPasted(ZONE, type, pasted);
    expect(cleaned).toEqual({ text, said: said.map((one) => expect.stringMatching(one) as string) });
    // Cleaned once is clean.
    expect(cleanPasted(ZONE, type, cleaned.text)).toEqual({ text, said: [] });
  });

  it('is never spoilt: what could be read before means the same, and a whole name is never below the zone', () => {
    const types = ['A', 'AAAA', 'CNAME', 'NS', 'MX', 'SRV', 'TXT', 'CAA', 'TLSA'];
    const part = fc.oneof(
      fc.constantFrom(
        '192.0.2.7',
        '2001:db8::7',
        '10',
        '0',
        'sites.new.test.',
        'www',
        '"a b"',
        'IN',
        'A',
        'TXT',
        'https://',
        '/',
        ';',
        ',',
        '“',
        '\u200b',
        '\n',
        '\\',
        '"',
      ),
      fc.string({ unit: 'binary', maxLength: 12 }),
    );
    fc.assert(
      fc.property(fc.constantFrom(...types), fc.array(part, { maxLength: 8 }), (type, parts) => {
        const text = parts.join(' ');
        const cleaned = cleanPasted(ZONE, type, text);
        expect(cleanPasted(ZONE, type, cleaned.text).text).toBe(cleaned.text);
        // What is already the value of a record, as it is printed, stays as it is.
        const read = readRow(ZONE, { owner: '@', type, ttl: '60', data: text });
        const printed = read.ok ? read.set.data.join('\n') : '';
        // Names that look like the address of a page are taken for one.
        const isOdd = type !== 'TXT' && /:\/\/|\.[^\s]*[/?#:"']|["'“”,;]/.test(printed);
        if (read.ok && !isOdd) {
          const again = readRow(ZONE, { owner: '@', type, ttl: '60', data: cleanPasted(ZONE, type, printed).text });
          expect(again.ok && again.set.data).toEqual(read.set.data);
        }
      }),
      { numRuns: 3000 },
    );
  });

  it('of enormous length is left alone, and read in time', () => {
    expect(cleanPasted(ZONE, 'CNAME', 'a'.repeat(80_000)).said).toEqual([]);
    for (const text of ['https://'.repeat(8000), '"'.repeat(60_000), `${'a '.repeat(30_000)}`, '9'.repeat(60_000)])
      for (const type of ['CNAME', 'MX', 'TXT', 'A']) expect(typeof cleanPasted(ZONE, type, text).text).toBe('string');
  });
});

describe('values that may be meant', () => {
  const hosts = [
    { name: 'Sites', nameservers: [], addresses: ['203.0.113.80', '2001:db8::80'], aliasTarget: 'sites.new.test.', requires: [] },
    { name: 'New DNS', nameservers: ['ns1.new.test.'], addresses: [], aliasTarget: undefined, requires: [] },
  ];
  const rulings = [
    ruling('mail.zone.test.', 'A', 'carry', 60, ['192.0.2.25'], ['192.0.2.25']),
    ruling('old.zone.test.', 'A', 'drop', 60, ['192.0.2.1'], undefined),
    ruling('*.boats.zone.test.', 'A', 'carry', 60, ['192.0.2.25'], ['192.0.2.25']),
    ruling('www.zone.test.', 'CNAME', 'carry', 60, ['sites.new.test.'], ['sites.new.test.']),
  ];
  const texts = (type: string, line: string): string[] => suggestValues(type, line, hosts, rulings).map(({ text }) => text);
  it('fit the type and what is typed', () => {
    expect([texts('A', ''), texts('AAAA', ''), texts('A', '19')]).toEqual([['203.0.113.80', '192.0.2.25'], ['2001:db8::80'], ['192.0.2.25']]);
    expect([texts('CNAME', 's'), texts('CNAME', ''), texts('NS', ''), texts('TXT', '')]).toEqual([
      ...[['sites.new.test.'], ['sites.new.test.', 'mail.zone.test.', 'www.zone.test.'], ['ns1.new.test.'], []],
    ]);
    // Mail leads to names with addresses, not to aliases; what is left out is none.
    expect([texts('MX', '10 '), texts('MX', '10 mail.zone.test.')]).toEqual([['mail.zone.test.'], []]);
    expect(withSuggested('10 ma', { text: 'mail.zone.test.', of: '' })).toBe('10 mail.zone.test.');
  });
});
