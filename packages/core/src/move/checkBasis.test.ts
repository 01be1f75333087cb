import { HostTask } from '../hosts/task';
import { legOf, plan } from '../testing/moving';
import { checkBasis } from './checkBasis';
import { Leg } from './leg';
import { LegPlan } from './plan';

const WEB = { name: 'Reed Sites', nameservers: [], addresses: ['203.0.113.80'], aliasTarget: undefined, requires: [] };
const basis = (more: Partial<LegPlan>) => checkBasis({ ...plan, ...more });

describe('what the checks rest on', () => {
  const redirects = [
    { from: 'zone.test', to: 'www.zone.test' },
    { from: 'old.zone.test', to: 'www.zone.test' },
  ];
  const task = (title: string, redirects = false): HostTask => ({ id: title, title, by: 'us', when: 'before', waits: false, redirects, note: '' });

  it('are redirects that nothing rebuilds: the main spelling takes its other one along, a task for redirects all of them', () => {
    expect(basis({ redirects }).redirects).toEqual(redirects);
    expect(basis({ redirects, mainSpelling: 'www.zone.test' }).redirects).toEqual([redirects[1]]);
    expect(basis({ redirects, mainSpelling: 'zone.test' }).redirects).toEqual(redirects);
    expect(basis({ redirects, newWeb: { ...WEB, tasks: [task('No redirect is needed')] } }).redirects).toEqual(redirects);
    expect(basis({ redirects, newWeb: { ...WEB, tasks: [task('Spellings', true)] } }).redirects).toEqual([]);
    expect(basis({ redirects, newHost: { ...plan.newHost!, tasks: [task('Forward the old names', true)] } }).redirects).toEqual([]);
    expect(basis({ redirects, isBack: true }).redirects).toEqual([]);
  });

  it('are none that was seen to where the plan leads: there it was rebuilt, whoever did it', () => {
    const looked = (to: string) => checkBasis({ ...plan, redirects }, { at: 7, faults: [], answers: [], redirects: [{ from: 'zone.test', to }] }).redirects;
    expect(looked('www.zone.test')).toEqual([redirects[1]]);
    expect(looked('elsewhere.test')).toEqual(redirects);
  });

  it('are the servers of both sets, where the set changes', () => {
    const newNameservers = ['NS2.old.test.', 'ns1.new.test.'];
    expect(basis({ newNameservers }).sharedServers).toEqual(['NS2.old.test.']);
    expect(basis({}).sharedServers).toEqual([]);
    expect(basis({ kind: 'repoint', newNameservers }).sharedServers).toEqual([]);
  });

  it('are the TTLs of a host at which the zone is built anew', () => {
    const newHost = { ...plan.newHost!, ttls: { ttls: [], leastTtl: 600 } };
    expect(basis({ newHost }).ttls).toEqual({ ttls: [], leastTtl: 600 });
    expect(basis({ newHost, kind: 'repoint' }).ttls).toBeNull();
    expect(basis({}).ttls).toBeNull();
  });

  it('is what was broken where the plan leads when it was looked at last', () => {
    const faults = [{ pages: ['https://www.zone.test/'], text: 'answers 404' }];
    expect(checkBasis(plan, { at: 7, faults, answers: [], redirects: [] }).faults).toEqual(faults);
    expect([checkBasis(plan).faults, checkBasis({ ...plan, isBack: true }, { at: 7, faults, answers: [], redirects: [] }).faults]).toEqual([[], []]);
  });
});

it('what is said of one plan is another thing once its website was seen otherwise, and only then', () => {
  const { state } = legOf({ now: 0 });
  const seen = (at: number, ...broken: string[]): Leg =>
    new Leg({
      ...state,
      seen: { ...state.seen, website: { at, faults: broken.map((text) => ({ pages: ['https://www.zone.test/'], text })), answers: [], redirects: [] } },
    });
  const codes = (leg: Leg): string[] => leg.remarks.map((one) => one.code).filter((code) => code === 'site-unknown');
  const first = seen(1);
  expect([codes(first), codes(seen(2, 'answers 404')), codes(seen(3))]).toEqual([[], ['site-unknown'], []]);
  expect(seen(4).checking).toBe(seen(5).checking);
});
