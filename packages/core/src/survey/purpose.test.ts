import fc from 'fast-check';
import { Name } from '../dns/name';
import { groupRecords } from '../dns/record';
import { parseZoneFile } from '../dns/zoneFile';
import { typeMnemonic } from '../dns/typeNames';
import { inReadingOrder, meaningsOf } from './purpose';

const ZONE = Name.parse('kelp-forge.example.');
const setsOf = (text: string) => groupRecords(parseZoneFile(`$TTL 60\n${text}\n`, ZONE).records);
const purposeOf = (text: string): string => {
  const sets = setsOf(text);
  return meaningsOf(ZONE, sets).get(sets.at(-1)!)!.purpose;
};

describe('what a record set serves', () => {
  it.each([
    ['@ A 192.0.2.1', 'website'],
    ['www CNAME edge.thornwick.example.', 'website'],
    ['@ MX 10 a.', 'mail in'],
    ['@ TXT "v=spf1 -all"', 'sender policy'],
    ['_dmarc TXT "v=DMARC1; p=none"', 'sender policy'],
    ['sel._domainkey CNAME sel.brinepost.example.', 'mail out'],
    ['_mta-sts TXT "v=STSv1; id=1"', 'mail in'],
    ['@ TXT "site-proof=k2f9"', 'verification'],
    ['@ TXT "winter opening hours"', 'unknown'],
    ['_acme-challenge TXT "abc"', 'certificates'],
    ['@ CAA 0 issue "certs.example"', 'certificates'],
    ['_sip._tcp SRV 1 1 5060 a.', 'voice'],
    ['_caldavs._tcp SRV 1 1 443 a.', 'calendar and devices'],
    ['autodiscover CNAME a.', 'calendar and devices'],
    ['vpn A 192.0.2.1', 'infrastructure'],
    ['smtp A 192.0.2.1', 'mail out'],
    ['zebra A 192.0.2.1', 'unknown'],
    ['sub NS a.', 'infrastructure'],
  ])('%s: %s', (text, purpose) => expect(purposeOf(text)).toBe(text.startsWith('sub NS') ? 'delegated subzone' : purpose));

  it('is read by what numbers count to, with what stands below a name after it', () => {
    const namesOf = (names: readonly string[]): string[] => {
      const sets = groupRecords(parseZoneFile(`$TTL 60\n${names.map((name) => `${name} TXT x`).join('\n')}\n`, ZONE).records);
      return inReadingOrder(ZONE, sets).map((set) => set.owner.relativeTo(ZONE));
    };
    const counted = ['shop', 'web', 'web-a', 'web1', 'a.web1', 'web2', 'web9-x', 'web02', 'web10', 'web10a', 'web100', 'webb', 'z2-10', 'z10-2'];
    expect(namesOf([...counted].reverse())).toEqual(counted);
    fc.assert(
      fc.property(fc.uniqueArray(fc.stringMatching(/^[ab]?(0|[1-9]\d{0,11})[ab]?(\.[ab]?\d{1,3}){0,2}$/), { maxLength: 30 }), (names) => {
        const read = namesOf(names);
        expect([...read].sort()).toEqual([...names].sort());
        for (const name of read) {
          // What stands at or below a name stands together, the name itself first.
          const below = read.flatMap((one, index) => (one === name || one.endsWith(`.${name}`) ? [index] : []));
          expect(below.at(-1)! - below[0]!).toBe(below.length - 1);
          expect(read[below[0]!]).toBe(name);
        }
        const numbers = read.filter((name) => /^\d{1,10}$/.test(name)).map(Number);
        expect(numbers).toEqual([...numbers].sort((a, b) => a - b));
      }),
    );
  });

  it('names addresses in a zone of these, which stand in their order', () => {
    const zone = Name.parse('51.198.in-addr.arpa.');
    const lines = ['100.7 PTR a.', '25.7 PTR b.', '9.7 PTR c.', '3.12 PTR d.', '64-127.7 NS e.', '@ TXT x'];
    const sets = groupRecords(parseZoneFile(`$TTL 60\n${lines.join('\n')}\n`, zone).records);
    expect(inReadingOrder(zone, sets).map((set) => set.owner.relativeTo(zone))).toEqual(['@', '9.7', '25.7', '64-127.7', '100.7', '3.12']);
    expect(meaningsOf(zone, sets).get(sets.find((set) => set.owner.equals(Name.parse('9.7', zone)))!)!.purpose).toBe('infrastructure');
    expect(purposeOf('_services._dns-sd._udp PTR a.')).not.toBe('infrastructure');
  });

  it('follows what leads to it: the target of a mail exchange is for mail, whatever its name', () => {
    const sets = setsOf('@ MX 10 zebra\nzebra A 192.0.2.1');
    expect(meaningsOf(ZONE, sets).get(sets.find((set) => set.owner.equals(ZONE.child('zebra')))!)).toEqual({
      purpose: 'mail in',
      reason: 'MX of @ leads here',
    });
  });

  it('puts the domain first, then www, mail, and the rest', () => {
    const sets = setsOf('zebra A 192.0.2.1\nmail A 192.0.2.2\nwww A 192.0.2.3\n@ A 192.0.2.4\nalpha A 192.0.2.5\n@ MX 10 mail\n_dmarc TXT "v=DMARC1; p=none"');
    expect(inReadingOrder(ZONE, sets).map((set) => `${set.owner.relativeTo(ZONE)} ${typeMnemonic(set.type)}`)).toEqual([
      '@ A',
      '@ MX',
      'www A',
      '_dmarc TXT',
      'mail A',
      'alpha A',
      'zebra A',
    ]);
  });
});
