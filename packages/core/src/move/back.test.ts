import { legSheet } from '../hosts/legSheet';
import { NEW, OLD, RULINGS, WWW, answers, decision, legOf, plan, planned, published, ruling, rows, work } from '../testing/moving';
import { pushedSets } from '../rebuild/zoneAfter';
import { apexTtlBack, backPlan, waysBack } from './back';
import { gateOf } from './gate';
import { Leg } from './leg';
import { LegPlan } from './plan';
import { ParentSight, SightRow, ZoneSight } from './seen';
import { stepOf } from './steps';

const o = OLD.map((_, index) => `198.51.100.${index + 1}`);
const n = NEW.map((_, index) => `203.0.113.${index + 1}`);
const parent = (...seen: Parameters<typeof rows<ParentSight>>[2][]): SightRow<ParentSight>[] => rows('a.nic.test.', '192.0.2.53', ...seen);
/** Both servers of each side say the same: the old zone names the new nameservers after the switch, the new one as planned. */
const zones = (now: number, old: ZoneSight = answers(300, {}, NEW), fresh: ZoneSight = planned()): SightRow<ZoneSight>[] => [
  ...OLD.flatMap((server, index) => rows(server, o[index]!, [0, 1000, answers(3600)], [1060, 5000, answers(300)], [5060, now, old])),
  ...NEW.flatMap((server, index) => rows(server, n[index]!, [1000, now, fresh])),
];
/** What did not change, once the old servers are asked for everything again. */
const MAIL = { 'zone.test./MX': { ttl: 3600, data: ['10 mail.zone.test.'] }, 'mail.zone.test./A': { ttl: 3600, data: ['192.0.2.25'] } };
const SWITCHED = (now: number) => parent([0, 4900, published(OLD)], [5000, now, published(NEW)]);
const decided = [decision('approve', '', { lowerTo: 300 }), decision('push'), decision('submitted', '', null, 4900)];

const forward = (now: number, more: Partial<Parameters<typeof legOf>[0]> = {}): Leg =>
  legOf({ now, parent: SWITCHED(now), zones: zones(now), decisions: decided, work: { turn: work('done') }, ...more });
/** The leg that goes back, begun at 6000. */
const backward = (now: number, more: Partial<Parameters<typeof legOf>[0]> = {}): Leg =>
  legOf({
    now,
    plan: backPlan(plan, 'nameservers', 6000, false),
    parent: SWITCHED(now),
    zones: zones(now),
    decisions: [decision('approve', '', { lowerTo: 300 }, 6000), decision('push', '', null, 6000)],
    work: { push: work('done', { plan: legOf({ now, plan: backPlan(plan, 'nameservers', 6000, false) }).pushes }) },
    ...more,
  });
const words = (leg: Leg, key: string): string | undefined => gateOf(leg).lines.find((line) => line.key === key)?.text;

describe('the ways back', () => {
  it('are both there once the change has begun, each with why it cannot be taken yet', () => {
    const brief = (leg: Leg): unknown[] => waysBack(leg).map(({ how, ruledOut }) => [how, ruledOut === null]);
    expect(brief(forward(4000, { decisions: decided.slice(0, 2), parent: parent([0, 4000, published(OLD)]), zones: zones(4000) }))).toEqual([]);
    const sent = forward(4950, { parent: parent([0, 4950, published(OLD)]), zones: zones(4950) });
    expect(brief(sent)).toEqual([
      ['records', false],
      ['nameservers', true],
    ]);
    expect(brief(forward(6000, { work: {} }))).toEqual([
      ['records', false],
      ['nameservers', true],
    ]);
    expect(brief(forward(6000))).toEqual([
      ['records', true],
      ['nameservers', true],
    ]);
    expect(brief(forward(6000, { plan: { followed: true } }))).toEqual([]);
    expect(brief(backward(7000))).toEqual([]);
    expect(brief(forward(6000, { plan: { oldServers: [], oldNameservers: [] } }))).toEqual([]);
  });

  it('take as long as what was served in both directions may be remembered', () => {
    const [records, nameservers] = waysBack(forward(5100));
    // New values of 300 s at servers that everybody is led to; a referral of 600 s, and 300 s of what is given at its end.
    expect([records!.takes, nameservers!.takes]).toEqual([300, 900]);
    const raised = forward(5100, { zones: zones(5100, undefined, planned({ [WWW]: { ttl: 7200, data: ['192.0.2.2'] } })) });
    expect(waysBack(raised).map(({ takes }) => takes)).toEqual([7200, 600 + 7200]);
    // What is being raised, or was and has not been looked at since, counts as it was sent.
    expect(waysBack(forward(6000, { work: { turn: work('done'), raise: work('trying') } })).map(({ takes }) => takes)).toEqual([3600, 600 + 3600]);
  });
});

describe('a leg that goes back by the nameservers', () => {
  it('has the sides exchanged; what belongs to a host stays with it, and what stayed behind is brought again', () => {
    const rulings = [
      ...RULINGS,
      ruling('panel.zone.test.', 'A', 'drop', 3600, ['192.0.2.7'], undefined),
      ruling('t.zone.test.', 'TXT', 'new', 3600, undefined, ['"t"']),
    ];
    const back = backPlan({ ...plan, rulings }, 'nameservers', 6000, false);
    expect(back.rulings.map((row) => [row.owner, row.type, row.ruling, row.planned?.data ?? null, row.planned?.ttl ?? null])).toEqual([
      ['www.zone.test.', 'A', 'repoint', ['192.0.2.1'], 3600],
      ['zone.test.', 'MX', 'carry', ['10 mail.zone.test.'], 3600],
      ['mail.zone.test.', 'A', 'carry', ['192.0.2.25'], 3600],
      ['panel.zone.test.', 'A', 'new', ['192.0.2.7'], 3600],
      ['t.zone.test.', 'TXT', 'drop', null, null],
      ['zone.test.', 'NS', 'drop', null, null],
    ]);
    expect([back.oldNameservers, back.newNameservers, back.oldHost?.name, back.newHost?.name]).toEqual([NEW, OLD, 'New DNS', 'Old DNS']);
    // The old zone still stands: only what changed is kept low.
    expect(pushedSets(back).map((set) => [set.owner.toString(), set.ttl])).toEqual([
      ['www.zone.test.', 300],
      ['panel.zone.test.', 300],
      ['zone.test.', 3600],
      ['mail.zone.test.', 3600],
    ]);
    expect(apexTtlBack(backward(6100))).toBe(3600);
  });

  it('waits for the old zone to name the old set before the registrar is gone to, and for nothing to be lowered', () => {
    const turned = backward(6100);
    expect([stepOf(turned, 'lower'), stepOf(turned, 'lowered')]).toEqual([undefined, undefined]);
    expect([words(turned, 'lowered'), words(turned, 'run out')]).toEqual([undefined, undefined]);
    expect([words(turned, 'served'), gateOf(turned).open]).toEqual(['Old DNS does not serve the plan.', false]);
    const ready = backward(6200, { zones: [...zones(6100), ...OLD.flatMap((server, index) => rows(server, o[index]!, [6160, 6200, answers(300, MAIL)]))] });
    expect(gateOf(ready).lines.filter((line) => !line.holds)).toEqual([]);
    // What the parent published before the move is no switch of this leg, and no falling back.
    expect([ready.times.ts, ready.times.t0, stepOf(ready, 'switch')!.standing.state]).toEqual([undefined, undefined, 'ready']);
  });

  it('counts from when the parent was seen to publish the old set again', () => {
    const now = 7000;
    const seen = [
      ...zones(6100, undefined).filter((row) => row.address.startsWith('198.')),
      ...OLD.flatMap((server, index) => rows(server, o[index]!, [6160, now, answers(300)])),
      ...NEW.flatMap((server, index) => rows(server, n[index]!, [1000, now, planned()])),
    ];
    const leg = backward(now, { parent: [...SWITCHED(6400), ...parent([6460, now, published(OLD)])], zones: seen });
    expect([leg.times.ts, leg.times.t0?.firstNew, stepOf(leg, 'switch')!.standing.state]).toEqual([6400, 6460, 'done']);
    // Somebody was led to the new servers until 6460 + 600, and may have got the new value there just before.
    expect(leg.times.last.at).toBeGreaterThanOrEqual(6460 + 600 + 300);
    expect(leg.settled.settled).toBe(false);
  });

  it('where the parent never published the new set, nothing is left to be switched, and no time moves on with the clock', () => {
    const leg = (now: number): Leg => backward(now, { parent: parent([0, now, published(OLD)]) });
    expect([leg(6100).times.ts, stepOf(leg(6100), 'switch')!.standing.state]).toEqual([6000, 'done']);
    expect(leg(9000).times.last.at).toBe(leg(6100).times.last.at);
  });

  it('counts TTLs that were raised and that nobody has seen before they were taken back', () => {
    const now = 6200;
    const back = planned({ [WWW]: { ttl: 300, data: ['192.0.2.1'] } });
    const at = (raised: boolean): number =>
      legOf({
        now,
        plan: backPlan(plan, 'records', 6000, raised),
        parent: SWITCHED(now),
        zones: NEW.flatMap((server, index) => rows(server, n[index]!, [1000, 5940, planned()], [6060, now, back])),
        decisions: [decision('approve', '', { lowerTo: 300 }, 6000), decision('submitted', '', null, 6000)],
      }).times.sets.find((set) => set.key === WWW)!.horizon.at;
    // Until they were seen to be back at 6060.
    expect([at(false), at(true)]).toEqual([6060 + 300, 6060 + 3600]);
  });

  it('lets the DS of the old keys be, and asks for one of other keys to be taken out', () => {
    const ds = (...all: string[]): Partial<ParentSight> => ({ ds: all, dsTtl: 3600 });
    const at = (now: string[]): Leg => backward(6100, { parent: parent([0, 4900, published(OLD, ds('1 8 2 aa'))], [5000, 6100, published(NEW, ds(...now))]) });
    expect([stepOf(at([]), 'ds-gone'), words(at(['1 8 2 aa']), 'ds')]).toEqual([undefined, 'The parent publishes no DS but what it had at first.']);
    expect(words(at(['2 8 2 bb']), 'ds')).toMatch(/of other keys/);
  });

  it('is typed by hand from what the old servers answer: the rest still stands', () => {
    const back: LegPlan = backPlan(plan, 'nameservers', 6000, false);
    const there = { owner: 'www.zone.test.', type: 'A', ttl: 300, data: ['192.0.2.2'] };
    const apex = { ttl: 300, data: NEW };
    const sheet = legSheet(
      {
        kind: 'delegation',
        isBack: true,
        rulings: back.rulings,
        newNameservers: OLD,
        served: {
          servers: [
            { differs: [there], apex },
            { differs: [there], apex: null },
          ],
        },
      },
      'zone.test.',
      {
        entry: null,
      },
    );
    const said = (all: typeof sheet): unknown => all.map(({ act, before, entry }) => [act, before?.value, entry?.name, entry?.value]);
    // A zone that was turned by hand names the new set, and resolvers go by it.
    expect(said(sheet)).toEqual([
      ['edit', 'ns1.new.test', '@', 'ns1.old.test'],
      ['edit', 'ns2.new.test', '@', 'ns2.old.test'],
      ['edit', '192.0.2.2', 'www', '192.0.2.1'],
    ]);
    expect(legSheet({ kind: 'delegation', isBack: true, rulings: back.rulings, newNameservers: OLD, served: null }, 'zone.test.', { entry: null })).toEqual([]);
  });
});
