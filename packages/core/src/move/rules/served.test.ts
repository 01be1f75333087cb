import { NEW, RULINGS, legOf, plan, planned, rows, ruling } from '../../testing/moving';
import { Leg } from '../leg';
import { setKey } from '../plan';
import { ZoneSight } from '../seen';
import { isServed, readBack, readBackWords } from './served';

const MX = setKey('zone.test.', 'MX');
const without = (...keys: string[]): ZoneSight => ({
  ...planned(),
  sets: Object.fromEntries(Object.entries(planned().sets).filter(([key]) => !keys.includes(key))),
});
const leg = (...looks: ZoneSight[]): Leg =>
  legOf({
    now: 1000,
    zones: plan.newServers.flatMap(({ server, address }, at) =>
      rows(server, address, ...looks.map((sight, index): [number, number, ZoneSight] => [100 * index, 100 * index + 60, at === 0 ? sight : planned()])),
    ),
  });

describe('reading a new zone back', () => {
  it('is done where every planned set was answered as planned', () => {
    expect(readBack(leg(planned())).map(isServed)).toEqual([true, true]);
  });

  it('is not done where a server has never answered for a set, and says for which', () => {
    const one = leg(without(MX));
    expect(readBack(one).map((read) => [isServed(read), read.unanswered])).toEqual([
      [false, [MX]],
      [true, []],
    ]);
    expect(
      readBackWords(
        one,
        readBack(one).filter((read) => !isServed(read)),
      ),
    ).toBe(`${NEW[0]!.slice(0, -1)} has not answered for zone.test MX yet.`);
  });

  it('takes one look without an answer for no more than that, where there was one before', () => {
    expect(readBack(leg(planned(), without(MX))).every(isServed)).toBe(true);
  });

  it('waits for no answer to what a cut hands on to others', () => {
    const rulings = [
      ...RULINGS,
      ruling('sub.zone.test.', 'NS', 'carry', 3600, ['ns.else.test.'], ['ns.else.test.']),
      ruling('www.sub.zone.test.', 'A', 'carry', 3600, ['192.0.2.7'], ['192.0.2.7']),
    ];
    const zones = plan.newServers.flatMap(({ server, address }) => rows(server, address, [0, 900, planned()]));
    expect(readBack(legOf({ now: 1000, plan: { rulings }, zones })).every(isServed)).toBe(true);
  });

  it('tells another NS set at the apex as that', () => {
    const one = leg(planned({ 'zone.test./NS': { ttl: 300, data: ['ns.else.test.'] } }));
    expect(
      readBackWords(
        one,
        readBack(one).filter((read) => !isServed(read)),
      ),
    ).toContain('ns1.new.test names ns.else.test as nameserver, which is not of the new set, and does not name ns1.new.test and ns2.new.test.');
  });
});
