import { Name } from '../dns/name';
import { RRsetText, groupRecords, rrsetToText } from '../dns/record';
import { parseZoneFile } from '../dns/zoneFile';
import { Ruling } from '../rebuild/ruling';
import { ruling } from '../testing/moving';
import { DnsHabits, USUAL_HABITS, beginsWith, forwardsTo, lockedSet } from './dnsHabits';
import { USUAL_STYLE } from './entryStyle';
import { SheetPanel, legSheet } from './legSheet';
import { planFile } from './planFile';

const ZONE = 'zone.test.';
const RULINGS: readonly Ruling[] = [
  ruling('zone.test.', 'A', 'repoint', 3600, ['192.0.2.1'], ['192.0.2.2']),
  ruling('www.zone.test.', 'CNAME', 'carry', 3600, ['zone.test.'], ['zone.test.']),
  ruling('old.zone.test.', 'A', 'drop', 3600, ['192.0.2.9'], undefined),
  ruling('zone.test.', 'MX', 'carry', 3600, ['10 mx.post.test.'], ['10 mx.post.test.']),
  { ...ruling('zone.test.', 'NS', 'drop', 3600, ['ns1.old.test.'], undefined), reason: "the DNS host's own" },
];
const habits = (more: Partial<DnsHabits>): DnsHabits => ({ ...USUAL_HABITS, ...more });
const sheet = (panel: Partial<SheetPanel>, kind: 'delegation' | 'repoint' = 'delegation'): string[] =>
  legSheet({ kind, isBack: false, rulings: RULINGS, served: null }, ZONE, { entry: USUAL_STYLE, ...panel }).map(
    ({ act, before, entry }) =>
      `${act} ${(entry ?? before)!.name} ${(entry ?? before)!.type} ${before && entry ? `${before.value} > ` : ''}${(entry ?? before)!.value}`,
  );
const set = (owner: string, type: string, ...data: string[]): RRsetText => ({ owner, type, ttl: 300, data });

describe('a sheet for a new host', () => {
  it('adds everything where the zone begins empty', () => {
    expect(sheet({})).toEqual(['add @ A 192.0.2.2', 'add www CNAME zone.test', 'add @ MX mx.post.test']);
  });

  it('goes from what a zone begins with there: what is not planned goes first, what is otherwise is changed, what is right is left', () => {
    const begins = ['@ A 203.0.113.7', 'www CNAME {zone}.', 'ftp A 203.0.113.7', '@ NS one.host.test.', '@ MX 0 {zone}.'];
    expect(sheet({ habits: habits({ begins }) })).toEqual([
      'delete ftp A 203.0.113.7',
      'edit @ A 203.0.113.7 > 192.0.2.2',
      'edit @ MX zone.test > mx.post.test',
    ]);
  });

  it('goes from what the panel shows, whatever a zone usually begins with', () => {
    const shown = [set('zone.test.', 'A', '192.0.2.2'), set('panel.zone.test.', 'TXT', '"made by itself"'), set('zone.test.', 'SOA', 'a. b. 1 2 3 4 5')];
    expect(sheet({ shown, habits: habits({ begins: ['ftp A 203.0.113.7'] }) })).toEqual([
      'delete panel TXT made by itself',
      'add www CNAME zone.test',
      'add @ MX mx.post.test',
    ]);
    expect(sheet({ shown, habits: habits({ locks: ['panel TXT', '@ mx'] }) })).toEqual(['add www CNAME zone.test']);
  });
});

describe('a sheet in place', () => {
  it('goes from what was found, or from what the panel shows, and deletes nothing of others', () => {
    expect(sheet({}, 'repoint')).toEqual(['delete old A 192.0.2.9', 'edit @ A 192.0.2.1 > 192.0.2.2']);
    const shown = [set('zone.test.', 'A', '192.0.2.2'), set('else.zone.test.', 'A', '192.0.2.3')];
    expect(sheet({ shown }, 'repoint')).toEqual([]);
  });
});

describe('what is known of a DNS host', () => {
  it.each([
    ['@', 'no record: a name, a type and a value'],
    ['www A', 'no record: a name, a type and a value'],
    ['www A 192.0.2.300', 'is no record'],
    ['www NOSUCH x', 'is no record'],
    [`${'a'.repeat(64)} A 192.0.2.1`, 'is no record'],
  ])('names the line of what a zone begins with that is none: %s', (line, problem) => {
    expect(() => beginsWith([line], ZONE)).toThrow(problem);
  });

  it('gathers records of one name and type', () => {
    expect(beginsWith(['@ A 192.0.2.1', '@ IN A 192.0.2.2', '@ A 192.0.2.1', 'mail.{zone}. A 192.0.2.3'], ZONE)).toEqual([
      { owner: ZONE, type: 'A', ttl: 3600, data: ['192.0.2.1', '192.0.2.2'] },
      { owner: 'mail.zone.test.', type: 'A', ttl: 3600, data: ['192.0.2.3'] },
    ]);
  });

  it('tells locked rows and services that forward', () => {
    expect([lockedSet('@ ns', ZONE), lockedSet('WWW A', ZONE)]).toEqual(['zone.test./NS', 'www.zone.test./A']);
    expect(() => lockedSet('www', ZONE)).toThrow('is no row');
    expect(() => lockedSet('www NOSUCH', ZONE)).toThrow('is no row');
    const is = forwardsTo(['forward.oldquay.test', '198.51.100.64/28', '2001:db8::7']);
    expect(['mx.forward.oldquay.test.', 'FORWARD.oldquay.test.', '198.51.100.70', '2001:db8::7'].map(is)).toEqual([true, true, true, true]);
    expect(['oldquay.test.', '198.51.100.80', '2001:db8::8', '"text"'].map(is)).toEqual([false, false, false, false]);
  });
});

describe('the plan as a zone file', () => {
  it('reads back as the plan, low until finished everywhere, without what is the host’s own and what is locked', () => {
    const text = planFile(Name.parse(ZONE), RULINGS, { entry: { ...USUAL_STYLE, ttls: [120, 1800] }, habits: habits({ locks: ['www CNAME'] }) });
    const { records } = parseZoneFile(text, Name.parse('elsewhere.test.'));
    expect(groupRecords(records).map(rrsetToText)).toEqual([
      { owner: ZONE, type: 'A', ttl: 120, data: ['192.0.2.2'] },
      { owner: ZONE, type: 'MX', ttl: 120, data: ['10 mx.post.test.'] },
    ]);
    const settled = parseZoneFile(planFile(Name.parse(ZONE), RULINGS, { entry: null }, 'settled'), Name.parse('elsewhere.test.')).records;
    const lines = (all: readonly (RRsetText | undefined)[]): string[] =>
      all.flatMap((one) => (one ? [`${one.owner} ${one.ttl} ${one.type} ${one.data.join()}`] : [])).sort();
    expect(lines(groupRecords(settled).map(rrsetToText))).toEqual(lines(RULINGS.map((row) => row.planned)));
  });
});
