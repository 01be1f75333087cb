import { Name } from '../dns/name';
import { RRset, rrsetFromText, rrsetKey } from '../dns/record';
import { ruling } from '../testing/moving';
import { driftFromPlan, stillDrifting } from './driftFromPlan';

const ZONE = Name.parse('zone.test.');
const set = (owner: string, type: string, ttl: number, ...data: string[]): RRset => rrsetFromText({ owner, type, ttl, data });
const rulings = [
  ruling('www.zone.test.', 'A', 'repoint', 3600, ['192.0.2.1', '192.0.2.2'], ['192.0.2.9']),
  ruling('gone.zone.test.', 'A', 'carry', 3600, ['192.0.2.3'], ['192.0.2.3']),
  ruling('zone.test.', 'NS', 'drop', 3600, ['ns1.old.test.'], undefined),
];

describe('what the old zone holds otherwise than the plan was made from', () => {
  it('is data, not TTLs, order, or what belongs to the host', () => {
    const same = [set('WWW.zone.test.', 'A', 300, '192.0.2.2', '192.0.2.1'), set('gone.zone.test.', 'A', 60, '192.0.2.3')];
    const own = [set('zone.test.', 'NS', 60, 'ns9.old.test.'), set('zone.test.', 'CDS', 60, '0 0 0 00')];
    expect(driftFromPlan(ZONE, rulings, [...same, ...own], new Set())).toEqual([]);
  });

  it('is what was added, changed or taken out, but for sets that vary anyway', () => {
    const now = [set('www.zone.test.', 'A', 300, '192.0.2.8', '192.0.2.7'), set('more.zone.test.', 'A', 60, '192.0.2.5')];
    const changes = driftFromPlan(ZONE, rulings, now, new Set());
    expect(changes.map(({ owner, after }) => [owner, after?.data])).toEqual([
      ['www.zone.test.', ['192.0.2.7', '192.0.2.8']],
      ['gone.zone.test.', undefined],
      ['more.zone.test.', ['192.0.2.5']],
    ]);
    const www = rrsetKey(now[0]!.owner, now[0]!.type);
    expect(driftFromPlan(ZONE, rulings, now, new Set([www])).map((one) => one.owner)).toEqual(['gone.zone.test.', 'more.zone.test.']);
  });

  it('ends for a set once the plan says it was found so', () => {
    const changes = driftFromPlan(ZONE, rulings, [set('www.zone.test.', 'A', 300, '192.0.2.7')], new Set());
    const taken = [{ ...rulings[0]!, found: { owner: 'www.zone.test.', type: 'A', ttl: 300, data: ['192.0.2.7'] } }, ...rulings.slice(1)];
    expect(stillDrifting(changes, rulings).map((one) => one.owner)).toEqual(['www.zone.test.', 'gone.zone.test.']);
    expect(stillDrifting(changes, taken).map((one) => one.owner)).toEqual(['gone.zone.test.']);
    expect(
      stillDrifting(
        changes,
        taken.filter((one) => one.owner !== 'gone.zone.test.'),
      ),
    ).toEqual([]);
  });
});
