import { NEW, OLD, answers, decision, legOf, plan, planned, published, rows, work } from '../testing/moving';
import { dueOf } from './due';
import { gateOf } from './gate';
import { Leg } from './leg';
import { Decision } from './said';
import { stepOf } from './steps';
import { SightRow, ZoneSight } from './seen';

const late = { newHost: { name: 'Late DNS', keyed: true, fronts: [], holdsEarly: false } };
const chosen = [decision('hosts'), decision('approve', '', { lowerTo: 300, lowerAt: null, plannedSwitch: null })];

function leg(now: number, more: { decisions?: Decision[]; switched?: number; zones?: SightRow<ZoneSight>[]; pushed?: boolean }): Leg {
  const decisions = [...chosen, ...(more.decisions ?? [])];
  const probe = legOf({ now, plan: late, decisions });
  const { switched } = more;
  return legOf({
    ...{ now, plan: late, decisions },
    parent: rows(
      'a.nic.test.',
      '192.0.2.53',
      [0, switched === undefined ? now : switched - 60, published(OLD)],
      ...(switched === undefined ? [] : [[switched, now, published(NEW)] as [number, number, ReturnType<typeof published>]]),
    ),
    zones: [...plan.oldServers.flatMap((one) => rows(one.server, one.address, [0, 40, answers(3600)], [100, now, answers(300)])), ...(more.zones ?? [])],
    work: { lower: work('done', { plan: probe.lowers }), ...(more.pushed ? { push: work('done', { plan: probe.pushes }) } : {}) },
    seen: { looked: { parent: now, old: now, new: now, drift: now } },
  });
}
const acts = (one: Leg): string[] =>
  dueOf(one)
    .filter((due) => due.what === 'act')
    .map((due) => due.id);
const state = (one: Leg, id: string): string | undefined => stepOf(one, id)?.standing.state;

describe('a DNS host that takes a zone only once the domain is delegated to it', () => {
  it('shuts the gate with what is unanswered and for how long, until a person lets that pass', () => {
    const shut = leg(5000, { decisions: [decision('push')] });
    const line = gateOf(shut).lines.find((one) => one.key === 'served')!;
    expect(line).toMatchObject({ holds: false, waivable: true, about: ['the domain is unanswered until the zone is pushed'] });
    expect(line.text).toContain('finds nothing for about 6 min');
    expect(line.evidence).toContain('leave the TTLs as they are');
    expect(
      gateOf(shut)
        .lines.filter((one) => !one.holds)
        .map((one) => one.key),
    ).toEqual(['served']);
    const open = leg(5000, { decisions: [decision('push'), decision('waive', 'served', { reason: 'at night', about: line.about })] });
    expect(gateOf(open).open).toBe(true);
    expect(state(open, 'switch')).toBe('ready');
  });

  it('is pushed to as soon as the parent may publish the new set, where that was decided before', () => {
    const before = leg(5000, { decisions: [decision('push')] });
    expect([state(before, 'push'), acts(before)]).toEqual(['due', []]);
    expect(acts(leg(5000, { decisions: [decision('push')], switched: 4900 }))).toEqual(['push']);
    expect(state(leg(5000, { switched: 4900 }), 'push')).toBe('ready');
  });

  it('has nobody turned to it by the old zone before the zone is there, and is not settled without it', () => {
    const there = plan.newServers.flatMap((one) => rows(one.server, one.address, [4950, 5000, planned()]));
    const lacking = leg(5000, { decisions: [decision('push')], switched: 4900, pushed: true });
    expect([state(lacking, 'turn'), lacking.settled.settled]).toEqual(['waiting', false]);
    const served = leg(5000, { decisions: [decision('push')], switched: 4900, pushed: true, zones: there });
    expect([state(served, 'served'), acts(served)]).toEqual(['done', ['turn']]);
  });
});
