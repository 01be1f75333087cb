import { setsBeforehand } from '../hosts/needs';
import { stillDrifting } from '../survey/driftFromPlan';
import { OLD, RULINGS, WWW, answers, decision, legOf, plan, published, rows, ruling, work } from '../testing/moving';
import { waysBack } from './back';
import { isByHand } from './byHand';
import { dueOf } from './due';
import { gateOf } from './gate';
import { Leg } from './leg';
import { marksOf } from './marks';
import { newsOf } from './news';
import { nextOf } from './next';
import { LegPlan } from './plan';
import { ZoneSight } from './seen';
import { slipSeen } from './slipsSeen';
import { stepOf, stepsOf } from './steps';

const [o1, o2] = plan.oldServers.map((one) => one.address) as [string, string];
const inPlace: Partial<LegPlan> = { kind: 'repoint', newNameservers: OLD, newServers: plan.oldServers, newHost: { name: 'Old DNS', keyed: true, fronts: [] } };
const approve = decision('approve', '', { lowerTo: 300, lowerAt: null, plannedSwitch: null });
const fresh = (ttl = 300): ZoneSight => answers(ttl, { [WWW]: { ttl, data: ['192.0.2.2'] } });
type Seen = [number, number, ZoneSight | undefined];

/** TTLs were 3600, seen low at 100 and 220; what comes afterwards is given. */
function leg(
  now: number,
  more: { one?: Seen[]; two?: Seen[]; submitted?: number; plan?: Partial<LegPlan>; change?: 'done' | 'stopped'; aside?: string } = {},
): Leg {
  const { one = [], two = [], submitted } = more;
  const until = (all: Seen[]): number => (all[0] ? all[0][0] - 60 : now);
  const decisions = [
    decision('hosts'),
    approve,
    ...(submitted === undefined ? [] : [decision('submitted', '', null, submitted)]),
    ...(more.aside ? [decision('aside', more.aside, null, 4400)] : []),
  ];
  const probe = legOf({ now, decisions, plan: { ...inPlace, ...more.plan } });
  return legOf({
    now,
    decisions,
    plan: { ...inPlace, ...more.plan },
    parent: rows('a.nic.test.', '192.0.2.53', [0, now, published(OLD)]),
    zones: [
      ...rows(OLD[0]!, o1, [0, 40, answers(3600)], [100, until(one), answers(300)], ...one),
      ...rows(OLD[1]!, o2, [0, 160, answers(3600)], [220, until(two), answers(300)], ...two),
    ],
    work: {
      lower: work('done', { plan: probe.lowers }),
      ...(more.change ? { change: work(more.change, { plan: probe.changes, problem: 'it refused', since: submitted ?? 0 }) } : {}),
    },
    seen: { looked: { parent: now, old: now, drift: now } },
  });
}
const state = (one: Leg, id: string): string => stepOf(one, id)!.standing.state;

describe('a leg whose records change where they are', () => {
  it('has no step for another zone, the registrar or a DS', () => {
    expect(stepsOf(leg(1000)).map(({ rule }) => rule.id)).toEqual(['survey', 'choose', 'lower', 'lowered', 'change', 'changed', 'settle', 'raise', 'close']);
    expect(gateOf(leg(1000)).lines.map((line) => line.key)).toEqual(['changes', 'delegated', 'remarks', 'drift', 'lowered', 'run out']);
    const signed = legOf({
      ...{ now: 10, plan: inPlace },
      parent: rows('a.nic.test.', '192.0.2.53', [0, 10, published(OLD, { ds: ['1 8 2 00'], dsTtl: 60 })]),
    });
    expect(stepOf(signed, 'ds-gone')).toBeUndefined();
  });

  it('waits for no TTL where all that changes is new, until something that stands there does as well', () => {
    const added = ruling('shop.zone.test.', 'A', 'new', 300, undefined, ['192.0.2.9']);
    const kept = RULINGS.map((row) => (row.ruling === 'repoint' ? { ...row, ruling: 'carry' as const, planned: row.found } : row));
    const ids = (one: Leg): string[] => stepsOf(one).map(({ rule }) => rule.id);
    const only = leg(400, { plan: { rulings: [...kept, added] } });
    expect(ids(only)).toEqual(['survey', 'choose', 'change', 'changed', 'settle', 'raise', 'close']);
    expect(gateOf(only).lines.map((line) => line.key)).not.toContain('lowered');
    expect([gateOf(only).open, nextOf(only)]).toMatchObject([true, { step: 'change', who: 'you' }]);
    const both = leg(400, { plan: { rulings: [...RULINGS, added] } });
    expect([ids(both).includes('lowered'), gateOf(both).open]).toEqual([true, false]);
    // Of another account, where no value changes, nothing is lowered either.
    expect(ids(leg(400, { plan: { rulings: kept, account: true } }))).not.toContain('lowered');
  });

  it('is not begun by another move of the domain that puts there what the same web host asks for', () => {
    const key = '_host.zone.test./TXT';
    const proof = ruling('_host.zone.test.', 'TXT', 'new', 300, undefined, ['"site"']);
    const scope = { kind: 'names', names: ['www.zone.test'], asked: [key] } as const;
    const without = answers(300, { [key]: { ttl: 300, data: [] } });
    const withProof = answers(300, { [key]: { ttl: 300, data: ['"site"'] } });
    const there = (plan: Partial<LegPlan>): Leg => {
      const both: Seen[] = [
        [300, 400, without],
        [460, 1000, withProof],
      ];
      return leg(1000, { one: both, two: both, plan: { rulings: [...RULINGS, proof], ...plan } });
    };
    expect([there({ scope }).times.ts, state(there({ scope }), 'change')]).toEqual([undefined, 'ready']);
    const added = (data: string) => [{ owner: proof.owner, type: 'TXT', before: null, after: { ttl: 300, data: [data] } }];
    const drifting = (data: string, { plan: of } = there({ scope })) => stillDrifting(added(data), of.rulings, setsBeforehand(of)).length;
    expect([drifting('"site"'), drifting('"else"'), drifting('"site"', there({}))]).toEqual([0, 1, 1]);
    // Of a move of the whole domain it is a part that somebody has changed.
    expect(there({}).times.ts).toBe(400);
  });

  it('lowers what changes and not the NS set', () => {
    const unlowered = legOf({ now: 100, plan: inPlace, decisions: [approve], zones: rows(OLD[0]!, o1, [0, 100, answers(3600)]) }).times.unlowered;
    expect(unlowered.map(({ key, ttl }) => [key, ttl])).toEqual([[WWW, 3600]]);
  });

  it('opens its gate when the old TTL has run out at the last server to be lowered, counted from the sight of it', () => {
    // Low since somewhere in [160, 220]: what was fetched just before 220 lives for 3600 s, and 300 of them are accepted.
    expect(gateOf(leg(3519)).open).toBe(false);
    expect(leg(3519).times.earliestSwitch.at).toBe(220 + 3600 - 300);
    expect(gateOf(leg(3520)).open).toBe(true);
    expect(nextOf(leg(3520))).toMatchObject({ step: 'change', who: 'you', text: 'Change the records' });
  });

  it('shuts it where the parent delegates elsewhere, or where nothing changes', () => {
    const away = legOf({
      ...{ now: 4000, plan: inPlace, decisions: [approve] },
      parent: rows('a.nic.test.', '192.0.2.53', [0, 4000, published(['ns1.third.test.'])]),
    });
    expect(gateOf(away).lines.find((line) => line.key === 'delegated')).toMatchObject({
      holds: false,
      text: expect.stringMatching(/elsewhere by now: ns1\.third\.test/) as string,
    });
    const nothing = leg(4000, { plan: { rulings: RULINGS.filter((row) => row.ruling !== 'repoint') } });
    expect(gateOf(nothing).lines.find((line) => line.key === 'changes')!.holds).toBe(false);
  });

  it('is done by Wanderon once a person says so, and by that person where no key is known', () => {
    const due = (one: Leg): string[] => dueOf(one).flatMap(({ what, id }) => (what === 'act' ? [id] : []));
    expect(due(leg(3600))).toEqual([]);
    expect(due(leg(3600, { submitted: 3600 }))).toEqual(['change']);
    expect(nextOf(leg(3600, { submitted: 3600, change: 'stopped' }))).toMatchObject({ step: 'change', who: 'you', failed: true });
    const byHand = leg(3600, { submitted: 3600, plan: { newHost: undefined } });
    expect([due(byHand), state(byHand, 'change'), nextOf(byHand)!.text]).toEqual([[], 'done', 'Waiting until every nameserver gives the new values']);
  });

  it('counts from the last authority that is seen to serve the new values, and anew where one goes back', () => {
    const half = leg(4000, { submitted: 3600, change: 'done', one: [[3660, 4000, fresh()]] });
    expect([half.times.t0, state(half, 'changed')]).toEqual([undefined, 'doing']);
    const whole = leg(4000, { submitted: 3600, change: 'done', one: [[3660, 4000, fresh()]], two: [[3720, 4000, fresh()]] });
    expect(whole.times.t0).toEqual({ lastOld: 3660, firstNew: 3720 });
    // The last old answer can have been fetched just before 3720, with a TTL of 300 s.
    expect(whole.times.last.at).toBe(3720 + 300);
    expect([whole.settled.settled, state(whole, 'settle')]).toEqual([false, 'doing']);
    const back = leg(4120, {
      submitted: 3600,
      change: 'done',
      one: [[3660, 4120, fresh()]],
      two: [
        [3720, 3960, fresh()],
        [4020, 4120, answers(3600)],
      ],
    });
    expect([back.times.t0, state(back, 'changed')]).toEqual([undefined, 'doing']);
    expect(stepOf(back, 'changed')!.standing.ways.map((way) => way.act)).toEqual(['adopt', 'take']);
    expect(back.times.last.at).toBeGreaterThanOrEqual(4120 + 3600);
  });

  it('settles when the bound has passed, every authority is new and was heard, and the parent still leads there', () => {
    const at = (now: number, more = {}): Leg =>
      leg(now, { submitted: 3600, change: 'done', one: [[3660, now, fresh()]], two: [[3720, now, fresh()]], ...more });
    expect(at(4020).settled.missing).toEqual(['old answers may still be remembered']);
    expect(at(4021).settled.settled).toBe(true);
    const unheard = leg(4400, { submitted: 3600, change: 'done', one: [[3660, 4400, fresh()]], two: [[3720, 4000, fresh()]] });
    expect(unheard.settled.settled).toBe(false);
    // Set aside it is waited for no more, once nothing that it was ever seen to serve can be remembered from then.
    const aside = (now: number): Leg => leg(now, { submitted: 3600, change: 'done', one: [[3660, now, fresh()]], two: [[3720, 4000, fresh()]], aside: o2 });
    expect(aside(4500).settled.missing).toEqual(['old answers may still be remembered']);
    expect(aside(4400 + 3600 + 1).settled.settled).toBe(true);
  });

  it('takes a change that nobody announced for one, and says what was not yet true', () => {
    const before = leg(1000);
    const after = leg(1060, { one: [[1060, 1060, fresh()]] });
    expect(after.times.ts).toBe(1000);
    expect(newsOf(before, after).map(({ text }) => text)).toEqual([
      expect.stringMatching(/^A nameserver gave new values before everything was ready: Answers with their old TTL/),
    ]);
    // What a wildcard gave already is no sign of a change.
    const rulings = [...RULINGS.slice(1), { ...RULINGS[0]!, ruling: 'new' as const, found: undefined }];
    const wild = legOf({ now: 60, plan: { ...inPlace, rulings }, decisions: [approve], zones: rows(OLD[0]!, o1, [0, 60, fresh()]) });
    expect(wild.times.ts).toBeUndefined();
  });

  it('says of the way back what it takes: as long as the new values may be remembered, once they are raised as well', () => {
    // Before it is settled: from then on TTLs are raised, and count as sent.
    const at = (ttl: number, now = 3900): Leg => leg(now, { submitted: 3600, change: 'done', one: [[3660, now, fresh(ttl)]], two: [[3720, now, fresh()]] });
    expect([at(300), at(3600), at(300, 4400), leg(3600)].map((one) => waysBack(one).map(({ how, takes }) => [how, takes]))).toEqual([
      [['records', 300]],
      [['records', 3600]],
      [['records', 3600]],
      [],
    ]);
    expect([isByHand(at(300)), isByHand(leg(3600, { plan: { newHost: undefined } }))]).toEqual([false, true]);
  });

  it('calls nothing forgotten that Wanderon has sent: a server that does not have it yet follows later', () => {
    const slip = (plan: Partial<LegPlan>): string | undefined =>
      slipSeen(leg(4000, { submitted: 3600, change: 'done', plan }), o2, WWW, { ttl: 300, data: ['192.0.2.1'] })?.code;
    expect([slip({}), slip({ newHost: undefined })]).toEqual([undefined, 'not saved']);
  });

  it('marks the change on its axis, and no delegation', () => {
    const labels = marksOf(leg(3600)).map(({ label }) => label);
    expect(labels).toContain('earliest change');
    expect(labels).not.toContain('old nameservers forgotten');
  });

  it('is over where another leg follows: nothing is due any more, and it is not the one that is closed', () => {
    const over = leg(4400, { plan: { followed: true, next: { kind: 'delegation', newDnsHost: 'x', newWebHost: null } } });
    expect(dueOf(over)).toEqual([]);
    expect([stepOf(over, 'close'), state(over, 'next-leg')]).toEqual([undefined, 'waiting']);
  });
});
