import fc from 'fast-check';
import { isFirstUse } from '../move/firstUse';
import { gateOf, gateLooks } from '../move/gate';
import { dueOf } from '../move/due';
import { nextOf } from '../move/next';
import { LegPlan } from '../move/plan';
import { ParentSight, ZoneSight } from '../move/seen';
import { stepsOf } from '../move/steps';
import { NEW, decision, legOf, plan, planned, published, rows, ruling, work } from '../testing/moving';

const denial = (N: number): ParentSight => ({ nameservers: [], ttl: N, glue: [], ds: [], dsTtl: 0 });
const first: Partial<LegPlan> = {
  oldNameservers: [],
  oldServers: [],
  oldHost: undefined,
  rulings: [ruling('www.zone.test.', 'A', 'new', 3600, undefined, ['192.0.2.2'])],
};
const served = (now: number) => plan.newServers.flatMap((one) => rows(one.server, one.address, [100, now, planned()]));

describe('a domain to which nothing was delegated before', () => {
  it('has no step for what was there before, and no gate that waits for it', () => {
    const now = 1000;
    const probe = legOf({ now, plan: first });
    const leg = legOf({
      ...{ now, plan: first, decisions: [decision('hosts'), decision('push')] },
      parent: [...rows('a.nic.test.', '192.0.2.53', [0, now, denial(900)]), ...rows('b.nic.test.', '192.0.2.54', [0, now, denial(900)])],
      zones: served(now),
      work: { push: work('done', { plan: probe.pushes }) },
      seen: { looked: { parent: now, new: now }, drift: undefined },
    });
    expect(isFirstUse(leg.plan)).toBe(true);
    expect(stepsOf(leg).map((step) => step.rule.id)).toEqual(['survey', 'choose', 'push', 'served', 'switch', 'settle', 'raise', 'close']);
    expect(gateOf(leg).lines.map((line) => [line.key, line.holds])).toEqual([
      ['served', true],
      ['remarks', true],
      ['ds', true],
      ['run out', true],
    ]);
    expect(gateOf(leg).open).toBe(true);
    expect(gateLooks(leg.plan)).toEqual(['parent', 'new']);
    expect(nextOf(leg)).toMatchObject({ step: 'switch', who: 'you' });
    // A lookout that is asked beforehand holds the denial that was not there without it.
    expect(dueOf(leg).map((due) => due.id)).not.toContain('lookouts');
  });

  it('asks servers to which the parent has led in between, and is not over before what they gave has run out', () => {
    const third = ['ns1.third.test.'];
    const parked: ZoneSight = {
      serial: null,
      refused: false,
      sets: { 'www.zone.test./A': { ttl: 5000, data: ['192.0.2.99'] }, 'zone.test./NS': { ttl: 60, data: third } },
    };
    const leg = legOf({
      ...{ now: 1000, plan: first },
      parent: rows('a.nic.test.', '192.0.2.53', [0, 100, denial(900)], [200, 300, published(third)], [400, 1000, published(NEW)]),
      zones: [...served(1000), ...rows(third[0]!, '192.0.2.66', [200, 1000, parked])],
    });
    expect(dueOf(leg).map((due) => due.id)).toContain('old');
    // Led there until 400 + 600, where a TTL of 5,000 s is given until then.
    expect(leg.times.last.at).toBeGreaterThanOrEqual(400 + 600 + 5000);
  });

  /**
   * The world second by second: each parent server denies or delegates, with its own TTL; somebody looks every ten seconds. A cache asks
   * one server at one second and believes it until that second and the TTL; the last second at which any cache can deny is what the
   * leg may not be settled before, and quiet worlds are not later than two looks after it.
   */
  it('is over when the parent’s last denial has run out, in every world and by the second', () => {
    const servers = fc.array(
      fc.record({ until: fc.integer({ min: 20, max: 90 }), N: fc.integer({ min: 1, max: 60 }), relapse: fc.option(fc.integer({ min: 1, max: 20 })) }),
      {
        minLength: 1,
        maxLength: 3,
      },
    );
    fc.assert(
      fc.property(servers, (parents) => {
        const END = 300;
        const denies = parents.map(
          ({ until, relapse }) =>
            (at: number): boolean =>
              at < until || (relapse !== null && at >= until + 30 && at < until + 30 + relapse),
        );
        let last = -1;
        for (const [index, { N }] of parents.entries()) for (let at = 0; at < END; at++) if (denies[index]!(at)) last = Math.max(last, at + N);
        const seen = parents.flatMap(({ N }, index) => {
          const runs: [number, number, ParentSight][] = [];
          for (let at = 0; at <= END; at += 10) {
            const value = denies[index]!(at) ? denial(N) : published(NEW);
            const before = runs.at(-1);
            if (before && before[2].nameservers.length === value.nameservers.length) before[1] = at;
            else runs.push([at, at, value]);
          }
          return rows(`${'abc'[index]!}.nic.test.`, `192.0.2.${50 + index}`, ...runs);
        });
        const leg = legOf({ now: END, plan: first, parent: seen, zones: served(END) });
        expect(leg.times.t0).toBeDefined();
        // What relapses between two looks is seen by nobody.
        const missed = parents.some(({ until, relapse }) => relapse !== null && Math.ceil((until + 30) / 10) * 10 >= until + 30 + relapse);
        fc.pre(!missed);
        expect(leg.times.last.at).toBeGreaterThanOrEqual(last);
        if (parents.every((one) => one.relapse === null)) expect(leg.times.last.at).toBeLessThanOrEqual(last + 1 + 20);
      }),
    );
  });
});
