import { APEX_NS, OLD, RULINGS, WWW, answers, legOf, plan, planned, published, rows, ruling } from '../testing/moving';
import { HOSTS_OWN } from '../rebuild/ruling';
import { askedOfNew, askedOfOld, strangersNamed } from './asked';

describe('what servers are asked', () => {
  it('is what changes at the old ones, and what some server answered otherwise than planned', () => {
    expect(askedOfOld(legOf({ now: 0 }))).toEqual([APEX_NS, WWW]);
    const zones = rows(OLD[0]!, '198.51.100.1', [0, 10, answers(60, { 'mail.zone.test./A': { ttl: 60, data: ['192.0.2.99'] } })]);
    expect(askedOfOld(legOf({ now: 10, zones }))).toContain('mail.zone.test./A');
  });

  it('is from the switch on what is kept as well: whoever is led there gets what somebody edits there', () => {
    const parent = rows('a.nic.test.', '192.0.2.53', [0, 10, published([...plan.newNameservers])]);
    expect(askedOfOld(legOf({ now: 10, parent }))).toEqual([APEX_NS, WWW, 'zone.test./MX', 'mail.zone.test./A']);
  });

  it('is a name that stays and moves in both families, and keys where there were some', () => {
    const staying = { newServers: [{ server: OLD[0]!, address: '203.0.113.9' }], keysTtl: 3600 };
    expect(askedOfOld(legOf({ now: 0, plan: staying }))).toEqual([APEX_NS, WWW, `${OLD[0]}/A`, `${OLD[0]}/AAAA`, 'zone.test./DNSKEY']);
  });

  it('is the whole ledger at the new ones, without what the host makes', () => {
    const own = (type: string) => ({ ...ruling('zone.test.', type, 'drop', 60, [], undefined), reason: HOSTS_OWN });
    const rulings = [...RULINGS, own('DNSKEY'), own('SOA')];
    expect(askedOfNew(legOf({ now: 0, plan: { rulings } }))).toEqual([APEX_NS, WWW, 'zone.test./MX', 'mail.zone.test./A']);
  });

  it('goes to servers that are named and stand in neither set, in any spelling', () => {
    const parent = rows('a.nic.test.', '192.0.2.53', [0, 10, published([OLD[0]!.toUpperCase(), 'ns9.other.test.'])]);
    const zones = rows(plan.newServers[0]!.server, '203.0.113.1', [0, 10, planned({ [APEX_NS]: { ttl: 60, data: ['NS8.other.test.', 'ns9.other.test.'] } })]);
    expect(strangersNamed(legOf({ now: 10, parent, zones }))).toEqual(['ns9.other.test.', 'ns8.other.test.']);
  });
});
