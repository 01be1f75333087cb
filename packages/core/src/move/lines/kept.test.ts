import { USUAL_HABITS } from '../../hosts/dnsHabits';
import { NEW, OLD, answers, decision, legOf, plan, planned, published, rows, work } from '../../testing/moving';
import { gateOf } from '../gate';
import { Leg } from '../leg';
import { LegPlan } from '../plan';
import { ZoneSight } from '../seen';
import { stepOf } from '../steps';

const drops: LegPlan['oldHost'] = { name: 'Old DNS', keyed: true, fronts: [], habits: { ...USUAL_HABITS, afterLeaving: 'drops' } };

/** Served and lowered, before the switch. */
function ready(
  old: ZoneSight,
  more: Partial<LegPlan> = {},
  done: readonly string[] = ['lower', 'push'],
  parent = rows('a.nic.test.', '192.0.2.53', [0, 9000, published(OLD)]),
): Leg {
  const now = 9000;
  const told = {
    now,
    plan: { oldHost: drops, ...more },
    parent,
    zones: [
      ...plan.oldServers.flatMap(({ server, address }) => rows(server, address, [0, 100, answers(3600)], [200, now, old])),
      ...plan.newServers.flatMap(({ server, address }) => rows(server, address, [0, now, planned()])),
    ],
    decisions: [decision('approve', '', { lowerTo: 300 }), decision('push')],
    seen: { looked: { old: now, new: now, parent: now, drift: now } },
  };
  const [pushes, lowers] = [legOf(told).pushes, legOf(told).lowers];
  return legOf({ ...told, work: Object.fromEntries(done.map((id) => [id, work('done', { plan: id === 'push' ? pushes : lowers })])) });
}
const kept = (leg: Leg) => gateOf(leg).lines.find((line) => line.key === 'kept');

describe('an old host that drops a zone once the domain is delegated elsewhere', () => {
  it('has its zone turned before the switch, and the gate waits for that', () => {
    const leg = ready(answers(300));
    expect(kept(leg)).toMatchObject({ holds: false, waivable: true });
    expect(stepOf(leg, 'turn')!.standing.state).toBe('doing');
    expect(stepOf(leg, 'switch')!.standing.state).toBe('ready');
    expect(kept(ready(answers(300, {}, NEW)))).toMatchObject({ holds: true });
  });

  it('is not turned before the new host serves the plan and the TTLs are seen lowered', () => {
    const early = ready(answers(3600));
    expect([stepOf(early, 'lowered')!.standing.state, stepOf(early, 'turn')!.standing.state]).toEqual(['doing', 'waiting']);
    const unserved = ready(answers(300), {}, ['lower']);
    expect(stepOf(unserved, 'turn')!.standing.state).toBe('waiting');
  });

  it('is not turned while validating resolvers hold a DS: those that go by its answers would ask servers with other keys', () => {
    const ds = ['1 13 2 aa'];
    const signed = (last: readonly string[]): Leg =>
      ready(
        answers(300),
        {},
        ['lower', 'push'],
        rows('a.nic.test.', '192.0.2.53', [0, 8700, published(OLD, { ds: [...ds], dsTtl: 86_400 })], [8800, 9000, published(OLD, { ds: [...last] })]),
      );
    expect(stepOf(signed(ds), 'turn')!.standing.state).toBe('waiting');
    // It is gone, and may be remembered for a day.
    expect([stepOf(signed([]), 'ds-gone')!.standing.state, stepOf(signed([]), 'turn')!.standing.state]).toEqual(['doing', 'waiting']);
  });

  it('says nothing of a host that keeps it, of records in place, of a way back', () => {
    const host = (more: object): LegPlan['oldHost'] => ({ ...drops, ...more });
    expect(kept(ready(answers(300), { oldHost: host({ habits: USUAL_HABITS }) }))).toBeUndefined();
    expect(stepOf(ready(answers(300), { oldHost: host({ habits: USUAL_HABITS }) }), 'turn')!.standing.state).toBe('waiting');
    expect(kept(ready(answers(300), { kind: 'repoint' }))).toBeUndefined();
    expect(kept(ready(answers(300), { isBack: true }))).toBeUndefined();
  });
});
