import { DnsHabits, USUAL_HABITS } from '../hosts/dnsHabits';
import { Name } from '../dns/name';
import { rrsetFromText } from '../dns/record';
import { TYPE_CODES } from '../dns/typeNames';
import { OLD, answers, plan, published, rows } from '../testing/moving';
import { WaysCompared, WaysInput, compareWays } from './compareWays';
import { seenServers } from './seen';
import { WayId, legKindOf, legsOf } from './way';

const ZONE = Name.parse('zone.test.');
const found = [
  rrsetFromText({ owner: 'zone.test.', type: 'A', ttl: 3600, data: ['192.0.2.1'] }),
  rrsetFromText({ owner: 'www.zone.test.', type: 'A', ttl: 3600, data: ['192.0.2.1'] }),
  rrsetFromText({ owner: 'zone.test.', type: 'MX', ttl: 86_400, data: ['10 mail.zone.test.'] }),
  rrsetFromText({ owner: 'zone.test.', type: 'NS', ttl: 7200, data: OLD }),
];
const oldWeb = [{ name: 'Old Web', nameservers: [], addresses: ['192.0.2.1'], aliasTarget: undefined, requires: [] }];
const sight = { ...answers(3600, { 'zone.test./A': { ttl: 3600, data: ['192.0.2.1'] } }) };
const zones = seenServers([
  ...rows(OLD[0]!, plan.oldServers[0]!.address, [0, 0, { ...sight, sets: { ...sight.sets, 'zone.test./NS': { ttl: 7200, data: [...OLD].sort() } } }]),
]);
const input = (more: Partial<WaysInput> = {}, ds: readonly string[] = []): WaysInput => ({
  plan: { ...plan, zone: ZONE, chosen: false, rulings: [], newServers: [], newNameservers: [], newHost: undefined, oldWeb },
  seen: {
    parent: seenServers(rows('a.nic.test.', '192.0.2.53', [0, 0, published(OLD, { ttl: 21_600, ds: [...ds], dsTtl: ds.length > 0 ? 86_400 : 0 })])),
    zones,
  },
  found,
  grade: 'whole',
  assumed: { floor: 0, parentAllowance: 0, hostAllowance: 0 },
  now: 0,
  every: 60,
  ...more,
});
/** To the end, without a pause. */
function compared(input: WaysInput): WaysCompared {
  const steps = compareWays(input);
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}
const way = (of: WaysInput, id: WayId) => compared(of).ways.find((one) => one.way === id)!;

describe('the ways side by side', () => {
  it('have the times that the TTLs of the survey give them', () => {
    // Lowered now from an hour to 300 s, the website’s records are sound to change after 55 minutes, and settled 300 s later.
    expect(way(input(), 'repoint')).toMatchObject({ sets: 2, untilSound: 3600 - 300, settling: 300, back: 300, ruledOut: null });
    // The zone's own NS set of two hours has to run out down to 300 s; then the parent's six hours lead to the old servers, and what
    // is fetched there last lives for 300 s.
    expect(way(input(), 'nameservers')).toMatchObject({ untilSound: 7200 - 300, settling: 21_600 + 300, back: 300, delegationBack: 21_600 });
    const both = way(input(), 'website first');
    expect(both.settling).toBe(300 + (7200 - 300) + (21_600 + 300));
    // Its time can be opened like any other: the terms of the second leg are among those that led to it.
    const [w, second] = both.untilSettled.terms.slice(-2).map((term) => term.value);
    expect([w, second, both.untilSettled.at]).toEqual([7200 - 300, 21_600 + 300, way(input(), 'repoint').untilSettled.at + w! + second!]);
  });

  it.each([
    ['a delegated subzone', [{ owner: 'sub.zone.test.', type: 'NS', ttl: 3600, data: ['ns1.elsewhere.test.'] }]],
    ['a subtree that is elsewhere', [{ owner: 'old.zone.test.', type: 'DNAME', ttl: 3600, data: ['new.test.'] }]],
    [
      'names below a cut',
      [
        { owner: 'sub.zone.test.', type: 'NS', ttl: 3600, data: ['ns.sub.zone.test.'] },
        { owner: 'ns.sub.zone.test.', type: 'A', ttl: 3600, data: ['192.0.2.53'] },
      ],
    ],
  ])('have the same times where the zone has %s', (_what, more) => {
    const bent = input({ found: [...found, ...more.map(rrsetFromText)] });
    for (const one of compared(input()).ways)
      expect(way(bent, one.way)).toMatchObject({ sets: one.sets, untilSound: one.untilSound, settling: one.settling, back: one.back });
  });

  it('recommend the nameservers where nothing speaks against them, and records in place where something would be lost or unsigned', () => {
    expect(compared(input()).recommended).toBe('nameservers');
    expect(compared(input({ grade: 'partial' }))).toMatchObject({
      recommended: 'repoint',
      reason: expect.stringMatching(/incomplete.*cannot be lost/) as string,
    });
    const signed = input({}, ['1 8 2 00']);
    expect(compared(signed)).toMatchObject({ recommended: 'repoint', reason: expect.stringMatching(/signed/) as string });
    // The DS of a day runs out first, then the keys that were validated through it.
    expect(way(signed, 'nameservers')).toMatchObject({ untilSound: 86_400, settling: 21_600 + 300, untilSettled: { at: 86_400 + 21_600 + 300 } });
  });

  it('leave names alone only the way in place', () => {
    // Its address becomes one of the new host, and an IPv6 one is added.
    const names = input({ plan: { ...input().plan, scope: { kind: 'names', names: ['www.zone.test'] } } });
    expect(compared(names)).toMatchObject({ recommended: 'repoint', reason: 'It is the only one that is open here.' });
    expect(
      compared(names)
        .ways.filter((one) => one.ruledOut === null)
        .map((one) => [one.way, one.sets]),
    ).toEqual([['repoint', 2]]);
  });

  it('say who does it, and what the website is today although nobody described its host', () => {
    const nobody = input({ plan: { ...input().plan, oldHost: undefined, oldWeb: [] } });
    expect(way(nobody, 'repoint')).toMatchObject({ sets: way(input(), 'repoint').sets, who: expect.stringMatching(/from a sheet/) as string });
  });

  it('do not recommend one that changes nothing', () => {
    const parked = input({ found: input().found.filter((set) => set.type !== TYPE_CODES.A && set.type !== TYPE_CODES.AAAA), grade: 'partial' });
    expect(way(parked, 'repoint').against.join(' ')).toMatch(/Neither the domain nor www leads anywhere now/);
    expect(compared(parked).recommended).toBe('nameservers');
  });
});

it('another account says how long nothing is answered, where one account lets go first, and is not settled sooner', () => {
  const at = (accounts: DnsHabits['accounts']) =>
    way(input({ plan: { ...input().plan, oldHost: { ...plan.oldHost!, habits: { ...USUAL_HABITS, accounts } } } }), 'another account');
  // Three sets at 6 s, a look of 60 s, and a failure that is remembered for 300 s: 378 s.
  expect([at('one').settling, at('several').settling, at('unknown').settling]).toEqual([378, 0, 0]);
  const { untilSettled, untilSound } = at('one');
  expect(untilSettled.at).toBe(untilSound + 378);
  expect(untilSettled.terms.reduce((sum, term) => sum + term.value, 0)).toBe(untilSettled.at);
  expect(at('one').against[0]).toMatch(/finds nothing for about 7 min/);
  expect(at('several').against.join(' ')).not.toMatch(/finds nothing/);
});

describe('a way in two legs', () => {
  it('leaves to the second what the first is not about', () => {
    const hosts = { newDnsHost: 'dns', newWebHost: 'web' };
    expect(legsOf('nameservers', hosts)).toEqual({ first: hosts, next: undefined });
    expect(legsOf('nameservers first', hosts)).toEqual({
      first: { newDnsHost: 'dns', newWebHost: null },
      next: { kind: 'repoint', newDnsHost: null, newWebHost: 'web' },
    });
    expect(legsOf('website first', hosts)).toEqual({
      first: { newDnsHost: null, newWebHost: 'web' },
      next: { kind: 'delegation', newDnsHost: 'dns', newWebHost: null },
    });
    expect((['nameservers', 'repoint', 'nameservers first', 'website first'] as const).map(legKindOf)).toEqual([
      'delegation',
      'repoint',
      'delegation',
      'repoint',
    ]);
  });
});

// In time that grows with the square of their number this takes minutes, and does not end in time.
it('the ways are compared where tens of thousands of names lead to the website', () => {
  const names = Array.from({ length: 20_000 }, (_, i) => rrsetFromText({ owner: `n${i}.zone.test.`, type: 'A', ttl: 3600, data: ['192.0.2.1'] }));
  expect(way(input({ found: [...found, ...names] }), 'repoint').sets).toBe(20_002);
});
