import { NEW, WWW, legOf, plan, planned, rows, work } from '../testing/moving';
import { adoptable, notOurs } from './adopt';

const [first, second] = plan.newServers.map((one) => one.address) as [string, string];
const answered = (address: string) => ({ [WWW]: { ttl: 60, data: [address] } });
const zones = [
  ...rows(NEW[0]!, first, [0, 100, planned(answered('192.0.2.77'))]),
  ...rows(NEW[1]!, second, [0, 100, planned({ ...answered('192.0.2.78'), 'mail.zone.test./A': { ttl: 60, data: [] } })]),
];

describe('what is otherwise than planned', () => {
  it('is taken from the new host once a set, as the first server answers it, what is gone among it', () => {
    expect(adoptable(legOf({ now: 100, zones }), 'new')).toEqual([
      { owner: 'www.zone.test.', type: 'A', data: ['192.0.2.77'], ttl: 60 },
      { owner: 'mail.zone.test.', type: 'A', data: [], ttl: 60 },
    ]);
  });

  it('is taken from the old host as it drifted', () => {
    const change = { owner: 'www.zone.test.', type: 'A', before: { ttl: 3600, data: ['192.0.2.1'] }, after: null };
    expect(adoptable(legOf({ now: 100, zones, seen: { drift: { at: 90, problem: null, changes: [change] } } }), 'old')).toEqual([
      { owner: 'www.zone.test.', type: 'A', data: [], ttl: 0 },
    ]);
    expect(adoptable(legOf({ now: 100, seen: { drift: undefined } }), 'old')).toEqual([]);
  });

  it('is not ours where data stands: as the push found it before as it is answered', () => {
    const push = work('stopped', { foreign: [{ key: WWW, data: ['192.0.2.79'] }] });
    expect([...notOurs(legOf({ now: 100, zones }))]).toEqual([[WWW, ['192.0.2.77']]]);
    expect([...notOurs(legOf({ now: 100, zones, work: { push } }))]).toEqual([[WWW, ['192.0.2.79']]]);
  });
});
