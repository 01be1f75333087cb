import { APEX_NS, NEW, OLD, WWW, answers, decision, legOf, look, plan, planned, published, rows, ruling, work, RULINGS } from '../testing/moving';
import { dueOf } from './due';
import { gateOf } from './gate';
import { DriftSight, ParentSight } from './seen';
import { UNSEEN, factsOf, passes } from './lines/line';
import { marksOf } from './marks';
import { nextOf } from './next';
import { inScope, scopesMeet } from './scope';
import { StepRule, stands } from './rules/rule';
import { STEP_RULES, checkRules, isDone, stepOf, stepsOf } from './steps';

const [o1, o2] = plan.oldServers.map((one) => one.address) as [string, string];
const [n1, n2] = plan.newServers.map((one) => one.address) as [string, string];
const old = (now: number) => rows('a.nic.test.', '192.0.2.53', [0, now, published(OLD)]);
const served = (now: number) => [...rows(NEW[0]!, n1, [400, now, planned()]), ...rows(NEW[1]!, n2, [400, now, planned()])];
const lowered = (now: number) => [
  ...rows(OLD[0]!, o1, [0, 40, answers(3600)], [100, now, answers(300)]),
  ...rows(OLD[1]!, o2, [0, 160, answers(3600)], [220, now, answers(300)]),
];
const decided = [decision('hosts'), decision('push'), decision('approve', '', { lowerTo: 300, lowerAt: null, plannedSwitch: null })];
const state = (leg: ReturnType<typeof legOf>, id: string): string => stepOf(leg, id)!.standing.state;
const through = (now: number): Parameters<typeof legOf>[0] => {
  const probe = legOf({ now, decisions: decided });
  return {
    now,
    decisions: decided,
    parent: old(now),
    zones: [...lowered(now), ...served(now)],
    work: { push: work('done', { plan: probe.pushes }), lower: work('done', { plan: probe.lowers }) },
    seen: { looked: { parent: now, old: now, new: now, drift: now } },
  };
};

describe('the rules of a leg', () => {
  it('make a graph without circles in which every step that is named is there', () => {
    expect(() => checkRules()).not.toThrow();
    const rule = (id: string, after: string[]): StepRule => ({ ...STEP_RULES[0]!, id, after, standing: () => stands('ready') });
    expect(() => checkRules([rule('a', ['b']), rule('b', ['a'])])).toThrow(/circle: a, b, a/);
    expect(() => checkRules([rule('a', ['nobody'])])).toThrow(/which there is not/);
    expect(() => checkRules([rule('a', []), rule('a', [])])).toThrow(/one id/);
  });

  it('have no step for a DS where none was ever seen, and one where one was', () => {
    expect(stepOf(legOf(through(5000)), 'ds-gone')).toBeUndefined();
    const signed = legOf({ ...through(5000), parent: rows('a.nic.test.', '192.0.2.53', [0, 5000, published(OLD, { ds: ['1 8 2 00'], dsTtl: 3600 })]) });
    expect(state(signed, 'ds-gone')).toBe('ready');
    expect(state(signed, 'switch')).toBe('waiting');
  });

  it('wait for those before them, and say for which', () => {
    const leg = legOf({ now: 0, plan: { chosen: false, rulings: [] } });
    expect([state(leg, 'survey'), state(leg, 'choose'), state(leg, 'push'), state(leg, 'switch')]).toEqual(['done', 'ready', 'waiting', 'waiting']);
    expect(stepOf(leg, 'push')!.standing.text).toBe('After: choose where it goes.');
  });

  it('name the slip where the parent publishes a set that somebody typed wrongly, and say what to do', () => {
    const text = (nameservers: readonly string[]): string => {
      const parent = rows('a.nic.test.', '192.0.2.53', [0, 4000, published(OLD)], [4060, 5000, published(nameservers)]);
      return stepOf(legOf({ ...through(5000), decisions: [...decided, decision('submitted', '', null, 4000)], parent }), 'switch')!.standing.text!;
    };
    expect(text([...NEW, OLD[1]!])).toMatch(/neither old nor new: .* is left from before: take it out\.$/);
    expect(text([NEW[0]!])).toMatch(/is missing: that field was not saved, or not filled in\.$/);
    expect(text([NEW[0]!, 'ns2.third.test.'])).toMatch(/ns2\.third\.test is a nameserver of Third DNS: here it is /);
    expect(text(NEW.map((name) => `${name.slice(0, -1)}.zone.test.`))).toMatch(/has the domain appended/);
  });

  it('are for a person while the parent publishes something else, and not any more once what is right is spreading', () => {
    const wrong = [...NEW, OLD[1]!];
    const at = (...second: [number, number, ParentSight][]): ReturnType<typeof legOf> =>
      legOf({
        ...through(6000),
        decisions: [...decided, decision('submitted', '', null, 4000)],
        parent: [
          ...rows('a.nic.test.', '192.0.2.53', [0, 4000, published(OLD)], [4060, 6000, published(wrong)]),
          ...rows('b.nic.test.', '192.0.2.54', [0, 4000, published(OLD)], ...second),
        ],
      });
    expect(nextOf(at([4060, 6000, published(OLD)]))).toMatchObject({ step: 'switch', who: 'you', failed: true });
    expect(nextOf(at([4060, 5000, published(wrong)], [5060, 6000, published(NEW)]))).toMatchObject({ step: 'switch', who: 'wanderon' });
    // It was new there before the other one went wrong.
    expect(nextOf(at([4030, 6000, published(NEW)]))).toMatchObject({ who: 'you', failed: true });
  });

  it('say that a change which was submitted long ago is published nowhere', () => {
    const submitted = (now: number) =>
      stepOf(legOf({ ...through(now), decisions: [...decided, decision('submitted', '', null, 4000)], parent: old(now) }), 'switch')!.standing.text;
    expect(submitted(7000)).toBe('0 of 1 servers of the parent publish the new set.');
    expect(submitted(7700)).toMatch(/look at the registrar whether it was saved/);
  });

  it('come to the switch once TTLs have run out at both servers, each counted from when it was seen', () => {
    // The second one was last seen with 3600 at 160 and lowered at 220: 220 + 3600 - 300.
    expect(legOf(through(1000)).times.earliestSwitch.at).toBe(3520);
    expect([gateOf(legOf(through(3519))).open, gateOf(legOf(through(3520))).open]).toEqual([false, true]);
    expect(state(legOf(through(3520)), 'switch')).toBe('ready');
    expect(gateOf(legOf(through(1000))).opensAt).toBe(3520);
  });

  it('do again what a changed plan asks for, and nothing else', () => {
    const before = through(3600);
    const rulings = [...RULINGS, ruling('shop.zone.test.', 'A', 'new', 300, undefined, ['192.0.2.9'])];
    const leg = legOf({ ...before, plan: { rulings } });
    // Pushed again; nothing that was found has to be lowered for a name that is new.
    expect([state(leg, 'push'), state(leg, 'lower'), state(leg, 'lowered')]).toEqual(['doing', 'done', 'done']);
    const repointed = RULINGS.map((one) =>
      one.owner === 'mail.zone.test.' ? ruling('mail.zone.test.', 'A', 'repoint', 3600, ['192.0.2.25'], ['192.0.2.26']) : one,
    );
    expect([state(legOf({ ...before, plan: { rulings: repointed } }), 'push'), state(legOf({ ...before, plan: { rulings: repointed } }), 'lower')]).toEqual([
      'doing',
      'doing',
    ]);
  });

  it('stop with what a person can do, and go on when that was done', () => {
    const stopped = {
      ...through(3600),
      work: { ...through(3600).work, push: work('stopped', { plan: legOf(through(1)).pushes, problem: 'It refused.', upTo: 99_000 }) },
    };
    const leg = legOf(stopped);
    expect([state(leg, 'push'), stepOf(leg, 'push')!.standing.ways.map((way) => way.act)]).toEqual(['stopped', ['retry', 'leave']]);
    expect(nextOf(leg)).toMatchObject({ step: 'push', failed: true, who: 'you', text: 'It refused.' });
    const retried = legOf({ ...stopped, decisions: [...decided, { ...decision('retry', 'push'), id: 99_001 }] });
    expect(state(retried, 'push')).toBe('doing');
    expect(state(legOf({ ...stopped, decisions: [...decided, decision('leave', 'push')] }), 'push')).toBe('left');
  });

  it('see the switch as a fact, whatever came before it', () => {
    const leg = legOf({ ...through(200), parent: rows('a.nic.test.', '192.0.2.53', [0, 60, published(OLD)], [120, 200, published(NEW)]) });
    expect(leg.times.ts).toBe(60);
    expect(state(leg, 'switch')).toBe('done');
    const notLowered = legOf({
      ...through(200),
      zones: [...served(200), ...rows(OLD[0]!, o1, [0, 200, answers(3600)]), ...rows(OLD[1]!, o2, [0, 200, answers(3600)])],
      parent: rows('a.nic.test.', '192.0.2.53', [0, 60, published(OLD)], [120, 200, published(NEW)]),
    });
    expect([state(notLowered, 'switch'), state(notLowered, 'lowered')]).toEqual(['done', 'left']);
  });

  it('take a relapse of the parent for what it is', () => {
    const relapsed = rows('a.nic.test.', '192.0.2.53', [0, 60, published(OLD)], [120, 180, published(NEW)], [240, 300, published(OLD)]);
    const leg = legOf({ ...through(300), parent: relapsed });
    expect(leg.times.t0).toBeUndefined();
    expect(stepOf(leg, 'switch')!.standing).toMatchObject({
      state: 'stopped',
      text: expect.stringMatching(/has gone back to ns1\.old\.test, ns2\.old\.test\./),
    });
    expect(nextOf(leg)).toMatchObject({ step: 'switch', who: 'you', failed: true });
    const again = legOf({ ...through(420), parent: [...relapsed, ...rows('a.nic.test.', '192.0.2.53', [360, 420, published(NEW)])] });
    expect(again.times.t0).toEqual({ lastOld: 300, firstNew: 360 });
  });

  it('name a parent server that never answered, and do not wait for it', () => {
    const leg = legOf({
      ...through(3600),
      parent: [
        ...rows('a.nic.test.', '192.0.2.53', [0, 60, published(OLD)], [120, 3600, published(NEW)]),
        ...rows<ParentSight>('b.nic.test.', '2001:db8::53', [0, 3600, undefined]),
      ],
    });
    expect(leg.times.t0).toEqual({ lastOld: 60, firstNew: 120 });
  });

  it('wait for a parent server that fell silent, until a person sets it aside', () => {
    const parent = [
      ...rows('a.nic.test.', '192.0.2.53', [0, 60, published(OLD)], [120, 3600, published(NEW)]),
      ...rows('b.nic.test.', '192.0.2.54', [0, 60, published(OLD)], [120, 3600, undefined]),
    ];
    const leg = legOf({ ...through(3600), parent });
    expect(state(leg, 'switch')).toBe('doing');
    expect(stepOf(leg, 'switch')!.standing.ways).toEqual([expect.objectContaining({ act: 'aside', subject: '192.0.2.54' })]);
    const aside = legOf({ ...through(3600), parent, decisions: [...decided, decision('aside', '192.0.2.54', null, 3000)] });
    expect(state(aside, 'switch')).toBe('done');
  });

  it('count a refusal for turning once it has lasted an hour, and silence never', () => {
    const base = through(9000);
    const parent = rows('a.nic.test.', '192.0.2.53', [0, 4000, published(OLD)], [4060, 9000, published(NEW)]);
    const zones = (refusing: number) => [
      ...served(9000),
      ...rows(OLD[0]!, o1, [0, 40, answers(3600)], [100, 4000, answers(300)], [4060, 4060 + refusing, undefined, true]),
      ...rows(OLD[1]!, o2, [0, 160, answers(3600)], [220, 4000, answers(300)], [4060, 9000, answers(300, {}, NEW)]),
    ];
    expect(legOf({ ...base, parent, zones: zones(3000) }).times.te.all).toBeUndefined();
    expect(legOf({ ...base, now: 7700, parent, zones: zones(3640) }).times.te.all).toMatchObject({ firstNew: 4060 });
  });
});

describe('the gate', () => {
  const lacking = (told: Parameters<typeof legOf>[0]): string[] =>
    gateOf(legOf(told))
      .lines.filter((line) => !passes(line))
      .map((line) => line.key);

  it('opens where everything holds, each line with when it was seen', () => {
    expect(lacking(through(3600))).toEqual([]);
    expect(gateOf(legOf(through(3600))).lines.find((line) => line.key === 'served')!.seenAt).toBe(3600);
  });

  it.each<[string, string, Parameters<typeof legOf>[0]]>([
    [
      'a server of the new host lost a row',
      'served',
      {
        ...through(3600),
        zones: [...lowered(3600), ...rows(NEW[0]!, n1, [400, 3600, planned()]), ...rows(NEW[1]!, n2, [400, 3600, planned({ [WWW]: { ttl: 60, data: [] } })])],
      },
    ],
    [
      'the new host names another NS set',
      'served',
      {
        ...through(3600),
        zones: [
          ...lowered(3600),
          ...rows(NEW[0]!, n1, [400, 3600, planned()]),
          ...rows(NEW[1]!, n2, [400, 3600, planned({ [APEX_NS]: { ttl: 60, data: OLD } })]),
        ],
      },
    ],
    [
      'the old zone changed',
      'drift',
      {
        ...through(3600),
        seen: {
          ...through(3600).seen,
          drift: { at: 3600, problem: null, changes: [{ owner: 'zone.test.', type: 'TXT', before: null, after: { ttl: 1, data: ['"x"'] } }] },
        },
      },
    ],
    [
      'a TTL was set back at one server',
      'lowered',
      {
        ...through(3600),
        zones: [
          ...served(3600),
          ...rows(OLD[0]!, o1, [0, 40, answers(3600)], [100, 3000, answers(300)], [3060, 3600, answers(3600)]),
          ...rows(OLD[1]!, o2, [0, 160, answers(3600)], [220, 3600, answers(300)]),
        ],
      },
    ],
  ])('shuts where %s', (_what, key, told) => expect(lacking(told)).toContain(key));

  it('counts the lowering anew from when a TTL that was set back is low again', () => {
    const zones = [
      ...served(3600),
      ...rows(OLD[0]!, o1, [0, 40, answers(3600)], [100, 3000, answers(300)], [3060, 3300, answers(3600)], [3360, 3600, answers(300)]),
      ...rows(OLD[1]!, o2, [0, 160, answers(3600)], [220, 3600, answers(300)]),
    ];
    const leg = legOf({ ...through(3600), zones });
    expect(leg.times.earliestSwitch.at).toBe(3360 + 3600 - 300);
    expect(leg.times.tl.all!.firstNew).toBe(3360);
  });

  it('stays shut after a DS that was ever seen until it and the keys validated through it have run out', () => {
    const parent = rows('a.nic.test.', '192.0.2.53', [0, 1000, published(OLD, { ds: ['1 8 2 00'], dsTtl: 86_400 })], [1060, 200_000, published(OLD)]);
    const told = (now: number) => ({ ...through(now), parent, plan: { keysTtl: 7200 } });
    expect(gateOf(legOf(told(90_000))).opensAt).toBe(1060 + 86_400 + 7200);
    expect([lacking(told(94_659)), lacking(told(94_660))]).toEqual([['ds'], []]);
  });

  it('takes TTLs as they are where a person says so', () => {
    const zones = [...served(9000), ...rows(OLD[0]!, o1, [0, 9000, answers(900)]), ...rows(OLD[1]!, o2, [0, 9000, answers(900)])];
    expect(lacking({ ...through(9000), zones })).toEqual(['lowered', 'run out']);
    expect(lacking({ ...through(9000), zones, decisions: [...decided, decision('accept TTLs', '', 900)] })).toEqual([]);
  });

  it('lets a line pass that a person waived, and only where that may be', () => {
    const seen = { ...through(3600).seen, registration: { at: 3600, statuses: ['pending transfer'], problem: null } };
    expect(lacking({ ...through(3600), seen })).toEqual(['registration']);
    expect(
      lacking({ ...through(3600), seen, decisions: [...decided, decision('waive', 'registration', { reason: 'known', about: ['pending transfer'] })] }),
    ).toEqual([]);
    const parent = rows('a.nic.test.', '192.0.2.53', [0, 3600, published(OLD, { ds: ['1 8 2 00'], dsTtl: 60 })]);
    const ds = decision('waive', 'ds', { reason: 'known', about: [] });
    expect(lacking({ ...through(3600), parent, decisions: [...decided, ds] })).toContain('ds');
  });

  it('holds what was let pass against what is seen since', () => {
    const with_ = (seen: NonNullable<Parameters<typeof legOf>[0]['seen']>, about: readonly string[], line: string) =>
      lacking({ ...through(3600), seen: { ...through(3600).seen, ...seen }, decisions: [...decided, decision('waive', line, { reason: 'known', about })] });
    const statuses = (...all: string[]) => ({ registration: { at: 3600, statuses: all, problem: null } });
    expect(with_(statuses('pending transfer', 'client hold'), ['pending transfer'], 'registration')).toEqual(['registration']);
    expect(with_(statuses('client hold'), ['pending transfer', 'client hold'], 'registration')).toEqual([]);
    const edited = (owner: string, ttl: number, data: string): DriftSight => ({ owner, type: 'TXT', before: null, after: { ttl, data: [data] } });
    const drifts = (...changes: DriftSight[]) => ({ drift: { at: 3600, changes, problem: null } });
    expect(with_(drifts(edited('a.test.', 60, '"x"')), ['a.test.\nTXT\n60\n"x"'], 'drift')).toEqual([]);
    expect(with_(drifts(edited('a.test.', 60, '"y"')), ['a.test.\nTXT\n60\n"x"'], 'drift')).toEqual(['drift']);
    expect(with_(drifts(edited('a.test.', 60, '"x"'), edited('b.test.', 60, '"x"')), ['a.test.\nTXT\n60\n"x"'], 'drift')).toEqual(['drift']);
    expect(with_({ drift: { at: 3600, changes: [], problem: 'no answer' } }, ['a.test.\nTXT\n60\n"x"'], 'drift')).toEqual(['drift']);
    // A set that changed once more reads the same, and is another fact.
    const line = (data: string) => {
      const leg = legOf({
        ...through(3600),
        seen: { ...through(3600).seen, ...drifts({ ...edited('a.test.', 60, data), before: { ttl: 60, data: ['"w"'] } }) },
      });
      return gateOf(leg).lines.find((one) => one.key === 'drift')!;
    };
    expect([line('"x"').text === line('"y"').text, factsOf(line('"x"')) === factsOf(line('"y"'))]).toEqual([true, false]);
    // What was waived before anybody looked says nothing of what was then seen.
    expect(with_(drifts(edited('a.test.', 60, '"x"')), [UNSEEN], 'drift')).toEqual(['drift']);
  });
});

describe('settled', () => {
  const end = 20_000;
  const over = (more: Partial<Parameters<typeof legOf>[0]> = {}): Parameters<typeof legOf>[0] => ({
    ...through(end),
    parent: rows('a.nic.test.', '192.0.2.53', [0, 4000, published(OLD)], [4060, end, published(NEW)]),
    zones: [
      ...served(end),
      ...rows(OLD[0]!, o1, [0, 40, answers(3600)], [100, 4060, answers(300)], [4120, end, answers(300, {}, NEW)]),
      ...rows(OLD[1]!, o2, [0, 160, answers(3600)], [220, 4060, answers(300)], [4120, end, answers(300, {}, NEW)]),
    ],
    work: { ...through(end).work, turn: work('done') },
    ...more,
  });
  const missing = (more: Partial<Parameters<typeof legOf>[0]> = {}): string => legOf(over(more)).settled.missing.join('; ');

  it('is when the parent, every authority and the last bound say so', () => {
    expect(legOf(over()).settled).toEqual({ settled: true, missing: [], setAside: [], waiting: [] });
    // Led to the old servers until 4060 + 600, which answer with 300 until then.
    expect(legOf(over()).times.last.at).toBe(4060 + 600 + 300);
    expect(state(legOf(over()), 'settle')).toBe('done');
  });

  it('is not while the parent has relapsed, a server differs, or a lookout is old', () => {
    expect(
      missing({ parent: rows('a.nic.test.', '192.0.2.53', [0, 4000, published(OLD)], [4060, 19_900, published(NEW)], [19_960, end, published(OLD)]) }),
    ).toMatch(/not every server of the registry publishes/);
    expect(
      missing({
        zones: [...over().zones!, ...rows(NEW[0]!, '203.0.113.3', [0, end, planned()])],
        plan: { newServers: [...plan.newServers, { server: NEW[0]!, address: '203.0.113.9' }] },
      }),
    ).toMatch(/not every nameserver/);
    const seen = (...lookouts: ReturnType<typeof look>[]) => ({ seen: { ...over().seen, lookouts, watchers: 1 } });
    expect(missing(seen(look('One', 'old', end)))).toMatch(/1 of 1 resolvers does not give the new answers yet: One/);
    expect(missing(seen(look('One', 'new', 100)))).toMatch(/not asked yet since the last old answer ran out/);
  });

  it('is not before the servers that are left were asked once more when nobody is led there any more, and they are asked then', () => {
    const lookedAt = (old: number) => ({ seen: { ...over().seen, looked: { ...over().seen?.looked, old } } });
    // Caches may be led there until 4060 + 600, and renew what they have for 300 more.
    expect(missing(lookedAt(4600))).toMatch(/the old nameservers were not asked yet since the last resolver was led there/);
    expect(dueOf(legOf(over(lookedAt(4600)))).find((due) => due.id === 'old')?.at).toBeLessThanOrEqual(end);
    expect(missing(lookedAt(4961))).toBe('');
  });

  it('is not while an authority now delegated to has not been heard for three looks, whatever it said last', () => {
    const [heard, unheard] = [served(end)[0]!, rows(NEW[1]!, n2, [400, end - 181, planned()])[0]!];
    const old = over().zones!.filter((one) => one.address !== n1 && one.address !== n2);
    expect(missing({ zones: [...old, heard, unheard] })).toBe(`${NEW[1]} was not heard lately`);
    expect(missing({ zones: [...old, heard, rows(NEW[1]!, n2, [400, end - 180, planned()])[0]!] })).toBe('');
    // Where it is silent it can be set aside; where nobody looked, the next look tells.
    const silence = { ...unheard, value: undefined, problem: 'no answer', first: end - 60, last: end };
    const told = over({ zones: [...old, heard, unheard, silence] });
    expect(stepOf(legOf(told), 'settle')!.standing.ways).toEqual([expect.objectContaining({ act: 'aside', subject: n2 })]);
    expect(legOf({ ...told, decisions: [...decided, decision('aside', n2, null, end)] }).settled.missing).toEqual([]);
  });

  it('sets lookouts aside that refuse us or are silent, and says when none is left', () => {
    const asked = (rcode: string, silent = false): ReturnType<typeof look>[] =>
      [WWW, APEX_NS, 'zone.test./MX'].map((key) => look('Two', 'none', end, { key, rcode, silent }));
    const well = [WWW, APEX_NS, 'zone.test./MX'].map((key) => look('One', 'new', end, { key }));
    const leg = legOf(over({ seen: { ...over().seen, lookouts: [...well, ...asked('REFUSED')], watchers: 2 } }));
    expect(leg.settled).toEqual({ settled: true, missing: [], setAside: ['Two'], waiting: [] });
    const alone = over({ seen: { ...over().seen, lookouts: asked('no answer', true), watchers: 1 } });
    expect(legOf(alone).settled.missing).toEqual(['no resolver answers']);
    expect(legOf({ ...alone, decisions: [...decided, decision('leave', 'lookouts')] }).settled.settled).toBe(true);
  });

  it('lets a lookout be set aside that is still not new once every bound has passed', () => {
    const lookouts = [WWW, APEX_NS, 'zone.test./MX'].flatMap((key) => [
      look('One', 'new', end, { key }),
      look('Stale', key === WWW ? 'old' : 'new', end, { key }),
    ]);
    const told = over({ seen: { ...over().seen, lookouts, watchers: 2 } });
    expect(stepOf(legOf(told), 'settle')!.standing.ways).toEqual([expect.objectContaining({ act: 'aside', subject: 'lookout Stale' })]);
    expect(legOf({ ...told, decisions: [...decided, decision('aside', 'lookout Stale', null, end)] }).settled).toMatchObject({
      settled: true,
      setAside: ['Stale'],
    });
  });

  it('has no bound for resolvers that extend where the old zone is never turned, and says so', () => {
    const zones = [
      ...served(end),
      ...rows(OLD[0]!, o1, [0, 40, answers(3600)], [100, end, answers(300)]),
      ...rows(OLD[1]!, o2, [0, 160, answers(3600)], [220, end, answers(300)]),
    ];
    const leg = legOf(over({ zones, decisions: [...decided, decision('leave', 'turn')] }));
    expect(leg.times.extended.at).toBe(Infinity);
    // The NS set fetched at the end of the referral leads on for its 300 s, and what is answered there is kept for 300 s.
    expect([leg.times.last.at, leg.settled.settled]).toEqual([4060 + 600 + 300 + 300, true]);
  });

  it('goes by address where names stay', () => {
    const same = {
      ...plan,
      oldNameservers: ['ns.zone.test.'],
      newNameservers: ['ns.zone.test.'],
      oldServers: [{ server: 'ns.zone.test.', address: o1 }],
      newServers: [{ server: 'ns.zone.test.', address: n1 }],
    };
    const glue = (address: string) => [{ name: 'ns.zone.test.', address, ttl: 900 }];
    const parent = (until: number) =>
      rows(
        'a.nic.test.',
        '192.0.2.53',
        [0, 4000, published(['ns.zone.test.'], { glue: glue(o1) })],
        [4060, until, published(['ns.zone.test.'], { glue: glue(n1) })],
      );
    const fresh = planned({ [APEX_NS]: { ttl: 300, data: ['ns.zone.test.'] } });
    const saysOld = answers(300, { 'ns.zone.test./A': { ttl: 1200, data: [o1] } }, ['ns.zone.test.']);
    const told = (oldRows: ReturnType<typeof rows<typeof fresh>>) =>
      legOf({ ...over(), plan: same, parent: parent(end), zones: [...rows('ns.zone.test.', n1, [400, end, fresh]), ...oldRows] });
    const never = told(rows('ns.zone.test.', o1, [0, 40, answers(3600, {}, ['ns.zone.test.'])], [100, end, saysOld]));
    expect(never.times.te.all).toBeUndefined();
    expect(never.settled.settled).toBe(false);
    const saysNew = answers(300, { 'ns.zone.test./A': { ttl: 1200, data: [n1] } }, ['ns.zone.test.']);
    const turned = told(rows('ns.zone.test.', o1, [0, 5000, saysOld], [5060, end, saysNew]));
    expect(turned.times.te.all).toMatchObject({ firstNew: 5060 });
    expect(turned.times.extended.at).toBe(5060 + 1200);
  });
});

describe('what is due', () => {
  it('is acts that are decided, then looks as they are planned', () => {
    const due = dueOf(legOf({ ...through(1000), work: {} }));
    expect(due.filter((one) => one.what === 'act').map((one) => one.id)).toEqual(['push', 'lower']);
    const later = legOf({ now: 100, decisions: [decision('hosts'), decision('approve', '', { lowerTo: 300, lowerAt: 900, plannedSwitch: null })] });
    expect(dueOf(later).find((one) => one.id === 'lower')).toMatchObject({ what: 'act', at: 900 });
  });

  it('is the survey again where somebody asked for it since', () => {
    const asked = decision('survey');
    expect(
      dueOf(legOf({ ...through(3600), decisions: [...decided, asked], work: { survey: work('done', { upTo: asked.id - 1 }) } })).map((one) => one.what),
    ).toContain('survey');
    expect(
      dueOf(legOf({ ...through(3600), decisions: [...decided, asked], work: { survey: work('done', { upTo: asked.id }) } })).map((one) => one.what),
    ).not.toContain('survey');
  });

  it('comes back to what failed after pauses that grow', () => {
    const pause = (since: number, at: number): number =>
      dueOf(legOf({ ...through(10_000), work: { push: work('trying', { since, at, plan: null }) } })).find((one) => one.id === 'push')!.at - at;
    expect([pause(0, 0), pause(0, 600), pause(0, 9000)]).toEqual([30, 300, 3600]);
  });

  it('never ends while a move is not settled: every state has something due or something to decide', () => {
    for (const now of [0, 100, 1000, 3520, 5000]) {
      const leg = legOf(through(now));
      const waits = stepsOf(leg).some(({ standing }) => ['ready', 'stopped'].includes(standing.state));
      expect(waits || dueOf(leg).length > 0).toBe(true);
    }
  });
});

describe('raising', () => {
  it('is done for the plan it was done for', () => {
    const base = through(20_000);
    const over = {
      ...base,
      parent: rows('a.nic.test.', '192.0.2.53', [0, 4000, published(OLD)], [4060, 20_000, published(NEW)]),
      zones: [
        ...served(20_000),
        ...rows(OLD[0]!, o1, [100, 4060, answers(300)], [4120, 20_000, answers(300, {}, NEW)]),
        ...rows(OLD[1]!, o2, [220, 4060, answers(300)], [4120, 20_000, answers(300, {}, NEW)]),
      ],
    };
    const leg = legOf({ ...over, work: { ...base.work, turn: work('done'), raise: work('done', { plan: legOf(base).pushes }) } });
    expect([state(leg, 'raise'), state(leg, 'close')]).toEqual(['done', 'ready']);
    expect(dueOf(leg).filter((one) => one.what === 'act')).toEqual([]);
    expect(
      dueOf(legOf({ ...over, work: { ...base.work, turn: work('done') } }))
        .filter((one) => one.what === 'act')
        .map((one) => one.id),
    ).toEqual(['raise']);
  });
});

describe('the line', () => {
  it('has what was done and what follows, in the order of time', () => {
    const marks = marksOf(legOf(through(1000)));
    expect(marks.map((mark) => mark.label)).toEqual(
      expect.arrayContaining(['surveyed', 'lowered', 'earliest switch', 'old nameservers forgotten', 'last old answer']),
    );
    expect(marks.map((mark) => mark.at)).toEqual([...marks.map((mark) => mark.at)].sort((a, b) => a - b));
    expect(isDone(legOf(through(1000)), 'lowered')).toBe(true);
  });
});

describe('scopes', () => {
  const names = (...all: string[]) => ({ kind: 'names', names: all }) as const;
  it('meet where they share a name, or one is the whole domain', () => {
    expect(scopesMeet({ kind: 'whole' }, names('a.example'))).toBe(true);
    expect(scopesMeet(names('a.example', 'b.example'), names('b.example'))).toBe(true);
    expect(scopesMeet(names('a.example'), names('b.example'))).toBe(false);
  });
  it('hold names in any spelling', () =>
    expect([inScope(names('a.example'), 'A.Example.', 'A'), inScope(names('a.example'), 'b.a.example.', 'A'), inScope({ kind: 'whole' }, 'x.', 'A')]).toEqual([
      true,
      false,
      true,
    ]));
});
