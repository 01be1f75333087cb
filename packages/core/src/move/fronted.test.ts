import { checkInput } from '../testing/planLine';
import { Fronting, FrontingWish } from '../hosts/fronting';
import { plainRequirement } from '../hosts/requirement';
import { HostKnowledge } from '../rebuild/host';
import { edgeInCircle } from '../rebuild/checks/edgeInCircle';
import { RULINGS, WWW, answers, decision, legOf, plan, planned, published, rows, ruling, work, NEW, OLD } from '../testing/moving';
import { Wanted } from '../timetable/wanted';
import { watchedQuestions } from '../watch/questions';
import { frontVerdict } from '../watch/verdict';
import { parseRdata } from '../dns/rdata';
import { TYPE_CODES } from '../dns/typeNames';
import { answeredRows, frontingOf, storedKey, unseenNames } from './fronted';
import { Leg } from './leg';
import { LegPlan, setKey } from './plan';
import { slipSeen } from './slipsSeen';
import { stepOf } from './steps';

const EDGE = ['198.18.7.0/24'];
const SHOP = 'shop.zone.test.';
const shop = (type: string): string => setKey(SHOP, type);
const web = (fronting: FrontingWish, more: Partial<HostKnowledge> = {}): HostKnowledge => ({
  ...{ name: 'Larkspur', nameservers: [], addresses: ['192.0.2.2'], aliasTarget: 'sites.larkspur.test.', requires: [], fronting },
  ...more,
});
const WITH_SHOP = [...RULINGS, ruling(SHOP, 'CNAME', 'repoint', 3600, ['sites.old.test.'], ['sites.larkspur.test.'])];
const planOf = (more: Partial<LegPlan>): LegPlan => ({ ...plan, rulings: WITH_SHOP, newHost: { name: 'New DNS', keyed: false, fronts: EDGE }, ...more });
const said = (...states: [string, Fronting][]): ReadonlyMap<string, Fronting> => new Map(states);
const is = (wanted: Wanted, key: string, ...data: string[]): boolean | undefined => wanted.is(key, { ttl: 300, data });
const times = (
  now: number,
  at: Partial<LegPlan>,
  zone: (who: 'old' | 'new') => ReturnType<typeof answers>,
  more: Partial<Parameters<typeof legOf>[0]> = {},
): Leg =>
  legOf({
    now,
    plan: planOf(at),
    parent: rows('a.nic.test.', '192.0.2.53', [0, 900, published(OLD)], [1000, now, published(NEW)]),
    zones: [
      ...plan.oldServers.flatMap(({ server, address }) => rows(server, address, [0, now, zone('old')])),
      ...plan.newServers.flatMap(({ server, address }) => rows(server, address, [0, now, zone('new')])),
    ],
    ...more,
  });

describe('how names are fronted by the plan', () => {
  it('follows what the web host wants of what leads to it, and a person’s word before that', () => {
    const of = (wish: FrontingWish, more: Partial<LegPlan> = {}): [string, Fronting][] => [...frontingOf(planOf({ newWeb: web(wish), ...more }))];
    expect(of('verified')).toEqual([
      ['www.zone.test.', 'later'],
      ['mail.zone.test.', 'off'],
      [SHOP, 'later'],
    ]);
    expect(of('on').map(([, state]) => state)).toEqual(['on', 'off', 'on']);
    expect(of('either').map(([, state]) => state)).toEqual(['off', 'off', 'off']);
    expect(of('on', { fronting: said([SHOP, 'off']) }).map(([, state]) => state)).toEqual(['on', 'off', 'off']);
    expect(of('on', { newHost: { name: 'Plain DNS', keyed: true, fronts: [] } })).toEqual([]);
    const asked = web('on', { requires: [plainRequirement({ owner: 'shop', type: 'CNAME', data: 'sites.larkspur.test.', fronting: 'off' })] });
    expect(of('on', { newWeb: asked }).map(([, state]) => state)).toEqual(['on', 'off', 'off']);
  });

  it('is what was found where the zone stays, unless somebody wants it otherwise', () => {
    const found = [{ owner: SHOP, type: 'A', ttl: 300, data: ['198.18.7.9'] }];
    expect(frontingOf(planOf({ kind: 'repoint', fronted: found })).get(SHOP)).toBe('on');
    expect(frontingOf(planOf({ kind: 'repoint', fronted: found, newWeb: web('off') })).get(SHOP)).toBe('off');
    expect(frontingOf(planOf({ fronted: found })).get(SHOP)).toBe('off');
  });
});

describe('what is answered for a fronted name', () => {
  it('is an address of the edge, whatever is stored, and no alias', () => {
    const wanted = new Wanted(planOf({ fronting: said([SHOP, 'on'], ['www.zone.test.', 'on']) }));
    expect([is(wanted, shop('A'), '198.18.7.1', '198.18.7.2'), is(wanted, shop('A'), '192.0.2.2'), is(wanted, shop('A'))]).toEqual([true, false, false]);
    expect([is(wanted, shop('A'), '198.18.7.1', '192.0.2.2'), is(wanted, shop('CNAME')), is(wanted, shop('CNAME'), 'sites.larkspur.test.')]).toEqual([
      false,
      true,
      false,
    ]);
    expect([is(wanted, WWW, '192.0.2.2'), is(wanted, WWW, '198.18.7.3')]).toEqual([false, true]);
    expect(is(wanted, setKey('mail.zone.test.', 'A'), '192.0.2.25')).toBe(true);
  });

  it('is what is stored until the web host has verified the domain, and either of them while it is switched on', () => {
    const before = new Wanted(planOf({ fronting: said([SHOP, 'later'], ['www.zone.test.', 'later']) }));
    expect([is(before, shop('CNAME'), 'sites.larkspur.test.'), is(before, shop('CNAME')), is(before, WWW, '198.18.7.3')]).toEqual([true, false, false]);
    const after = new Wanted(planOf({ fronting: said([SHOP, 'later'], ['www.zone.test.', 'later']), frontOn: true }));
    expect([is(after, shop('CNAME'), 'sites.larkspur.test.'), is(after, shop('CNAME')), is(after, shop('CNAME'), 'else.test.')]).toEqual([true, true, false]);
    expect([is(after, WWW, '198.18.7.3'), is(after, WWW, '192.0.2.2'), is(after, WWW, '192.0.2.9')]).toEqual([true, true, false]);
  });

  it('is told by lookouts: the edge’s is new, what was there is old', () => {
    const [question] = watchedQuestions(planOf({ fronting: said([SHOP, 'on']) }), new Wanted(planOf({ fronting: said([SHOP, 'on']) }))).filter(
      ({ key }) => key === shop('A'),
    );
    const of = (before: string[], ...data: string[]): string => {
      const octets = (all: string[]): Uint8Array[] => all.map((text) => parseRdata(TYPE_CODES.A, text));
      return frontVerdict(TYPE_CODES.A, { rcode: 0, data: octets(data) }, octets(before), question!.front!);
    };
    expect([
      of(['192.0.2.1'], '198.18.7.1'),
      of(['192.0.2.1'], '192.0.2.1'),
      of(['192.0.2.1'], '192.0.2.1', '198.18.7.1'),
      of(['192.0.2.1'], '192.0.2.9'),
      of([]),
      of(['192.0.2.1']),
    ]).toEqual([...['new', 'old', 'mixed', 'other', 'old', 'none']]);
    expect(frontVerdict(TYPE_CODES.A, { rcode: 2, data: [] }, [], question!.front!)).toBe('none');
  });

  it('that is still what is stored, where somebody was to switch fronting on, is a slip with its name', () => {
    const leg = times(2000, { fronting: said(['www.zone.test.', 'on']) }, (who) => (who === 'new' ? planned() : answers(300)));
    expect(slipSeen(leg, plan.newServers[0]!.address, WWW, { ttl: 300, data: ['192.0.2.2'] })).toMatchObject({ code: 'not fronted' });
    const off = times(2000, {}, (who) => (who === 'new' ? planned() : answers(300)));
    expect(slipSeen(off, plan.newServers[0]!.address, WWW, { ttl: 300, data: ['198.18.7.1'] })).toMatchObject({ code: 'fronted' });
  });

  it('was what the old host’s edge answered: that has to run out, and not what it stored', () => {
    const fronted = [{ owner: 'www.zone.test.', type: 'A', ttl: 1800, data: ['203.0.113.130'] }];
    const rowOf = (at: Partial<LegPlan>) => answeredRows(planOf(at)).find((row) => row.owner === 'www.zone.test.' && row.type === 'A')!;
    expect(rowOf({ fronted })).toMatchObject({ ruling: 'repoint', found: { data: ['203.0.113.130'], ttl: 1800 }, planned: { data: ['192.0.2.2'] } });
    const old = answers(1800, { [WWW]: { ttl: 1800, data: ['203.0.113.130'] } });
    const leg = times(2000, { fronted }, (who) => (who === 'new' ? planned() : old));
    expect(
      leg.times.sets
        .find((set) => set.key === WWW)!
        .horizon.terms.map((term) => term.meaning)
        .join(' '),
    ).toContain('203.0.113.130');
  });
});

describe('where an answer of the front is told', () => {
  it('is the stored row of that name, and any other set is told as itself', () => {
    const at = planOf({ fronting: said([SHOP, 'on'], ['www.zone.test.', 'on']) });
    const keys = [shop('A'), shop('AAAA'), shop('CNAME'), shop('TXT'), WWW, setKey('www.zone.test.', 'TXT'), setKey('zone.test.', 'MX')];
    expect(keys.map((key) => storedKey(at, key))).toEqual([shop('CNAME'), shop('CNAME'), ...keys.slice(2)]);
    expect(keys.map((key) => storedKey(planOf({}), key))).toEqual(keys);
  });
});

describe('fronting that waits for the web host', () => {
  const later = { fronting: said(['www.zone.test.', 'later']) };
  const edge = planned({ [WWW]: { ttl: 300, data: ['198.18.7.1'] }, [setKey('www.zone.test.', 'AAAA')]: { ttl: 300, data: [] } });
  const stand = (at: Partial<LegPlan>, zone: ReturnType<typeof planned>, decisions = [decision('done', 'front-on')]) =>
    stepOf(
      times(9000, at, (who) => (who === 'new' ? zone : answers(300, {}, NEW)), { decisions }),
      'front-on',
    );

  it('is a step by a person’s word, and done once every server answers with the edge', () => {
    const of = (leg: Leg): string | undefined => stepOf(leg, 'front-on')?.rule.standing(leg).state;
    const leg = (zone: ReturnType<typeof planned>, done: boolean): Leg =>
      times(9000, { ...later, frontOn: done }, (who) => (who === 'new' ? zone : answers(300, {}, NEW)), {
        decisions: done ? [decision('done', 'front-on')] : [],
      });
    expect([of(leg(planned(), false)), of(leg(planned(), true)), of(leg(edge, true))]).toEqual(['ready', 'doing', 'done']);
  });

  it('is no step where nothing waits for it', () => {
    expect(stand({}, planned())).toBeUndefined();
    expect(stand({ fronting: said(['www.zone.test.', 'on']) }, planned())).toBeUndefined();
  });
});

describe('a change in place behind the same edge', () => {
  const fronted = [{ owner: 'www.zone.test.', type: 'A', ttl: 300, data: ['198.18.7.1'] }];
  const here: Partial<LegPlan> = {
    ...{ kind: 'repoint', fronted, rulings: RULINGS.map((row) => (row.type === 'NS' ? { ...row, ruling: 'carry', planned: row.found } : row)) },
    ...{ newServers: plan.oldServers, newNameservers: OLD },
  };
  const zone = () => answers(300, { [WWW]: { ttl: 300, data: ['198.18.7.1'] } });
  const t0 = (at: Partial<LegPlan>, more: Partial<Parameters<typeof legOf>[0]> = {}): number | undefined =>
    times(5000, { ...here, ...at }, zone, { parent: rows('a.nic.test.', '192.0.2.53', [0, 5000, published(OLD)]), ...more }).times.t0?.firstNew;

  it('is seen by nobody: the word of whoever made it counts, and without it nothing is claimed', () => {
    expect(unseenNames(planOf(here))).toEqual(['www.zone.test.']);
    expect(t0({})).toBeUndefined();
    expect(t0({}, { decisions: [decision('submitted', '', null, 4000)] })).toBe(4000);
  });

  it('counts from our own update where we make it, and not from the decision', () => {
    const keyed = { newHost: { name: 'New DNS', keyed: true, fronts: EDGE } };
    const decisions = [decision('submitted', '', null, 4000)];
    expect(t0(keyed, { decisions })).toBeUndefined();
    const { changes } = times(5000, { ...here, ...keyed }, zone, { decisions });
    expect(t0(keyed, { decisions, work: { change: work('done', { plan: changes, since: 4100 }) } })).toBe(4100);
    expect(t0(keyed, { decisions, work: { change: work('stopped', { plan: changes, since: 4100 }) } })).toBeUndefined();
  });
});

it('questions an edge that asks without TLS in front of a web host that sends that to HTTPS', () => {
  const of = (how: 'plain' | 'encrypted' | 'unknown', forcesHttps: boolean, state: Fronting): string[] =>
    edgeInCircle({
      ...checkInput(plan.zone, WITH_SHOP, { newWeb: web('either', { forcesHttps }) }),
      edge: { host: 'Edge DNS', standIn: '', how, fronting: said(['www.zone.test.', state], [SHOP, state], ['mail.zone.test.', state]) },
    }).map((one) => `${one.owner} ${one.type}`);
  expect(of('plain', true, 'on')).toEqual(['www.zone.test. A', `${SHOP} CNAME`]);
  expect(of('plain', true, 'later')).toHaveLength(2);
  expect([of('plain', true, 'off'), of('plain', false, 'on'), of('encrypted', true, 'on'), of('unknown', true, 'on')]).toEqual([[], [], [], []]);
});
