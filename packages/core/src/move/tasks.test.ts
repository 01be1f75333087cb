import { HostTask } from '../hosts/task';
import { Requirement, plainRequirement } from '../hosts/requirement';
import { HostKnowledge } from '../rebuild/host';
import { OLD, RULINGS, answers, decision, legOf, plan, planned, published, rows, ruling, work } from '../testing/moving';
import { dueOf } from './due';
import { gateOf } from './gate';
import { Leg } from './leg';
import { nextOf } from './next';
import { LegPlan, setKey } from './plan';
import { Decision } from './said';
import { ZoneSight } from './seen';
import { isDone, stepOf, stepsOf } from './steps';

const [o1, o2] = plan.oldServers.map((one) => one.address) as [string, string];
const task = (id: string, when: HostTask['when'], more: Partial<HostTask> = {}): HostTask => ({
  id,
  title: `Do ${id}`,
  by: 'us',
  when,
  waits: false,
  redirects: false,
  note: '',
  ...more,
});
const TOKEN = setKey('_proof.zone.test.', 'TXT');
const proof: Requirement = plainRequirement({ owner: '_proof', type: 'TXT', data: '"ours"', id: 'proof', early: true, ends: 'verified' });
const web = (more: Partial<HostKnowledge>): HostKnowledge => ({
  name: 'Larkspur',
  nameservers: [],
  addresses: ['192.0.2.2'],
  aliasTarget: undefined,
  requires: [],
  ...more,
});
const WITH_PROOF = [...RULINGS, ruling('_proof.zone.test.', 'TXT', 'new', 3600, undefined, ['"ours"'])];
const state = (leg: Leg, id: string): string | undefined => stepOf(leg, id)?.standing.state;
const ids = (leg: Leg): string[] => stepsOf(leg).map((one) => one.rule.id);

function leg(
  newWeb: HostKnowledge,
  decisions: readonly Decision[] = [],
  more: { plan?: Partial<LegPlan>; one?: ZoneSight; two?: ZoneSight; now?: number } = {},
): Leg {
  const now = more.now ?? 1000;
  return legOf({
    now,
    decisions,
    plan: { newWeb, ...more.plan },
    zones: [...rows(OLD[0]!, o1, [0, now, more.one ?? answers(3600)]), ...rows(OLD[1]!, o2, [0, now, more.two ?? answers(3600)])],
  });
}

describe('tasks at the web host', () => {
  const tasks = [task('domain', 'before'), task('site', 'before', { by: 'client' }), task('https', 'after'), task('purge', 'after')];

  it('are steps in their order, each after the one before it, in the chapter where they belong', () => {
    const one = leg(web({ tasks }));
    expect(ids(one)).toEqual([
      ...['survey', 'choose', 'push', 'served', 'task:domain', 'task:site', 'lower', 'lowered', 'switch', 'turn', 'turned', 'settle', 'raise'],
      ...['task:https', 'task:purge', 'close'],
    ]);
    expect(['domain', 'site', 'https', 'purge'].map((id) => state(one, `task:${id}`))).toEqual(['ready', 'waiting', 'waiting', 'waiting']);
    expect(state(leg(web({ tasks }), [decision('done', 'task:domain')]), 'task:site')).toBe('ready');
  });

  it('are done by somebody’s word, left out by another, and open again when it is taken back', () => {
    const done = decision('done', 'task:domain', null, 40);
    expect(stepOf(leg(web({ tasks }), [done]), 'task:domain')!.standing).toMatchObject({ state: 'done', doneAt: 40 });
    expect(state(leg(web({ tasks }), [done, decision('done', 'task:domain', null, 50, done.id)]), 'task:domain')).toBe('ready');
    expect(state(leg(web({ tasks }), [decision('leave', 'task:domain')]), 'task:domain')).toBe('left');
    // What was done out of turn is done.
    expect(state(leg(web({ tasks }), [decision('done', 'task:site')]), 'task:site')).toBe('done');
  });

  it('shut the gate while one that comes before the cutover is open, and name it', () => {
    const line = (decisions: Decision[]) => gateOf(leg(web({ tasks }), decisions)).lines.find((one) => one.key === 'asked')!;
    expect(line([])).toMatchObject({ holds: false, waivable: true, text: 'Larkspur still asks for: Do domain; Do site.' });
    expect(line([decision('done', 'task:domain'), decision('leave', 'task:site')])).toMatchObject({ holds: true });
    expect(gateOf(leg(web({}))).lines.some((one) => one.key === 'asked')).toBe(false);
  });

  it('come after what Wanderon waits for, and before a switch that waits for them', () => {
    const keyed = { newWeb: web({ tasks }) };
    expect(nextOf(leg(keyed.newWeb))?.step).toBe('push');
    const now = 5000;
    const decisions = [decision('hosts'), decision('push'), decision('approve', '', { lowerTo: 300, lowerAt: null, plannedSwitch: null })];
    const probe = legOf({ now, plan: keyed, decisions });
    const ready = (more: Decision[]): Leg =>
      legOf({
        now,
        decisions: [...decisions, ...more],
        plan: keyed,
        parent: rows('a.nic.test.', '192.0.2.53', [0, now, published(OLD)]),
        zones: [
          ...plan.oldServers.flatMap((one) => rows(one.server, one.address, [0, 40, answers(3600)], [100, now, answers(300)])),
          ...plan.newServers.map((one) => rows(one.server, one.address, [200, now, planned()])[0]!),
        ],
        work: { push: work('done', { plan: probe.pushes }), lower: work('done', { plan: probe.lowers }) },
        seen: {
          looked: { parent: now, old: now, new: now, drift: now },
          website: { at: now, faults: [], answers: [{ page: 'https://www.zone.test/', addresses: ['192.0.2.2'] }], redirects: [] },
        },
      });
    expect(nextOf(ready([]))).toMatchObject({ step: 'task:domain', who: 'you' });
    const done = ready([decision('done', 'task:domain'), decision('done', 'task:site')]);
    expect(nextOf(done)).toMatchObject({ step: 'switch' });
    expect(gateOf(done).open).toBe(true);
    expect(gateOf(ready([])).open).toBe(false);
  });

  it('are none where a leg sets back, or where nothing is chosen', () => {
    expect(ids(leg(web({ tasks }), [], { plan: { isBack: true } })).filter((id) => id.startsWith('task:'))).toEqual([]);
    expect(ids(leg(web({ tasks }), [], { plan: { chosen: false } })).filter((id) => id.startsWith('task:'))).toEqual([]);
  });
});

describe('a record that the web host looks for before the cutover', () => {
  const waits = task('confirm', 'before', { waits: true });
  const early = (decisions: Decision[] = [], more: Parameters<typeof leg>[2] = {}): Leg =>
    leg(web({ requires: [proof], tasks: [waits] }), decisions, { ...more, plan: { rulings: WITH_PROOF, ...more.plan } });
  const has: ZoneSight = answers(3600, { [TOKEN]: { ttl: 300, data: ['"ours"'] } });
  const lacks: ZoneSight = answers(3600, { [TOKEN]: { ttl: 900, data: [] } });

  it('is sent to the live zone once a person says so, and what rests on it waits until it is seen at every server', () => {
    expect(stepOf(early(), 'early')!.standing.ways.map((way) => way.act)).toEqual(['send early', 'leave']);
    expect(dueOf(early()).map((due) => due.id)).not.toContain('early');
    expect(dueOf(early([decision('early')])).map((due) => due.id)).toContain('early');
    const sent = [decision('leave', 'early')];
    expect(state(early(sent, { one: has, two: lacks }), 'early-seen')).toBe('doing');
    expect(state(early(sent, { one: has, two: lacks }), 'task:confirm')).toBe('waiting');
    expect(stepOf(early(sent, { one: has, two: lacks }), 'early-seen')!.standing.text).toBe('ns2.old.test does not have it yet.');
    const seen = early(sent, { one: has, two: has });
    expect(isDone(seen, 'early-seen')).toBe(true);
    expect(state(seen, 'task:confirm')).toBe('ready');
  });

  it('is not taken for seen where no server was asked for it, and is typed where we hold no key', () => {
    expect(state(early([decision('leave', 'early')]), 'early-seen')).toBe('doing');
    const hand = early([], { plan: { oldHost: { name: 'Panel DNS', keyed: false, fronts: [] } } });
    expect(stepOf(hand, 'early')!.standing).toMatchObject({ state: 'ready', text: expect.stringContaining('Panel DNS takes no updates from us') as string });
  });

  it('is gone on without where no server tells, and is not looked for where there is no live zone', () => {
    const stuck = early([decision('leave', 'early')]);
    expect(stepOf(stuck, 'early-seen')!.standing.ways.map((way) => way.act)).toEqual(['leave']);
    expect(state(early([decision('leave', 'early'), decision('leave', 'early-seen')]), 'task:confirm')).toBe('ready');
    const first = early([], { plan: { oldNameservers: [], oldServers: [], oldHost: undefined } });
    expect([state(first, 'early'), state(first, 'early-seen'), state(first, 'task:confirm')]).toEqual([undefined, undefined, 'ready']);
  });

  it('does not make a repoint leg begin', () => {
    const inPlace: Partial<LegPlan> = { kind: 'repoint', newNameservers: OLD, newServers: plan.oldServers };
    const seenEarly = early([decision('leave', 'early')], { plan: inPlace, one: has, two: has });
    expect(seenEarly.times.ts).toBeUndefined();
    const changed = early([decision('leave', 'early')], {
      plan: inPlace,
      one: answers(3600, { [TOKEN]: { ttl: 300, data: ['"ours"'] }, 'www.zone.test./A': { ttl: 300, data: ['192.0.2.2'] } }),
      two: has,
    });
    expect(changed.times.ts).toBeDefined();
  });

  it('can be taken out once the host has verified it and the move is settled', () => {
    const one = early();
    expect(ids(one)).toContain('clear:proof');
    expect(state(one, 'clear:proof')).toBe('waiting');
  });

  it('is taken out once no server has it any more, and the zone is as planned with it and without it', () => {
    const says = (data: string[], cleared: boolean): Leg =>
      legOf({
        now: 9000,
        plan: { newWeb: web({ requires: [proof] }), rulings: WITH_PROOF, cleared: new Set(cleared ? ['proof'] : []) },
        zones: plan.newServers.flatMap(({ server, address }) => rows(server, address, [0, 9000, planned({ [TOKEN]: { ttl: 300, data } })])),
        decisions: cleared ? [decision('done', 'clear:proof')] : [],
      });
    const standing = (leg: Leg): unknown => [
      state(leg, 'clear:proof'),
      leg.wanted.is(TOKEN, { ttl: 300, data: ['"ours"'] }),
      leg.wanted.is(TOKEN, { ttl: 300, data: [] }),
    ];
    expect(standing(says(['"ours"'], false))).toEqual(['waiting', true, false]);
    expect(standing(says([], true))).toEqual(['done', true, true]);
    expect(says([], true).wanted.is(TOKEN, { ttl: 300, data: ['"else"'] })).toBe(false);
    const still = says(['"ours"'], true);
    expect(stepOf(still, 'clear:proof')!.rule.standing(still)).toMatchObject({ state: 'doing', text: 'ns1.new.test, ns2.new.test still have it.' });
  });
});

describe('tasks at the new DNS host', () => {
  const tasks = [task('contact', 'before', { note: 'A mailbox that is read.' }), task('seal', 'after')];
  const dns = { name: 'New DNS', keyed: true, fronts: [], tasks };

  it('are steps of a leg that goes there, and the gate waits for them', () => {
    const one = leg(web({}), [], { plan: { newHost: dns, newWeb: undefined } });
    expect(ids(one).filter((id) => id.startsWith('task:'))).toEqual(['task:contact', 'task:seal']);
    expect(stepOf(one, 'task:contact')!.standing.text).toBe('At New DNS. A mailbox that is read.');
    expect(gateOf(one).lines.find((line) => line.key === 'asked')).toMatchObject({ holds: false, text: 'New DNS still asks for: Do contact.' });
    const done = leg(web({}), [decision('done', 'task:contact')], { plan: { newHost: dns, newWeb: undefined } });
    expect(gateOf(done).lines.find((line) => line.key === 'asked')!.holds).toBe(true);
  });

  it('are none where the zone stays there, or goes back there', () => {
    for (const more of [{ kind: 'repoint' }, { isBack: true }] as const)
      expect(ids(leg(web({}), [], { plan: { newHost: dns, ...more } })).filter((id) => id.startsWith('task:'))).toEqual([]);
  });
});
