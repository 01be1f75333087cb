import fc from 'fast-check';
import { Name } from '../dns/name';
import { groupRecords, rrsetToText, RRsetText } from '../dns/record';
import { parseZoneFile } from '../dns/zoneFile';
import { planFile } from '../hosts/planFile';
import { setKey } from '../move/plan';
import { planLine } from '../testing/planLine';
import { sideBySide, plannedSide } from './sideBySide';
import { overlaid } from './rowWords';
import { planFrom } from './planFrom';
import { Ruling } from './ruling';

const ZONE = Name.parse('zone.test.');
const OWN = "the DNS host's own: it writes it";
const ROWS: readonly Ruling[] = [
  { ...planLine(ZONE, 'drop @ SOA ns1.old.test. h.old.test. 1 2 3 4 5'), reason: OWN },
  { ...planLine(ZONE, 'drop @ NS ns1.old.test.'), reason: OWN },
  ...[
    'repoint @ A 198.51.100.80 > 203.0.113.80',
    'carry @ MX 10 mx1.post.test. | 20 mx2.post.test.',
    'carry @ TXT "v=spf1 mx -all" | "site=1"',
    'drop old A 198.51.100.80',
    'new _proof TXT "site=zone.test"',
    'carry sub NS ns1.else.test.',
    'carry odd\\.label TXT "\\200\\000" "two"',
    'carry _x TYPE65400 \\# 3 0102ff',
  ].map((line) => planLine(ZONE, line)),
];
const read = (text: string): RRsetText[] => groupRecords(parseZoneFile(text, ZONE).records).map(rrsetToText);
const withIds = (rows: readonly Ruling[]) => rows.map((row) => ({ ...row, id: setKey(row.owner, row.type), decidedBy: null }));
const after = (rows: readonly Ruling[], sets: readonly RRsetText[], taken: (owner: string) => boolean = () => true) =>
  overlaid(
    withIds(rows),
    planFrom(ZONE, rows, sets, taken).map((one) => ({ id: setKey(one.owner, one.type), row: one.row, by: null })),
  );
const planned = (rows: readonly Ruling[]): string[] =>
  plannedSide(rows)
    .sets.map((set) => `${set.owner.toLowerCase()} ${set.type} ${set.ttl} ${[...set.data].sort().join(' | ')}`)
    .sort();

describe('a plan that was edited elsewhere', () => {
  it('is what it was where nobody edited it', () => {
    expect(planFrom(ZONE, ROWS, read(planFile(ZONE, ROWS, { entry: null }, 'settled')), () => true)).toEqual([]);
  });

  it('becomes rows: values and TTLs that are others, sets that are gone, new ones; what was found is found still', () => {
    const file = planFile(ZONE, ROWS, { entry: null }, 'settled')
      .replace('203.0.113.80', '203.0.113.81')
      .replace(/^.*_proof.*\n/m, '')
      .replace(/^.*mx2.*\n/m, '');
    const sets = read(`${file}old 60 IN A 198.51.100.80\nnew 60 IN AAAA 2001:db8::9\nzone.test. 60 IN NS ns1.mine.test.\n`);
    const rows = new Map(after(ROWS, sets).map((row) => [row.id, `${row.ruling} ${row.planned?.data.join(' | ') ?? ''}`]));
    expect(Object.fromEntries(rows)).toMatchObject({
      [setKey('zone.test.', 'A')]: 'repoint 203.0.113.81',
      [setKey('zone.test.', 'MX')]: 'repoint 10 mx1.post.test.',
      [setKey('old.zone.test.', 'A')]: 'repoint 198.51.100.80',
      [setKey('new.zone.test.', 'AAAA')]: 'new 2001:db8::9',
      [setKey('zone.test.', 'NS')]: 'drop ',
      [setKey('sub.zone.test.', 'NS')]: 'carry ns1.else.test.',
    });
    expect(rows.has(setKey('_proof.zone.test.', 'TXT'))).toBe(false);
  });

  it('touches nothing outside of the names that a move is about', () => {
    const rows = planFrom(ZONE, ROWS, read('www.zone.test. 60 IN A 203.0.113.9\nnew.zone.test. 60 IN A 203.0.113.9\n'), (owner) => /^(www|old)\./.test(owner));
    expect(rows.map((row) => row.owner)).toEqual(['www.zone.test.']);
  });

  it('is the plan afterwards, whatever it was before', () => {
    const set = fc
      .record({
        owner: fc.constantFrom('zone.test.', 'www.zone.test.', 'OLD.zone.test.', 'sub.zone.test.', 'x.zone.test.'),
        type: fc.constantFrom('A', 'TXT', 'MX'),
        ttl: fc.integer({ min: 0, max: 90_000 }),
        pick: fc.uniqueArray(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 3 }),
      })
      .map(({ owner, type, ttl, pick }): RRsetText => {
        const data = { A: (n: number) => `192.0.2.${n}`, TXT: (n: number) => `"t${n}"`, MX: (n: number) => `${n} m.test.` }[type]!;
        return { owner, type, ttl, data: pick.map(data) };
      });
    const sets = fc.uniqueArray(set, { selector: (one) => setKey(one.owner, one.type), maxLength: 10 });
    fc.assert(
      fc.property(sets, sets, (first, second) => {
        const once = after(ROWS, first);
        const rows = after(once, second);
        expect(planned(rows)).toEqual(planned(second.map((one) => ({ ...planLine(ZONE, 'new x A 192.0.2.1'), planned: one }))));
        // What was found stays in the ledger, and the host's own with it.
        for (const row of ROWS.filter((one) => one.found)) expect(rows.find((one) => one.id === setKey(row.owner, row.type))?.found).toEqual(row.found);
        expect(sideBySide(ZONE, { sets: second }, plannedSide(rows)).every((row) => row.kind === 'same')).toBe(true);
      }),
    );
  });
});

describe('two contents of a zone side by side', () => {
  it('tells what differs, by value, by TTL and by absence, and what was never asked for', () => {
    const set = (label: string, type: string, ttl: number, ...data: string[]): RRsetText => ({ owner: Name.parse(label, ZONE).toString(), type, ttl, data });
    const left = {
      sets: [
        set('@', 'SOA', 1, 'a. b. 1 2 3 4 5'),
        set('@', 'A', 60, '192.0.2.1', '192.0.2.2'),
        set('WWW', 'A', 60, '192.0.2.1'),
        set('m', 'MX', 60, '1 a.'),
        set('l', 'A', 9, '192.0.2.3'),
        set('u', 'A', 9, '192.0.2.4'),
      ],
    };
    const right = {
      sets: [set('@', 'A', 60, '192.0.2.2', '192.0.2.1'), set('www', 'A', 30, '192.0.2.1'), set('m', 'MX', 60, '2 a.'), set('r', 'A', 9, '192.0.2.5')],
    };
    const asked = new Set([...right.sets, ...left.sets.slice(0, 5)].map((one) => setKey(one.owner, one.type)));
    const kinds = (a: object, b: object): string[] =>
      sideBySide(ZONE, a as never, b as never).map((row) => `${row.owner.toLowerCase()} ${row.type} ${row.kind}`);
    expect(kinds(left, { ...right, asked })).toEqual([
      'zone.test. A same',
      'www.zone.test. A TTL',
      'm.zone.test. MX changed',
      'l.zone.test. A left',
      'r.zone.test. A right',
      'u.zone.test. A unasked',
    ]);
    expect(kinds({ ...right, asked }, left).map((one) => one.split(' ').at(-1))).toEqual(['same', 'TTL', 'changed', 'right', 'left', 'unasked']);
  });
});
