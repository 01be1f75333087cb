import { USUAL_HABITS } from '../hosts/dnsHabits';
import { NEW, OLD, answers, decision, legOf, plan, rows } from '../testing/moving';
import { gateOf } from './gate';
import { Leg } from './leg';
import { namesRefused } from './named';
import { LegPlan } from './plan';
import { Decision } from './said';
import { stepOf } from './steps';

const [o1, o2] = plan.oldServers.map((one) => one.address) as [string, string];
const byDomain: Partial<LegPlan> = {
  newHost: { name: 'Driftwood', keyed: true, fronts: [], habits: { ...USUAL_HABITS, nameservers: 'by domain' } },
  newNameservers: [],
  newServers: [],
};
function leg(more: Partial<LegPlan>, decisions: readonly Decision[] = []): Leg {
  return legOf({
    now: 1000,
    decisions,
    plan: more,
    zones: [...rows(OLD[0]!, o1, [0, 1000, answers(3600)]), ...rows(OLD[1]!, o2, [0, 1000, answers(3600)])],
  });
}

describe('nameservers that a host gives to each domain', () => {
  it('are asked for before anything is pushed or switched, and the gate stays shut', () => {
    const one = leg(byDomain);
    expect(stepOf(one, 'named')!.standing).toMatchObject({ state: 'ready', text: expect.stringContaining('Driftwood gives each domain') });
    expect(stepOf(one, 'push')!.standing).toMatchObject({ state: 'waiting', text: 'After: say which nameservers it was given.' });
    expect(gateOf(one).open).toBe(false);
    expect(gateOf(one).lines.find((line) => line.key === 'named')).toMatchObject({ holds: false, waivable: false });
    // Not even a host that takes the zone later is switched to before its nameservers are known.
    const late = leg({ ...byDomain, newHost: { ...byDomain.newHost!, holdsEarly: false } });
    expect(gateOf(late).lines.find((line) => line.key === 'named')!.holds).toBe(false);
  });

  it('once they are said, are what the move goes to', () => {
    const one = leg({ ...byDomain, newNameservers: NEW }, [decision('named', '', NEW, 500)]);
    expect(stepOf(one, 'named')!.standing).toMatchObject({ state: 'done', doneAt: 500 });
    expect(stepOf(one, 'push')!.standing.state).toBe('ready');
    expect(gateOf(one).lines.some((line) => line.key === 'named')).toBe(false);
  });

  it('are no matter where the host gives all domains the same, or where a move goes back', () => {
    expect(stepOf(leg({}), 'named')).toBeUndefined();
    expect(namesRefused(leg({}), ['a.driftwood.test.', 'b.driftwood.test.'])).toMatch(/are not its own/);
    expect(stepOf(leg({ ...byDomain, isBack: true, newNameservers: OLD }), 'named')).toBeUndefined();
  });

  it.each<[string, string[], RegExp]>([
    ['none', [], /No name was given/],
    ['one', ['ns-4.driftwood.test.'], /One is not enough/],
    ['one twice', ['ns-4.driftwood.test.', 'NS-4.driftwood.test.'], /twice/],
    ['the old set', [...OLD].reverse(), /ns2\.old\.test, ns1\.old\.test: of the set that the domain has now/],
    ['one of the old set', ['ns-4.driftwood.test.', OLD[0]!], /^ns1\.old\.test: of the set that the domain has now\. Driftwood shows others\.$/],
  ])('are refused where they are %s', (_what, names, why) => {
    expect(namesRefused(leg(byDomain), names)).toMatch(why);
  });

  it('can be given anew until the change is submitted', () => {
    const known = { ...byDomain, newNameservers: NEW };
    expect(namesRefused(leg(known), ['a.driftwood.test.', 'b.driftwood.test.'])).toBeUndefined();
    expect(namesRefused(leg(known, [decision('submitted', '', null, 900)]), ['a.driftwood.test.', 'b.driftwood.test.'])).toMatch(/under way/);
  });
});
