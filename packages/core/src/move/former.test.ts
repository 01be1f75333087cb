import { OLD, RULINGS, answers, decision, legOf, plan, planned, published, rows, ruling, work } from '../testing/moving';
import { raisedZone } from '../rebuild/zoneAfter';
import { rrsetFromText, rrsetToText } from '../dns/record';
import { formerOf, isTooLate } from './former';
import { Leg } from './leg';
import { LegPlan, setKey } from './plan';
import { stepOf, stepsOf } from './steps';

const leg = (more: Partial<Parameters<typeof legOf>[0]> = {}): Leg =>
  legOf({
    now: 2000,
    parent: rows('a.nic.test.', '192.0.2.53', [0, 2000, published(OLD)]),
    zones: [
      ...plan.oldServers.flatMap(({ server, address }) => rows(server, address, [0, 2000, answers(300)])),
      ...plan.newServers.flatMap(({ server, address }) => rows(server, address, [0, 2000, planned()])),
    ],
    ...more,
  });
const ids = (one: Leg): string[] => stepsOf(one).flatMap(({ rule }) => (rule.id.startsWith('unused:') ? [rule.id] : []));

describe('what stands of a way once another is chosen', () => {
  it('is nothing where nothing was done', () => {
    expect(formerOf(leg({ decisions: [decision('approve'), decision('push')] }), 'h1')).toEqual({ pushed: [], lowered: [] });
  });

  it('is the zone where it went, by push or by hand, and the TTLs that were lowered', () => {
    const lowered = [setKey('www.zone.test.', 'A'), setKey('zone.test.', 'NS')];
    expect(formerOf(leg({ work: { push: work('trying'), lower: work('done') } }), 'h1')).toEqual({ pushed: [{ id: 'h1', name: 'New DNS' }], lowered });
    expect(formerOf(leg({ decisions: [decision('leave', 'push')] }), 'h1').pushed).toEqual([{ id: 'h1', name: 'New DNS' }]);
    expect(formerOf(leg({ decisions: [decision('typed', 'x', true)] }), 'h1').pushed).toHaveLength(1);
    expect(formerOf(leg({ plan: { kind: 'repoint' }, work: { change: work('trying') } }), 'h1').pushed).toEqual([]);
  });

  it('adds up over several ways, each host once', () => {
    const former = {
      pushed: [
        { id: 'h1', name: 'New DNS' },
        { id: 'h2', name: 'Third DNS' },
      ],
      lowered: ['x.zone.test./A'],
    };
    const now = formerOf(leg({ plan: { former }, work: { push: work('done') } }), 'h1');
    expect(now).toEqual({
      pushed: [
        { id: 'h2', name: 'Third DNS' },
        { id: 'h1', name: 'New DNS' },
      ],
      lowered: ['x.zone.test./A'],
    });
  });

  it('is a step at each host to which nothing leads, and none at the one that was chosen again', () => {
    const former = {
      pushed: [
        { id: 'h1', name: 'New DNS' },
        { id: 'h2', name: 'Third DNS' },
      ],
      lowered: [],
    };
    const at = (id: string, more: Partial<LegPlan> = {}): Partial<LegPlan> => ({ former, newHost: { id, name: 'New DNS', keyed: true, fronts: [] }, ...more });
    expect(ids(leg({ plan: at('h1') }))).toEqual(['unused:h2']);
    expect(ids(leg({ plan: at('h1', { kind: 'repoint' }) }))).toEqual(['unused:h1', 'unused:h2']);
    expect(ids(leg({ plan: at('h1', { chosen: false }) }))).toEqual([]);
    const state = (...decisions: Parameters<typeof decision>[]): unknown =>
      stepOf(leg({ plan: at('h1'), decisions: decisions.map((one) => decision(...one)) }), 'unused:h2')!.standing.state;
    expect([state(), state(['done', 'unused:h2']), state(['leave', 'unused:h2'])]).toEqual(['ready', 'done', 'left']);
  });

  it('has its TTLs raised with the rest, where the records change in place', () => {
    const rulings = [...RULINGS.filter((row) => row.type !== 'NS'), ruling('zone.test.', 'NS', 'carry', 3600, OLD, OLD)];
    const served = ['www.zone.test. A 192.0.2.2', 'zone.test. MX 10 mail.zone.test.', `zone.test. NS ${OLD[0]!}`].map((line) => {
      const [owner, type, ...data] = line.split(' ') as [string, string, ...string[]];
      return rrsetFromText({ owner, type, ttl: 300, data: type === 'NS' ? OLD : [data.join(' ')] });
    });
    const ttls = (lowered: readonly string[]): number[] =>
      raisedZone({ kind: 'repoint', rulings, former: { pushed: [], lowered } }, served).map((set) => rrsetToText(set).ttl);
    expect(ttls([])).toEqual([3600, 300, 300]);
    expect(ttls([setKey('zone.test.', 'NS')])).toEqual([3600, 300, 3600]);
  });
});

describe('another way', () => {
  it('can be chosen until the cutover, and not once the old zone is turned', () => {
    expect(isTooLate(leg({ work: { push: work('done'), lower: work('done') } }))).toBeUndefined();
    expect(isTooLate(leg({ decisions: [decision('submitted', '', null, 1900)] }))).toMatch(/under way/);
    expect(isTooLate(leg({ work: { turn: work('done') } }))).toMatch(/leads to the new servers/);
    expect(isTooLate(leg({ plan: { chosen: false }, decisions: [decision('submitted', '', null, 1900)] }))).toBeUndefined();
  });
});
