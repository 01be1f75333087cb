import { createHash } from 'node:crypto';
import { parseRdata } from '../../dns/rdata';
import { keyTag } from '../../dns/childSync';
import { TYPE_CODES } from '../../dns/typeNames';
import { USUAL_HABITS } from '../../hosts/dnsHabits';
import { NEW, OLD, answers, decision, legOf, plan, planned, published, rows, work } from '../../testing/moving';
import { Leg } from '../leg';
import { LegPlan } from '../plan';
import { ParentSight, ZoneSight } from '../seen';
import { stepOf } from '../steps';

const KEYS = ['257 3 13 mdsswUyr3DPW132mOi8V9xESWE8jTo0dxCjjnopKl+GqJxpVXckHAeF+KkxLbxILfDLUT0rAK9iUzy1L53eKGQ=='];
const TAG = keyTag(parseRdata(TYPE_CODES.DNSKEY, KEYS[0]!));
/** By Node, over the owner in lower case and the key. */
const DIGEST = createHash('sha256').update(plan.zone.wire).update(parseRdata(TYPE_CODES.DNSKEY, KEYS[0]!)).digest('hex').toUpperCase();
const DS = `${TAG} 13 2 ${DIGEST}`;
/** Of the right tag and algorithm, and of another key all the same. */
const FALSE_DS = `${TAG} 13 2 ${'AB'.repeat(32)}`;
const OTHER_DS = `${(TAG + 1) & 0xffff} 13 2 ${'cd'.repeat(32)}`;
const DNSKEY = 'zone.test./DNSKEY';
const [n1, n2] = plan.newServers.map((one) => one.address) as [string, string];

const signed = (keys: string[] = KEYS, unsigned: string[] | null = []): ZoneSight => ({
  ...planned({ [DNSKEY]: { ttl: 3600, data: keys } }),
  ...(keys.length > 0 && unsigned && { unsigned }),
});

/** A day before 0 the DS was there; it is gone from 100 on, the switch was submitted at 10,000 and seen at 10,060 at every server. */
function leg(
  now: number,
  of: { ds?: string; dsAt?: number; keys?: [number, number?]; other?: string[]; unsigned?: string[] | null; plan?: Partial<LegPlan>; left?: boolean } = {},
): Leg {
  const { keys: [one, two = one] = [11_000], dsAt = now, ds } = of;
  const parent = (more: Partial<ParentSight>): ParentSight => published(NEW, more);
  return legOf({
    now,
    plan: { keysTtl: 3600, ...of.plan },
    decisions: [
      ...[decision('hosts'), decision('approve', '', { lowerTo: 300, lowerAt: null, plannedSwitch: null }), decision('submitted', '', null, 10_000)],
      ...(of.left ? [decision('leave', 'ds-again')] : []),
    ],
    parent: rows(
      ...(['a.nic.test.', '192.0.2.53'] as const),
      [0, 40, published(OLD, { ds: ['1 8 2 00'], dsTtl: 600 })],
      [100, 10_000, published(OLD)],
      ...(ds === undefined
        ? ([[10_060, now, parent({})]] as const)
        : ([
            [10_060, dsAt - 60, parent({})],
            [dsAt, now, parent({ ds: [ds], dsTtl: 600 })],
          ] as const)),
    ),
    zones: [
      ...OLD.flatMap((server, index) =>
        rows(server, plan.oldServers[index]!.address, [0, 40, answers(3600)], [100, 10_000, answers(300)], [10_060, now, answers(300, {}, NEW)]),
      ),
      ...rows(NEW[0]!, n1, [200, one - 60, signed([])], [one, now, signed()]),
      ...rows(NEW[1]!, n2, [200, two - 60, signed([])], ...(two >= now ? [] : [[two, now, signed(of.other, of.unsigned)] as const])),
    ],
    work: { turn: work('done'), lower: work('done') },
    seen: { looked: { parent: now, old: now, new: now, lookouts: now } },
  });
}
const step = (one: Leg) => stepOf(one, 'ds-again')?.standing;
// Settled once the referral of 600 s and what was fetched there last, for 300 s, have run out.
const SETTLED = 20_000;

describe('a DS that comes back', () => {
  it('is a step only of a domain that had one, at a host that is not known not to sign', () => {
    expect(step(leg(SETTLED))).toBeDefined();
    expect(step(leg(SETTLED, { plan: { newHost: { ...plan.newHost!, habits: { ...USUAL_HABITS, signs: 'no' } } } }))).toBeUndefined();
    const never = legOf({ now: 100, parent: rows('a.nic.test.', '192.0.2.53', [0, 100, published(OLD)]) });
    expect(step(never)).toBeUndefined();
  });

  it('waits for keys at every new server, and then for what has none to run out', () => {
    const half = leg(SETTLED, { keys: [11_000, SETTLED] });
    expect(step(half)).toMatchObject({ state: 'ready', text: expect.stringMatching(/sign the zone first.*ns2\.new\.test serves no keys/) as string });
    // Keys at the second from 18,000 on; the new zone's largest TTL is 3600: not before 21,600.
    const soon = leg(SETTLED, { keys: [11_000, 18_000] });
    expect(step(soon)).toMatchObject({ state: 'due', dueAt: 21_600 });
    expect(step(leg(21_601, { keys: [11_000, 18_000] }))).toMatchObject({ state: 'ready', text: expect.stringMatching(/take the DS from there/) as string });
  });

  it('waits for signatures beside the keys: a server that gives none would make the domain fail', () => {
    const bare = leg(SETTLED, { unsigned: ['SOA of zone.test.', 'proof of what is not there'] });
    expect(step(bare)).toMatchObject({
      state: 'ready',
      text: expect.stringMatching(/ns2\.new\.test gives SOA of zone\.test, proof of what is not there without a signature by its keys/) as string,
    });
    expect(step(leg(SETTLED, { unsigned: null }))).toMatchObject({ state: 'ready', text: expect.stringMatching(/signatures is looked at next/) as string });
    // Where the DS is there already, that is an alarm.
    const alarm = leg(SETTLED, { ds: DS, unsigned: ['SOA of zone.test.'] });
    expect(step(alarm)).toMatchObject({ state: 'stopped', text: expect.stringMatching(/find nothing there/) as string });
    // Whoever has left it is told all the same.
    const left = leg(SETTLED, { ds: DS, unsigned: ['SOA of zone.test.'], left: true });
    expect(step(left)).toMatchObject({ state: 'left', text: expect.stringMatching(/find nothing there/) as string });
    expect(step(leg(SETTLED, { unsigned: ['SOA of zone.test.'], left: true }))).toMatchObject({ state: 'left', text: null });
  });

  it('counts from the end of the old servers too: their answers have no such signatures', () => {
    // X: 10,060 + 600 + 300; the old zone's largest TTL is 3600 s, as found.
    const { extended } = leg(SETTLED).times;
    expect(step(leg(extended.at + 3599, { keys: [300] }))).toMatchObject({ state: 'due', dueAt: extended.at + 3600 });
    expect(step(leg(extended.at + 3601, { keys: [300] }))?.state).toBe('ready');
  });

  it('is done once every server of the parent has one of the new keys, and not what the step before it took out', () => {
    const done = leg(30_000, { ds: DS, dsAt: 29_000 });
    expect([step(done)?.state, step(done)?.doneAt, stepOf(done, 'ds-gone')?.standing.state]).toEqual(['done', 29_000, 'done']);
    expect(stepOf(leg(30_000), 'raise')?.standing.text).toMatch(/After: .*put a DS in at the registrar again/);
  });

  it('is the old one that came back, as long as the switch was not seen: it is to be taken out', () => {
    const back = legOf({
      now: 10_100,
      plan: { keysTtl: 3600 },
      decisions: [decision('hosts'), decision('submitted', '', null, 10_000)],
      parent: rows(
        ...(['a.nic.test.', '192.0.2.53'] as const),
        [0, 40, published(OLD, { ds: ['1 8 2 00'], dsTtl: 600 })],
        [100, 10_000, published(OLD)],
        [10_060, 10_100, published(OLD, { ds: ['1 8 2 00'], dsTtl: 600 })],
      ),
    });
    expect([stepOf(back, 'ds-gone')?.standing.state, step(back)?.state]).toEqual(['ready', 'waiting']);
  });

  it('is an alarm where it stands for no key that every new server serves', () => {
    for (const wrong of [leg(30_000, { ds: OTHER_DS }), leg(30_000, { ds: FALSE_DS }), leg(30_000, { ds: DS, other: [] }), leg(30_000, { ds: '1 8 2 00' })])
      expect(step(wrong)).toMatchObject({ state: 'stopped', text: expect.stringMatching(/stands for no key/) as string });
  });

  it('is said to be early where it came before its time', () => {
    const early = leg(19_000, { ds: DS, dsAt: 18_500, keys: [18_000] });
    expect(step(early)).toMatchObject({ state: 'doing', dueAt: 21_600 });
  });

  it('may be left out, and then holds up nothing', () => {
    const left = leg(30_000, { left: true });
    expect(step(left)).toMatchObject({ state: 'left', text: null });
    // What is wrong at the parent is said all the same.
    expect(step(leg(30_000, { left: true, ds: OTHER_DS }))).toMatchObject({ state: 'left', text: expect.stringMatching(/stands for no key/) as string });
    expect(stepOf(left, 'raise')?.standing.text ?? '').not.toMatch(/DS/);
  });
});
