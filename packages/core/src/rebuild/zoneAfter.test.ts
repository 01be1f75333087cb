import { RRset, rrsetFromText, rrsetToText } from '../dns/record';
import { keyOf } from '../move/plan';
import { AnswerSight, ZoneSight } from '../move/seen';
import { NEW, plan } from '../testing/moving';
import { hasTurned } from '../timetable/newSet';
import { changedZone, loweredZone, raisedZone, turnedZone } from './zoneAfter';

const set = (owner: string, type: string, ttl: number, ...data: string[]): RRset => rrsetFromText({ owner, type, ttl, data });
const shown = (sets: readonly RRset[]): string[] =>
  sets.map((one) => rrsetToText(one)).map(({ owner, type, ttl, data }) => `${owner} ${ttl} ${type} ${[...data].sort().join(' ')}`);

/** As a server with this zone would be seen. */
const sight = (sets: readonly RRset[]): ZoneSight => ({
  serial: null,
  refused: false,
  sets: Object.fromEntries(sets.map((one): [string, AnswerSight] => [keyOf(one.owner, one.type), { ttl: one.ttl, data: [...rrsetToText(one).data].sort() }])),
});

describe('the zone at a host', () => {
  it('has its TTLs lowered where the plan changes it, never raised, and its data kept', () => {
    const served = [set('www.zone.test.', 'A', 3600, '192.0.2.1'), set('zone.test.', 'MX', 3600, '10 mail.zone.test.'), set('zone.test.', 'NS', 60, ...NEW)];
    expect(shown(loweredZone(plan, served, 300))).toEqual([
      'www.zone.test. 300 A 192.0.2.1',
      'zone.test. 3600 MX 10 mail.zone.test.',
      `zone.test. 60 NS ${[...NEW].sort().join(' ')}`,
    ]);
  });

  it('has only the TTLs of what is as planned raised', () => {
    const served = [
      set('www.zone.test.', 'A', 300, '192.0.2.2'),
      set('mail.zone.test.', 'A', 300, '192.0.2.99'),
      set('beside.zone.test.', 'A', 300, '192.0.2.3'),
    ];
    expect(shown(raisedZone(plan, served))).toEqual([
      'www.zone.test. 3600 A 192.0.2.2',
      'mail.zone.test. 300 A 192.0.2.99',
      'beside.zone.test. 300 A 192.0.2.3',
    ]);
  });

  it('lowers nothing while TTLs are raised: what somebody gave a longer one keeps it', () =>
    expect(shown(raisedZone(plan, [set('www.zone.test.', 'A', 86_400, '192.0.2.2')]))).toEqual(['www.zone.test. 86400 A 192.0.2.2']));

  it('keeps the TTL of what stands there as it is planned, where records change in place', () => {
    const there = [set('www.zone.test.', 'A', 3600, '192.0.2.2'), set('beside.zone.test.', 'A', 3600, '192.0.2.3')];
    const www = (served: readonly RRset[]): string[] => shown(changedZone(plan, served, 300)).filter((line) => line.startsWith('www.'));
    expect(www(there)).toEqual(['www.zone.test. 3600 A 192.0.2.2']);
    expect(www([set('www.zone.test.', 'A', 3600, '192.0.2.1')])).toEqual(['www.zone.test. 300 A 192.0.2.2']);
  });

  const servers = (...addresses: string[]) => addresses.map((address) => ({ server: 'ns1.zone.test.', address }));
  it.each([
    ['both families', ['203.0.113.1', '2001:db8::2'], ['ns1.zone.test. 300 A 203.0.113.1', 'ns1.zone.test. 300 AAAA 2001:db8::2']],
    ['only IPv4', ['203.0.113.1'], ['ns1.zone.test. 300 A 203.0.113.1']],
    ['only IPv6', ['2001:db8::2'], ['ns1.zone.test. 300 AAAA 2001:db8::2']],
  ])('is seen as turned once turned, where a name stays and has %s now', (_case, addresses, expected) => {
    const staying = { ...plan, newNameservers: ['ns1.zone.test.'], oldServers: servers('198.51.100.1', '2001:db8::1'), newServers: servers(...addresses) };
    const served = [
      set('zone.test.', 'NS', 3600, 'ns1.zone.test.', 'ns2.old.test.'),
      set('NS1.zone.test.', 'A', 3600, '198.51.100.1'),
      set('ns1.zone.test.', 'AAAA', 3600, '2001:db8::1'),
      set('www.zone.test.', 'A', 3600, '192.0.2.1'),
    ];
    const turned = turnedZone(staying, served, 300);
    expect(hasTurned(staying, sight(served))).toBe(false);
    expect(hasTurned(staying, sight(turned))).toBe(true);
    expect(
      shown(turned)
        .map((line) => line.toLowerCase())
        .sort(),
    ).toEqual([...expected, 'www.zone.test. 3600 A 192.0.2.1', 'zone.test. 300 NS ns1.zone.test.'].map((line) => line.toLowerCase()).sort());
  });
});
