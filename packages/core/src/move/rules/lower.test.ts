import { answers, decision, legOf, plan, rows, work } from '../../testing/moving';
import { Leg } from '../leg';
import { Decision } from '../said';
import { stepOf } from '../steps';
import { StepStanding } from './rule';

const approve = decision('approve', '', { lowerTo: 300, lowerAt: null, plannedSwitch: null });

function leg(keyed: boolean, decisions: readonly Decision[], ttls: readonly (readonly [number, number, number])[] = [[0, 990, 3600]], done = false): Leg {
  const zones = plan.oldServers.flatMap((one) => rows(one.server, one.address, ...ttls.map(([first, last, ttl]) => [first, last, answers(ttl)] as const)));
  const told = { now: 1000, zones, decisions: [decision('hosts'), ...decisions], plan: { oldHost: { name: 'Panel DNS', keyed, fronts: [] } } };
  return legOf({ ...told, work: done ? { lower: work('done', { plan: legOf(told).lowers }) } : {} });
}
const standing = (one: Leg, id = 'lower'): StepStanding => stepOf(one, id)!.standing;
const acts = (one: Leg, id?: string): string[] => standing(one, id).ways.map((way) => `${way.act} ${way.subject}`);

describe('lowering, or not', () => {
  it.each([true, false])('is a plain choice before anything is approved (a key is held: %s)', (keyed) => {
    const one = leg(keyed, []);
    expect(standing(one).state).toBe('ready');
    expect(standing(one).ways.at(-1)).toMatchObject({ act: 'accept TTLs', subject: '3600', label: 'Do not lower' });
    expect(standing(one).ways.at(-1)!.means).toMatch(/for up to 1 h after the switch, which matters less if it keeps running/);
  });

  it('is over with one word where nothing is to be lowered, and the switch need not wait', () => {
    const one = leg(false, [decision('accept TTLs', '', 3600)]);
    expect([standing(one).state, standing(one, 'lowered').state, one.times.earliestSwitch.at]).toEqual(['left', 'left', one.now]);
  });

  it('is a person’s where no key is held, approved or not, and never red', () => {
    for (const decisions of [[], [approve]]) {
      const one = leg(false, decisions);
      expect(standing(one)).toMatchObject({
        state: 'ready',
        text: expect.stringMatching(/In the panel of Panel DNS, set the TTLs of what changes to 5 min/) as string,
      });
    }
    expect(standing(leg(true, [approve])).state).toBe('doing');
    // What is seen lowered is lowered, whether or not somebody said so.
    expect(
      standing(
        leg(
          false,
          [],
          [
            [0, 500, 3600],
            [560, 990, 300],
          ],
        ),
      ).state,
    ).toBe('done');
  });

  it('can be done again where somebody raised the TTLs since', () => {
    const raised: [number, number, number][] = [
      [0, 400, 3600],
      [460, 700, 300],
      [760, 990, 7200],
    ];
    expect(acts(leg(true, [approve], raised, true), 'lowered')).toEqual(['retry lower', 'accept TTLs 7200']);
    const again = leg(true, [approve, decision('retry', 'lower')], raised, true);
    expect(standing(again).state).toBe('doing');
  });
});
