import { Name } from '../dns/name';
import { ruling } from '../testing/moving';
import { ledgerFilter } from './ledgerFilter';
import { ledgerGroups, namedGroups, placedGroups, placesOf } from './ledgerGroups';
import { Ruling } from './ruling';

const ZONE = Name.parse('zone.test.');
const row = (owner: string, type: string, data: string): Ruling => ruling(owner, type, 'carry', 3600, [data], [data]);
const ROWS: readonly Ruling[] = [
  { ...row('zone.test.', 'SOA', 'ns1.old.test. host.old.test. 1 2 3 4 5'), reason: "the DNS host's own: x" },
  row('zone.test.', 'TXT', '"v=spf1 ip4:203.0.113.7 -all"'),
  row('www.zone.test.', 'A', '203.0.113.80'),
  row('mail.zone.test.', 'A', '198.51.100.25'),
  row('zone.test.', 'MX', '10 mail.zone.test.'),
  row('zone.test.', 'A', '203.0.113.80'),
  row('zone.test.', 'AAAA', '2001:db8::80'),
  row('odd.zone.test.', 'TXT', '"something"'),
  ruling('proof.zone.test.', 'TXT', 'new', 3600, undefined, ['"site-verification=7"']),
  ruling('gone.zone.test.', 'A', 'drop', 3600, ['192.0.2.1'], undefined),
];
const brief = (rows: readonly Ruling[], said: Parameters<typeof ledgerGroups>[2] = []): string[] =>
  ledgerGroups(ZONE, rows, said).map(
    ({ title, rows: all }) => `${title}: ${all.map(({ owner, type }) => `${owner.replace(/\.?zone\.test\.$/, '') || '@'} ${type}`).join(', ')}`,
  );

describe('the groups of a ledger', () => {
  it('stand in the order in which they are worked through, each in reading order, and lose no row', () => {
    expect(brief(ROWS)).toEqual([
      'Website: @ A, @ AAAA, www A',
      'Mail: @ MX, mail A, @ TXT',
      'Proofs of ownership: proof TXT',
      'Not known what for: gone A, odd TXT',
      'The DNS host’s own: @ SOA',
    ]);
    const all = ledgerGroups(ZONE, ROWS).flatMap((group) => group.rows);
    expect(new Set(all)).toEqual(new Set(ROWS));
    expect(all).toHaveLength(ROWS.length);
  });

  it('go by what a person says a set is for', () => {
    expect(brief(ROWS, [{ owner: 'odd.zone.test.', type: 'TXT', purpose: 'voice' }])).toContain('Voice: odd TXT');
    expect(brief([])).toEqual([]);
  });

  it('are the same, for all rows and for some, where only the places of rows are known, in whatever order they come', () => {
    const said = [{ owner: 'odd.zone.test.', type: 'TXT', purpose: 'voice' }] as const;
    const places = placesOf(ZONE, ROWS, said);
    expect(places.size).toBe(ROWS.length);
    for (const left of [ROWS, ROWS.filter((_, index) => index % 2 === 0), ROWS.slice(0, 1), []]) {
      const placed = left.map((one) => ({ ...places.get(one)!, one })).reverse();
      const expected = ledgerGroups(ZONE, ROWS, said)
        .map((group) => ({ ...group, rows: group.rows.filter((one) => left.includes(one)) }))
        .filter((group) => group.rows.length > 0);
      expect(placedGroups(placed).map((group) => ({ ...group, rows: group.rows.map(({ one }) => one) }))).toEqual(expected);
    }
  });
});

it.each([
  ['', 10],
  ['mx', 1],
  ['MAIL 198.51.100.25', 1],
  ['zone.test spf1', 1],
  ['203.0.113.0/24', 3],
  ['203.0.113.7', 1],
  ['2001:db8::/32', 1],
  ['192.0.2.0/24', 1],
  ['10.0.0.0/8', 0],
  ['nothing like it', 0],
])('a filter for %s finds %i rows', (text, count) => {
  expect(ROWS.filter(ledgerFilter(text))).toHaveLength(count);
});

describe('the groups of a ledger by name', () => {
  it('hold together what stands at and below one name, and put the single ones together', () => {
    const more = [
      ...ROWS,
      row('www.shop.zone.test.', 'A', '203.0.113.80'),
      row('SHOP.zone.test.', 'A', '203.0.113.80'),
      row('_a.www.zone.test.', 'TXT', '"x"'),
    ];
    const groups = namedGroups(ZONE, more).map(
      ({ title, rows: all }) => `${title}: ${all.map(({ owner, type }) => `${owner.replace(/\.?zone\.test\.$/, '') || '@'} ${type}`).join(', ')}`,
    );
    expect(groups).toEqual([
      'The domain itself: @ A, @ AAAA, @ MX, @ TXT',
      'www: www A, _a.www TXT',
      'SHOP: SHOP A, www.shop A',
      'Names with one row: mail A, gone A, odd TXT, proof TXT',
      'The DNS host’s own: @ SOA',
    ]);
    expect(namedGroups(ZONE, [])).toEqual([]);
  });

  it('lose no row, whatever stands there', () => {
    const all = namedGroups(ZONE, ROWS).flatMap((group) => group.rows);
    expect(new Set(all)).toEqual(new Set(ROWS));
    expect(all).toHaveLength(ROWS.length);
  });
});
