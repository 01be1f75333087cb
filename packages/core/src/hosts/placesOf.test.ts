import { commonServers, dnsHostOf, registrarOf } from './placesOf';

const host = (id: string, role: string, ...nameservers: string[]) => ({ id, name: id.toUpperCase(), role, nameservers });

describe('the registrar of a move', () => {
  const two = [host('a', 'registrar'), host('b', 'registrar'), host('c', 'dns')];

  it('is the one that somebody chose, else the one that registration data names, and never one because no other is known', () => {
    expect(registrarOf(two, { chosen: 'b', named: 'A' })?.id).toBe('b');
    expect(registrarOf(two, { chosen: null, named: 'a' })?.id).toBe('a');
    expect(registrarOf(two, { chosen: null, named: 'unknown to us' })).toBeUndefined();
    expect(registrarOf(two, { chosen: null, named: null })).toBeUndefined();
    expect(registrarOf(two.slice(1), { chosen: null, named: null })).toBeUndefined();
    expect(registrarOf(two.slice(1), { chosen: null, named: 'somebody else' })).toBeUndefined();
  });
});

describe('the DNS host of a domain', () => {
  const hosts = [host('quay', 'dns', 'ns1.quay.example.', 'ns2.quay.example.', 'ns3.quay.example.'), host('web', 'web', 'ns1.web.example.')];

  it('is the one that the move goes by, else the one that has all of its nameservers', () => {
    expect(dnsHostOf(hosts, 'quay', [])?.id).toBe('quay');
    expect(dnsHostOf(hosts, null, ['NS1.quay.example.', 'ns3.quay.example.'])?.id).toBe('quay');
    expect(dnsHostOf(hosts, null, ['ns1.quay.example.', 'ns9.other.example.'])).toBeUndefined();
    expect(dnsHostOf(hosts, null, ['ns1.web.example.'])).toBeUndefined();
    expect(dnsHostOf(hosts, null, [])).toBeUndefined();
  });
});

it.each([
  [
    ['a.pebble.example.', 'b.pebble.example.', 'ns2.quay.example.'],
    ['a.pebble.example.', 'b.pebble.example.'],
  ],
  [
    ['ns1.east.host.example.', 'ns2.west.host.example.', 'ns.other.example.'],
    ['ns1.east.host.example.', 'ns2.west.host.example.'],
  ],
  [
    ['ns1.host.example.', 'ns2.host.test.'],
    ['ns1.host.example.', 'ns2.host.test.'],
  ],
  [[], []],
])('of %j the nameservers of one host are %j', (names, common) => expect(commonServers(names)).toEqual(common));
