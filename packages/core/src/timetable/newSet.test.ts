import { nextOf } from '../move/next';
import { LegPlan } from '../move/plan';
import { ParentSight } from '../move/seen';
import { stepOf } from '../move/steps';
import { APEX_NS, answers, decision, legOf, plan, planned, published, rows, work } from '../testing/moving';
import { NAMES_MOVED, namesElsewhere, untoldNames } from './newSet';

const NAMES = ['ns1.host.test.', 'ns2.host.test.'];
const [OLD, FRESH] = [
  ['198.51.100.1', '198.51.100.2'],
  ['203.0.113.1', '203.0.113.2'],
];
/** A host keeps the names of its servers and gives them other addresses; the names are in a zone of its own. */
const renumbered: LegPlan = {
  ...plan,
  oldNameservers: NAMES,
  newNameservers: NAMES,
  oldServers: NAMES.map((server, index) => ({ server, address: OLD[index]! })),
  newServers: NAMES.map((server, index) => ({ server, address: FRESH[index]! })),
};
const says = (addresses: readonly string[], ttl = 900): ParentSight => ({
  ...published([]),
  onlyAddresses: true,
  glue: addresses.map((address, index) => ({ name: NAMES[index]!, address, ttl })),
});
const decided = [decision('hosts'), decision('push'), decision('approve', '', { lowerTo: 300, lowerAt: null, plannedSwitch: null })];
const probe = legOf({ now: 0, plan: renumbered, decisions: decided });
const parent = (now: number) => rows('a.nic.test.', '192.0.2.53', [0, now, published(NAMES)]);
const told = (now: number, ...more: ReturnType<typeof rows<ParentSight>>[]): Parameters<typeof legOf>[0] => ({
  now,
  plan: renumbered,
  decisions: decided,
  parent: [...parent(now), ...more.flat()],
  zones: [
    ...OLD.flatMap((address, index) => rows(NAMES[index]!, address, [0, now, answers(300, {}, NAMES)])),
    ...FRESH.flatMap((address, index) => rows(NAMES[index]!, address, [0, now, planned({ [APEX_NS]: { ttl: 300, data: NAMES } })])),
  ],
  work: { push: work('done', { plan: probe.pushes }), lower: work('done', { plan: probe.lowers }) },
  seen: { looked: { parent: now, old: now, new: now, drift: now } },
});
const leg = (...of: Parameters<typeof told>): ReturnType<typeof legOf> => legOf(told(...of));

describe('nameservers whose names stay and whose addresses change, in a zone of the host', () => {
  it('are told by the authorities of the names: the parent, which names them all along, says nothing', () => {
    expect(namesElsewhere(renumbered)).toEqual(NAMES);
    const { times, state } = leg(5000);
    expect([times.ts, times.t0, times.switchSeen]).toEqual([undefined, undefined, false]);
    expect(untoldNames({ plan: renumbered, seen: state.seen })).toEqual(NAMES);
    expect(leg(5000).settled.settled).toBe(false);
  });

  it('are switched when every authority of the names was seen with the new addresses, and lead to the old ones until their TTL is over', () => {
    const one = rows<ParentSight>('dns1.host.test.', '192.0.2.101', [0, 4000, says(OLD)], [4060, 6000, says(FRESH)]);
    const behind = rows<ParentSight>('dns2.host.test.', '192.0.2.102', [0, 6000, says(OLD)]);
    const waiting = leg(6000, one, behind);
    expect([waiting.times.ts, waiting.times.t0]).toEqual([4000, undefined]);
    expect(stepOf(waiting, 'switch')!.standing.text).toMatch(/dns2\.host\.test still says ns1\.host\.test at 198\.51\.100\.1/);
    expect(nextOf(waiting)).toMatchObject({ who: 'wanderon' });
    const followed = rows<ParentSight>('dns2.host.test.', '192.0.2.102', [0, 4900, says(OLD)], [5000, 6000, says(FRESH)]);
    const { times } = leg(6000, one, followed);
    expect(times.t0).toEqual({ lastOld: 4900, firstNew: 5000 });
    // The second one gave the old addresses until 5000, for 900 s.
    expect(times.delegation.at).toBe(5900);
    expect(leg(5800, one, followed).settled.settled).toBe(false);
  });

  it('go back on a relapse of one authority, and count anew', () => {
    const relapsed = rows<ParentSight>('dns1.host.test.', '192.0.2.101', [0, 4000, says(OLD)], [4060, 4500, says(FRESH)], [4560, 5000, says(OLD)]);
    expect(leg(5000, relapsed).times.t0).toBeUndefined();
    expect(nextOf(leg(5000, relapsed))).toMatchObject({ step: 'switch', who: 'you', failed: true });
  });

  it('can be gone on with where no authority of theirs ever answers, by a word on record, which counts from then on and for a week', () => {
    const mute = rows<ParentSight>('dns1.host.test.', '192.0.2.101', [0, 5000, undefined]);
    const submitted = [...decided, decision('submitted', '', null, 100)];
    const waits = legOf({ ...told(5000, mute), decisions: submitted });
    const { ways, text } = stepOf(waits, 'switch')!.standing;
    expect(text).toMatch(/No server says yet where ns1\.host\.test, ns2\.host\.test is/);
    expect(ways.map((way) => [way.act, way.subject])).toEqual([['aside', NAMES_MOVED]]);
    expect([waits.times.t0, waits.times.extended.at]).toEqual([undefined, Infinity]);
    // Any other server that is set aside says nothing of it.
    expect(legOf({ ...told(5000, mute), decisions: [...submitted, decision('aside', '192.0.2.101', null, 4000)] }).times.t0).toBeUndefined();
    const moved = legOf({ ...told(5000, mute), decisions: [...submitted, decision('aside', NAMES_MOVED, null, 4000)] });
    expect([moved.times.t0?.firstNew, moved.times.delegation.at, moved.settled.settled]).toEqual([4000, 4000 + 604_800, false]);
    expect(stepOf(moved, 'switch')!.standing.state).toBe('done');
  });
});
