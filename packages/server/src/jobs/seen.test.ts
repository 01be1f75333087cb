import fc from 'fast-check';
import { Facts } from '../moves/leg';
import { markSeen } from './seen';

const server = (address: string, isNew: boolean) => ({ server: `${address}.`, address, isNew });

describe('what was seen of several servers', () => {
  it('is known for all once every one was seen new: the latest of each end', () => {
    let facts: Facts = {};
    const look = (at: number, ...servers: ReturnType<typeof server>[]) => {
      const seen = markSeen(facts, 'lowered', at, servers);
      facts = { ...facts, ...seen.facts };
      return seen.all;
    };
    expect(look(10, server('a', false), server('b', false))).toBeUndefined();
    expect(look(20, server('a', true), server('b', false))).toBeUndefined();
    expect(look(30, server('a', true), server('b', true))).toEqual({ lastOld: 20, firstNew: 30 });
  });

  it('takes the first look as both ends where a server was never seen old', () =>
    expect(markSeen({}, 'x', 5, [server('a', true)]).all).toEqual({ lastOld: 5, firstNew: 5 }));
  it('starts again for a server that falls back', () => {
    const first = markSeen({}, 'x', 1, [server('a', true)]).facts;
    expect(markSeen(first, 'x', 2, [server('a', false)]).all).toBeUndefined();
  });
  it('keeps headings apart', () => {
    const first = markSeen({}, 'x', 1, [server('a', false)]).facts;
    expect(markSeen(first, 'y', 2, [server('a', true)]).all).toEqual({ lastOld: 2, firstNew: 2 });
  });
  it('never claims anything of no servers', () => expect(markSeen({}, 'x', 1, []).all).toBeUndefined());

  it('never says new before the last server was, whatever is seen in whatever order', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.boolean(), fc.boolean(), fc.boolean()), { minLength: 1, maxLength: 12 }), (rounds) => {
        let facts: Facts = {};
        for (const [at, states] of rounds.entries()) {
          const seen = markSeen(
            facts,
            'x',
            at,
            states.map((isNew, index) => server(String(index), isNew)),
          );
          facts = { ...facts, ...seen.facts };
          if (!states.every(Boolean)) expect(seen.all).toBeUndefined();
          else {
            const since = states.map((_state, index) => rounds.slice(0, at + 1).findLastIndex((round) => !round[index]) + 1);
            expect(seen.all!.firstNew).toBe(Math.max(...since));
            expect(seen.all!.lastOld).toBeLessThanOrEqual(seen.all!.firstNew);
          }
        }
      }),
    );
  });
});
