import { Name } from './name';
import { parseZoneFile } from './zoneFile';
import { checkZone } from './zoneRules';

const zone = Name.parse('zone.example.');
const BASE = '$TTL 60\n@ SOA ns1 h 1 2 3 4 5\n@ NS ns1\nns1 A 192.0.2.1\n';
const codes = (text: string, base = BASE): string[] =>
  checkZone(parseZoneFile(base + text, zone), zone).findings.map((finding) => `${finding.line} ${finding.severity} ${finding.code}`);

describe('zone rules', () => {
  it.each<[string, string[]]>([
    ['', []],
    ['a CNAME b\na TXT x', ['6 error alias-beside-data']],
    ['a TXT x\na CNAME b', ['6 error alias-beside-data']],
    ['a CNAME b\na NSEC b. CNAME', []],
    ['a CNAME b\na CNAME c', ['6 error more-than-one']],
    ['sub DNAME x.\nsub DNAME y.', ['6 error more-than-one']],
    ['x SOA a b 1 2 3 4 5', ['5 error soa-below-apex']],
    [`@ DS 1 8 2 ${'AA'.repeat(32)}`, ['5 error ds-at-apex']],
    ['sub NS ns1\nsub DS 1 8 2 AA', ['6 error bad-data']],
    ['*.x NS ns1', ['5 error ns-wildcard']],
    ['@ NS nowhere', ['5 error target-without-address']],
    ['@ NS alias\nalias CNAME ns1', ['5 error target-is-alias']],
    ['sub NS nowhere', ['5 warning target-without-address']],
    ['sub NS ns.sub', ['5 warning missing-glue']],
    ['sub NS ns.sub\nns.sub A 192.0.2.9', []],
    ['sub NS ns1\nx.sub TXT y', ['6 warning hidden']],
    ['d DNAME other.example.\nx.d TXT y', ['6 warning hidden']],
    ['a MX 10 nowhere', ['5 warning target-without-address']],
    ['a MX 10 alias\nalias CNAME ns1', ['5 warning target-is-alias']],
    ['a MX 0 .', []],
    ['a MX 10 x.wild\n*.wild A 192.0.2.3', []],
    ['a MX 10 mx.other.example.', []],
    ['a SRV 1 2 3 nowhere', ['5 warning target-without-address']],
    ['a A 192.0.2.1\na A 192.0.2.1', ['6 warning repeated']],
    ['a NS b.\na NS B.', ['6 warning repeated']],
    ['a 60 A 192.0.2.1\na 30 A 192.0.2.2', ['6 warning ttl-differs']],
    ['a.other.example. A 192.0.2.1', ['5 warning out-of-zone']],
    ['a A nonsense', ['5 error syntax']],
  ])('%j: %j', (text, wanted) => expect(codes(text)).toEqual(wanted));

  it('ask for SOA and NS at the apex', () => {
    expect(codes('', '$TTL 60\n@ NS ns1\nns1 A 192.0.2.1\n')).toEqual(['2 error no-soa']);
    expect(codes('', '$TTL 60\n@ SOA ns1 h 1 2 3 4 5\n')).toEqual(['2 error no-ns']);
  });

  it('leave what a server would serve: no repetitions, one TTL a set, in canonical order', () => {
    const { loads, records } = checkZone(
      parseZoneFile(`${BASE}b 60 A 192.0.2.1\nb 30 A 192.0.2.2\nb 60 A 192.0.2.1\nx.other.example. A 192.0.2.1\nA A 192.0.2.3`, zone),
      zone,
    );
    expect(loads).toBe(true);
    expect(records.map((one) => `${one.owner.relativeTo(zone)} ${one.ttl}`)).toEqual(['@ 60', '@ 60', 'A 60', 'b 60', 'b 60', 'ns1 60']);
  });
});
