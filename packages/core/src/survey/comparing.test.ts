import { Name } from '../dns/name';
import { groupRecords } from '../dns/record';
import { typeMnemonic } from '../dns/typeNames';
import { parseZoneFile } from '../dns/zoneFile';
import { comparedSets, keyQuestions, possibleCuts } from './comparing';

const ZONE = Name.parse('eel-weir.example.');
const sets = groupRecords(
  parseZoneFile(
    `$TTL 60
@ SOA ns1.a.test. h.a.test. 1 2 3 4 5
@ NS ns1.a.test.
@ A 192.0.2.1
@ MX 10 mail
mail A 192.0.2.2
www A 192.0.2.1
_dmarc TXT "v=DMARC1; p=none"
zz A 192.0.2.3
*.deep.wild A 192.0.2.4
shop NS ns.shop
ns.shop A 192.0.2.5
`,
    ZONE,
  ).records,
);
const shown = ({ owner, type }: { owner: Name; type: number }): string => `${owner.relativeTo(ZONE)} ${typeMnemonic(type)}`;

describe('what every authority is asked', () => {
  it('is every set but what signing and the child make, mail and policy first', () => {
    const all = comparedSets(ZONE, sets).map(shown);
    expect(all.slice(0, 2).sort()).toEqual(['@ MX', '_dmarc TXT']);
    expect([all.includes('zz A'), all.includes('shop NS'), all.some((one) => one.endsWith('SOA'))]).toEqual([true, false, false]);
    expect(all.indexOf('@ A')).toBeLessThan(all.indexOf('zz A'));
  });

  it('is what must not be lost as well, where it was not found', () => {
    const asked = keyQuestions(ZONE, sets).map(({ name, type }) => shown({ owner: name, type }));
    expect(asked).toEqual(expect.arrayContaining(['@ TXT', '@ CAA', '_mta-sts TXT', 'www CNAME', 'mail AAAA']));
    for (const known of ['@ MX', '@ A', '_dmarc TXT', 'www A']) expect(asked).not.toContain(known);
  });
});

describe('names at which a zone of its own may begin', () => {
  it('are all that were found and those above them, and not what is delegated', () => {
    const names = possibleCuts(ZONE, sets, false).map((name) => name.relativeTo(ZONE));
    expect(names.sort()).toEqual(['_dmarc', 'deep.wild', 'mail', 'wild', 'www', 'zz']);
  });

  it('are likely ones too where that is wanted, each once', () => {
    const names = possibleCuts(ZONE, sets, true).map((name) => name.relativeTo(ZONE));
    expect([names.includes('portal'), names.includes('shop'), names.length]).toEqual([true, false, new Set(names).size]);
  });
});
