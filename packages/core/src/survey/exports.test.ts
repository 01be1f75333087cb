import { Name } from '../dns/name';
import { RRset, groupRecords } from '../dns/record';
import { parseZoneFile } from '../dns/zoneFile';
import { checkZone } from '../dns/zoneRules';
import { exportRows, exportZoneFile } from './exports';

const ZONE = Name.parse('kelp-forge.example.');
const sets = groupRecords(
  parseZoneFile(
    '$TTL 60\n@ A 192.0.2.1\n@ SOA ns1.a. h.a. 1 2 3 4 5\n@ NS ns1.a.\nx TXT "=HYPERLINK(1)" "a,b \\"c\\""\n-cmd A 192.0.2.3\nodd TYPE65400 \\# 2 00ff\n',
    ZONE,
  ).records,
).map((set: RRset) => ({ set, evidence: '@evidence', purpose: 'unknown' }));

describe('an inventory taken along', () => {
  it('as a zone file loads, holds every record, and says what it lacks', () => {
    const text = exportZoneFile(ZONE, sets, ['The inventory is incomplete.\nA second line.']);
    expect(text.split('\n').slice(0, 2)).toEqual(['; kelp-forge.example.', '; The inventory is incomplete. A second line.']);
    const { loads, records } = checkZone(parseZoneFile(text, ZONE), ZONE);
    expect([loads, records.length]).toEqual([true, 6]);
    expect(text.split('\n')[2]).toMatch(/ IN SOA /);
  });

  it('as a table has a row a record', () => {
    expect(exportRows(sets)).toContainEqual(['x.kelp-forge.example.', 'TXT', '60', '"=HYPERLINK(1)" "a,b \\"c\\""', 'unknown', '@evidence']);
    expect(exportRows(sets)).toHaveLength(6);
  });
});
