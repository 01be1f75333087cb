import { Name } from '../../dns/name';
import { checkInput, planLine } from '../../testing/planLine';
import { PanelTtls } from '../../hosts/enter';
import { leastTtl } from './leastTtl';

const ZONE = Name.parse('canoes.test.');
const said = (ttls: PanelTtls | null, ttl: number, line = 'carry shop A 192.0.2.9') => {
  const row = planLine(ZONE, line);
  return leastTtl(checkInput(ZONE, [{ ...row, planned: row.planned && { ...row.planned, ttl } }], { ttls }));
};

describe('a TTL that the new host does not take', () => {
  it('is told with the least that it does, which the fix plans', () => {
    const [one] = said({ ttls: [], leastTtl: 600 }, 300);
    expect([one!.weight, one!.text]).toEqual(['look', 'The new host takes no TTL under 600 s: it cannot be given 300.']);
    expect(one!.fixes.map(({ rows }) => rows.map(({ row }) => [row?.ruling, row?.planned?.ttl, row?.planned?.data]))).toEqual([
      [['repoint', 600, ['192.0.2.9']]],
    ]);
    expect(said({ ttls: [900, 14_400] }, 300)[0]!.text).toMatch(/under 900 s/);
  });

  it('is one that it takes, or that nobody gives', () => {
    expect(said({ ttls: [], leastTtl: 600 }, 600)).toEqual([]);
    expect(said({ ttls: [900, 14_400] }, 3600)).toEqual([]);
    expect(said({ ttls: [] }, 0)).toEqual([]);
    expect(said({ ttls: null }, 1)).toEqual([]);
    expect(said(null, 1)).toEqual([]);
    expect(said({ ttls: [], leastTtl: 600 }, 300, 'drop shop A 192.0.2.9')).toEqual([]);
  });
});
