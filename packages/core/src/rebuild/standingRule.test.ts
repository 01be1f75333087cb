import fc from 'fast-check';
import { Name } from '../dns/name';
import { Decision } from '../move/said';
import { ruling } from '../testing/moving';
import { CHANGED_SINCE, LedgerRow } from './ledgerRow';
import { grouped, overlaid, rowsOf } from './rowWords';
import { MadeRule, StandingRule, readRuleTo, ruleOffers, ruleWords, ruledBy } from './standingRule';

const zone = Name.parse('zone.test.');
const row = (id: string, ...more: Parameters<typeof ruling>): LedgerRow => ({ ...ruling(...more), id, decidedBy: null });
const found = (id: string, owner: string, type: string, data: string[]): LedgerRow => row(id, owner, type, 'carry', 3600, data, data);
const ROWS: readonly LedgerRow[] = [
  { ...found('soa', 'zone.test.', 'SOA', ['ns1.old.test. host.old.test. 1 2 3 4 203']), reason: "the DNS host's own: x" },
  found('apex', 'zone.test.', 'A', ['203.0.113.80', '192.0.2.1']),
  found('six', 'zone.test.', 'AAAA', ['2001:db8:1::80']),
  found('www', 'www.zone.test.', 'CNAME', ['sites.old.test.']),
  found('mail', 'mail.zone.test.', 'A', ['198.51.100.25']),
  found('mx', 'zone.test.', 'MX', ['10 mail.zone.test.']),
  row('dkim', 'k1._domainkey.zone.test.', 'TXT', 'drop', 3600, ['"v=DKIM1; p=AAAA"'], undefined),
  found('spf', 'zone.test.', 'TXT', ['"v=spf1 ip4:203.0.113.80 -all"']),
];
const rule = (more: Partial<StandingRule>): StandingRule => ({ like: '', group: null, ruling: 'carry', to: [], ...more });
const made = (one: StandingRule, rows = ROWS): Record<string, readonly string[] | undefined> =>
  Object.fromEntries(ruledBy(zone, rows, one).changes.map(({ before, row: after }) => [before.id, after?.planned?.data]));

describe('a rule', () => {
  it('leads what leads to some addresses elsewhere, keeps the others of a set, and says what it cannot change', () => {
    const all = rule({ like: '203.0.113.0/24', ruling: 'repoint', to: ['198.51.100.7'] });
    expect(made(all)).toEqual({ apex: ['198.51.100.7', '192.0.2.1'] });
    expect(ruledBy(zone, ROWS, all).left.map(({ row: one, why }) => [one.id, why])).toEqual([['spf', 'a TXT record leads nowhere by itself']]);
  });

  it('gives each family and alias its own, and leaves those for which it names nothing', () => {
    const both = rule({ like: 'old.test', ruling: 'repoint', to: ['198.51.100.7', 'client.sites.test.'] });
    expect(made(both)).toEqual({ www: ['client.sites.test.'] });
    expect(made(rule({ like: '2001:db8:1::/48', ruling: 'repoint', to: ['2001:db8:2::7'] }))).toEqual({ six: ['2001:db8:2::7'] });
    const none = ruledBy(zone, ROWS, rule({ like: 'aaaa', ruling: 'repoint', to: ['198.51.100.7'] }));
    expect(none.left.map(({ row: one, why }) => [one.id, why])).toContainEqual(['six', 'the rule names no IPv6 address']);
    expect(none.changes).toEqual([]);
  });

  it('is about a group, and changes only what is not so already', () => {
    const mail = ruledBy(zone, ROWS, rule({ group: 'Mail' }));
    expect(mail.changes.map(({ before, row: after }) => [before.id, after?.ruling])).toEqual([['dkim', 'carry']]);
    expect(mail.same).toBe(3);
  });

  it('never touches what belongs to the DNS host', () => {
    expect(Object.keys(made(rule({ ruling: 'drop' })))).toEqual(['apex', 'six', 'www', 'mail', 'mx', 'spf']);
  });

  it('takes out what was not found where it drops it, and cannot carry it', () => {
    const rows = [row('new', 'x.zone.test.', 'A', 'new', 300, undefined, ['203.0.113.1'])];
    expect(ruledBy(zone, rows, rule({ ruling: 'drop' })).changes.map((one) => one.row)).toEqual([null]);
    expect(ruledBy(zone, rows, rule({ ruling: 'carry' })).left.map((one) => one.why)).toEqual(['it was not found at the old host']);
  });

  it('made once changes nothing when it is made again, and nothing that is not like it', () => {
    const address = fc.tuple(fc.constantFrom('203.0.113.', '192.0.2.'), fc.integer({ min: 1, max: 6 })).map(([net, host]) => `${net}${host}`);
    const some = fc.array(fc.uniqueArray(address, { minLength: 1, maxLength: 4 }), { minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(some, fc.uniqueArray(address, { minLength: 1, maxLength: 2 }), (sets, to) => {
        const rows = sets.map((data, index) => found(String(index), `n${index}.zone.test.`, 'A', data));
        const all = rule({ like: '203.0.113.0/24', ruling: 'repoint', to });
        const changes = ruledBy(zone, rows, all).changes;
        const after = overlaid(
          rows,
          rowsOf({ kind: 'rulings', subject: '', value: grouped(changes.map(({ before, row: one }) => ({ id: before.id, row: one }))) }).map((one) => ({
            ...one,
            by: 'a',
          })),
        );
        expect(ruledBy(zone, after, all).changes).toEqual([]);
        sets.forEach((data, index) => {
          const old = data.filter((one) => one.startsWith('203.'));
          // By hand, value for value: what is like it goes, everything else stays, and nothing stands twice.
          const wanted = old.length === 0 ? new Set(data) : new Set([...to, ...data.filter((one) => !old.includes(one))]);
          expect(new Set(after[index]!.planned!.data)).toEqual(wanted);
        });
      }),
    );
  });
});

describe('where a rule is to lead', () => {
  it('is addresses and one name, below the zone where it has no dot at its end', () => {
    expect(readRuleTo(zone, '198.51.100.7, 2001:db8::7 client.sites.test.')).toEqual({ ok: true, to: ['198.51.100.7', '2001:db8::7', 'client.sites.test.'] });
    expect(readRuleTo(zone, 'web')).toEqual({ ok: true, to: ['web.zone.test.'] });
  });

  it.each(['', 'a.test. b.test.', '198.51.100', 'https://a.test', '198.51.100.0/24', 'a..b'])('is refused in words: "%s"', (text) => {
    const read = readRuleTo(zone, text);
    expect(read.ok ? '' : read.problem).toMatch(/\.$|\?$/);
  });

  it('is said in a sentence', () => {
    expect(ruleWords(rule({ like: '203.0.113.0/24', ruling: 'repoint', to: ['198.51.100.7', 'x.test.'] }))).toBe(
      'Everything like “203.0.113.0/24” leads to 198.51.100.7, x.test',
    );
    expect(ruleWords(rule({ group: 'Mail' }))).toBe('Everything in “Mail” is kept');
  });
});

describe('a rule that stands', () => {
  const MADE: MadeRule = { ...rule({ like: '203.0.113.0/24', ruling: 'repoint', to: ['198.51.100.7'] }), except: [] };
  const decision = (id: number, kind: Decision['kind'], more: Partial<Decision> = {}): Decision => ({
    ...{ id, kind, subject: '', value: null, person: 'a', at: 0, undoes: null },
    ...more,
  });
  const ruled = (except: string[] = []): Decision => decision(1, 'rulings', { value: { rows: [], rule: { ...MADE, except } } });
  const later = found('later', 'shop.zone.test.', 'A', ['203.0.113.81']);
  const offered = (rows: readonly LedgerRow[], stands: readonly Decision[]): string[] =>
    ruleOffers(zone, rows, stands).flatMap((one) => one.rows.map(({ before }) => before.id));

  it('is offered to rows of which nobody decided anything, and to those that changed at the old host', () => {
    expect(offered([later], [ruled()])).toEqual(['later']);
    expect(offered([{ ...later, decidedBy: 'b', reason: CHANGED_SINCE }], [ruled()])).toEqual(['later']);
    expect(offered([{ ...later, decidedBy: 'b', reason: 'decided by hand' }], [ruled()])).toEqual([]);
    expect(offered([found('else', 'x.zone.test.', 'A', ['192.0.2.9'])], [ruled()])).toEqual([]);
  });

  it('is not offered to rows that were taken out of it, nor once it is over', () => {
    expect(offered([later], [ruled(['later'])])).toEqual([]);
    expect(offered([later], [ruled(), decision(2, 'rule over', { subject: '1', value: true })])).toEqual([]);
    expect(ruleOffers(zone, [later], [decision(1, 'rulings', { value: { rows: [] } })])).toEqual([]);
  });
});
