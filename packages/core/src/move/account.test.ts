import { USUAL_HABITS } from '../hosts/dnsHabits';
import { legSheet } from '../hosts/legSheet';
import { OLD, RULINGS, WWW, answers, decision, legOf, plan, published, rows } from '../testing/moving';
import { gapOf, isTakeover, rebuildsZone } from './account';
import { waysBack } from './back';
import { dueOf } from './due';
import { gateOf } from './gate';
import { Leg } from './leg';
import { LegPlan } from './plan';
import { ZoneSight } from './seen';
import { whyNotYet } from './notYet';
import { stepOf, stepsOf } from './steps';

const [o1, o2] = plan.oldServers.map((one) => one.address) as [string, string];
type Accounts = (typeof USUAL_HABITS)['accounts'];
const takeover = (accounts: Accounts, more: Partial<LegPlan> = {}): Partial<LegPlan> => ({
  kind: 'repoint',
  account: true,
  newNameservers: OLD,
  newServers: plan.oldServers,
  oldHost: { name: 'Old DNS', keyed: true, fronts: [] },
  newHost: { name: 'Old DNS', keyed: true, fronts: [], habits: { ...USUAL_HABITS, accounts } },
  ...more,
});
const carried = RULINGS.map((row) => (row.ruling === 'repoint' ? { ...row, ruling: 'carry' as const, planned: row.found } : row));
const MX = 'zone.test./MX';
const MAIL = 'mail.zone.test./A';
const whole = (more: Record<string, { ttl: number; data: string[] }> = {}, www = '192.0.2.2'): ZoneSight =>
  answers(300, { [WWW]: { ttl: 300, data: [www] }, [MX]: { ttl: 300, data: ['10 mail.zone.test.'] }, [MAIL]: { ttl: 300, data: ['192.0.2.25'] }, ...more });
const approve = decision('approve', '', { lowerTo: 300, lowerAt: null, plannedSwitch: null });
type Seen = [number, number, ZoneSight | undefined, boolean?];

function leg(now: number, of: { plan?: Partial<LegPlan>; one?: Seen[]; two?: Seen[]; submitted?: number; typed?: boolean; ds?: string[] } = {}): Leg {
  return legOf({
    now,
    plan: of.plan ?? takeover('several'),
    decisions: [
      decision('hosts'),
      approve,
      ...(of.typed === false ? [] : [decision('leave', 'push')]),
      decision('leave', 'lower'),
      ...(of.submitted === undefined ? [] : [decision('submitted', '', null, of.submitted)]),
    ],
    parent: rows('a.nic.test.', '192.0.2.53', [0, now, published(OLD, { ds: of.ds ?? [], dsTtl: of.ds ? 60 : 0 })]),
    zones: [
      ...rows(OLD[0]!, o1, [0, of.one ? of.one[0]![0] - 60 : now, answers(300)], ...(of.one ?? [])),
      ...rows(OLD[1]!, o2, [0, of.two ? of.two[0]![0] - 60 : now, answers(300)], ...(of.two ?? [])),
    ],
    seen: { looked: { parent: now, old: now, drift: now } },
  });
}
const state = (one: Leg, id: string): string | undefined => stepOf(one, id)?.standing.state;

describe('another account behind the same nameservers', () => {
  it('is a change in place for which every record set is made anew', () => {
    const one = leg(1000);
    expect([isTakeover(one.plan), rebuildsZone(one.plan), rebuildsZone({ kind: 'repoint' }), isTakeover({ kind: 'delegation', account: true })]).toEqual([
      ...[true, true, false, false],
    ]);
    expect(stepsOf(one).map(({ rule }) => rule.title)).toEqual([
      ...['Take the survey', 'Choose where it goes', 'Make the zone ready in the other account', 'Lower the TTLs', 'See the TTLs lowered'],
      ...['Have the other account take over', 'See the other account’s zone served', 'Watch until finished everywhere', 'Raise the TTLs', 'Close the move'],
    ]);
    const sheet = legSheet({ ...one.plan, isBack: false, rulings: one.plan.rulings, served: null }, 'zone.test.', { entry: null });
    expect(new Set(sheet.map((row) => row.id.split('/').slice(0, 2).join('/')))).toEqual(new Set([WWW, MX, MAIL]));
  });

  it('is never changed by an update of ours: which account a key opens is not known', () => {
    expect(state(leg(1000, { typed: false }), 'push')).toBe('ready');
    expect(state(leg(1000), 'push')).toBe('left');
    const over = leg(9000, { submitted: 3600, one: [[3660, 9000, whole()]], two: [[3660, 9000, whole()]] });
    expect([state(leg(1000, { submitted: 900 }), 'change'), over.settled.settled, state(over, 'raise')]).toEqual(['done', true, 'ready']);
    // Whatever is decided, there is nothing that Wanderon would do at the host.
    for (const one of [leg(1000), leg(1000, { submitted: 900 }), over])
      expect(dueOf(one).filter(({ what, id }) => what === 'act' && id !== 'lower')).toEqual([]);
  });

  it('opens no gate before somebody has said that the zone is ready there: an open gate can be gone through', () => {
    const at = (typed: boolean): Leg => leg(1000, { typed });
    const line = (one: Leg) => gateOf(one).lines.find(({ key }) => key === 'prepared')!;
    expect(line(at(false))).toMatchObject({ holds: false, waivable: false, ways: [{ act: 'leave', subject: 'push' }] });
    expect([gateOf(at(false)).open, state(at(false), 'change')]).toEqual([false, 'waiting']);
    expect([line(at(true)).holds, state(at(true), 'change')]).toEqual([true, 'ready']);
  });

  it('holds the gate until a gap, or that nobody knows of one, was let pass with its length', () => {
    const line = (accounts: Accounts) => gateOf(leg(1000, { plan: takeover(accounts) })).lines.find(({ key }) => key === 'gap')!;
    expect(line('several')).toMatchObject({ holds: true });
    expect(line('unknown')).toMatchObject({ holds: false, waivable: true, text: expect.stringMatching(/not known/) as string });
    // Three sets at 6 s, a look of 60 s, and a failure that is remembered for 300 s: 378 s.
    expect(line('one')).toMatchObject({ holds: false, waivable: true, text: expect.stringMatching(/about 7 min/) as string });
    const gap = gapOf(leg(1000, { plan: takeover('one') }))!;
    expect([gap.seconds, gap.terms.reduce((sum, term) => sum + term.value, 0), gap.bridged, gap.sets]).toEqual([378, 378, 3, 3]);
    expect(gapOf(leg(1000))).toBeUndefined();
  });

  it('sees what was forgotten in the other account, carried or not, and is not over before all of it is served', () => {
    const now = 4000;
    const lost = leg(now, { submitted: 3600, one: [[3660, now, whole({ [MX]: { ttl: 300, data: [] } })]], two: [[3660, now, whole()]] });
    expect([lost.times.t0, state(lost, 'changed'), stepOf(lost, 'changed')!.standing.text]).toEqual([
      ...[undefined, 'doing', expect.stringMatching(/does not serve zone\.test MX as planned/)],
    ]);
    expect(whyNotYet(lost, [])[0]).toMatchObject({ place: 'authorities', act: 'do' });
    const unasked = leg(now, { submitted: 3600, one: [[3660, now, answers(300, { [WWW]: { ttl: 300, data: ['192.0.2.2'] } })]], two: [[3660, now, whole()]] });
    expect([state(unasked, 'changed'), stepOf(unasked, 'changed')!.standing.text]).toEqual(['doing', expect.stringMatching(/has not answered for/)]);
    const all = leg(now, { submitted: 3600, one: [[3660, now, whole()]], two: [[3720, now, whole()]] });
    expect([all.times.t0, state(all, 'changed')]).toEqual([{ lastOld: 3660, firstNew: 3720 }, 'done']);
  });

  it('takes a gap in which nobody answers for no answer, and a loss for one that has to run out', () => {
    const refused: Seen = [3660, 3720, undefined, true];
    const after = (one: Seen[]): Leg => leg(5000, { submitted: 3600, one, two: one });
    const bridged = after([refused, [3780, 5000, whole()]]);
    expect(bridged.times.t0?.firstNew).toBe(3780);
    expect(bridged.times.sets.find((set) => set.key === MX)).toBeUndefined();
    const denied = after([
      [3660, 4000, whole({ [MX]: { ttl: 3600, data: [] } })],
      [4060, 5000, whole()],
    ]);
    // That there is no MX was last given before 4060, with a TTL of an hour.
    expect(denied.times.last.at).toBe(4060 + 3600);
    // Every server refuses for hours: nothing is served, whatever nobody can remember.
    const gone = leg(20_000, { submitted: 3600, one: [[3660, 20_000, undefined, true]], two: [[3660, 20_000, undefined, true]] });
    expect([gone.times.t0, state(gone, 'changed')]).toEqual([undefined, 'doing']);
  });

  it('goes by the word of whoever does it where no value changes, and that alone is not enough', () => {
    const plan = takeover('several', { rulings: carried });
    const before = leg(1000, { plan });
    expect([before.times.ts, before.times.t0, stepOf(before, 'changed')!.standing.state]).toEqual([undefined, undefined, 'waiting']);
    const now = 4000;
    const said = (one: ZoneSight) => leg(now, { plan, submitted: 3600, one: [[3660, now, one]], two: [[3660, now, whole({}, '192.0.2.1')]] });
    expect(said(whole({}, '192.0.2.1')).times.t0).toMatchObject({ firstNew: 3660 });
    expect(said(whole({ [MAIL]: { ttl: 300, data: [] } }, '192.0.2.1')).times.t0).toBeUndefined();
    // What came back unchanged has nothing to be set back.
    expect(waysBack(said(whole({}, '192.0.2.1')))).toMatchObject([{ how: 'records', ruledOut: expect.stringMatching(/a move of its own/) as string }]);
  });

  it('takes a DS out first: the other account signs with keys of its own', () => {
    const signed = leg(1000, { ds: ['1 8 2 00'] });
    expect(state(signed, 'ds-gone')).toBe('ready');
    expect(gateOf(signed).lines.find(({ key }) => key === 'ds')).toMatchObject({ holds: false });
    expect(stepOf(leg(1000), 'ds-gone')).toBeUndefined();
  });
});
