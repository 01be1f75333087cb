import { LeadRuns, lastLeadOutside, ledSpans } from './led';
import { rememberedUntil } from './remembered';
import { runsOf } from './runs';
import { since } from './since';

const isNew = (server: string): boolean => server === 'n';

describe('runs', () => {
  const of = (...seen: [string, number, number][]) =>
    runsOf(
      seen.map(([value, first, last]) => ({ value, first, last, every: 10 })),
      { now: seen.at(-1)![2], allowance: 0, same: (a, b) => a === b },
    );
  it('reach from the last sight of anything else to the first one', () =>
    expect(of(['a', 0, 20], ['b', 30, 50])).toEqual([
      { value: 'a', from: -Infinity, until: 30 },
      { value: 'b', from: 20, until: Infinity },
    ]));
  it('count everything that was ever seen as served while nobody looked', () =>
    expect(of(['a', 0, 20], ['b', 30, 50], ['c', 100, 110])).toEqual(
      expect.arrayContaining([
        { value: 'a', from: 50, until: 100 },
        { value: 'b', from: 20, until: 100 },
        { value: 'c', from: 50, until: Infinity },
      ]),
    ));
  it('are not ended by a look or two that is missed', () => expect(of(['a', 0, 20], ['b', 50, 60])).toHaveLength(2));
});

describe('since when', () => {
  const server = (address: string, ...seen: [boolean, number, number][]) => ({
    server: address,
    address,
    sightings: seen.map(([value, first, last]) => ({ value, first, last, every: 10 })),
  });
  const when = (now: number, ...servers: ReturnType<typeof server>[]) => since(servers, (value) => value, now);
  it('is the latest of each end over every server that was seen', () =>
    expect(when(50, server('1', [false, 0, 10], [true, 20, 50]), server('2', [false, 0, 30], [true, 40, 50]), server('never')).all).toEqual({
      lastOld: 30,
      firstNew: 40,
    }));
  it('is not, while one lacks or has relapsed; and starts anew', () => {
    expect(when(50, server('1', [true, 20, 50]), server('2', [false, 0, 50])).lacking.map((one) => one.address)).toEqual(['2']);
    expect(when(50, server('1', [true, 0, 20], [false, 30, 50])).all).toBeUndefined();
    expect(when(70, server('1', [true, 0, 20], [false, 30, 50], [true, 60, 70])).all).toEqual({ lastOld: 50, firstNew: 60 });
  });
  it('is broken by a gap, up to now as well', () => {
    expect(when(200, server('1', [false, 0, 10], [true, 20, 50])).all).toBeUndefined();
    expect(when(200, server('1', [true, 20, 50], [true, 190, 200])).all).toEqual({ lastOld: 50, firstNew: 190 });
  });
});

describe('led spans, in quiet', () => {
  // t0 = 100, P = 60, C = 40; the old server is turned at te.
  const world = (te: number): LeadRuns => ({
    parent: [
      {
        says: 'p',
        runs: [
          { value: { servers: ['o'], ttl: 60 }, from: -Infinity, until: 100 },
          { value: { servers: ['n'], ttl: 60 }, from: 90, until: Infinity },
        ],
      },
    ],
    zone: new Map([
      [
        'o',
        [
          { value: { servers: ['o'], ttl: 40 }, from: -Infinity, until: te },
          { value: { servers: ['n'], ttl: 40 }, from: te - 10, until: Infinity },
        ],
      ],
    ]),
    floor: 0,
  });
  it.each([
    // E0 = 160; H = max(E0, min(te, E0) + C), X = max(H, te + C).
    [110, 160, 160],
    [150, 190, 190],
    [400, 200, 440],
    [Infinity, 200, Infinity],
  ])('turned at %s: H %s, X %s', (te, H, X) => {
    const { ordinary, extending } = ledSpans(world(te));
    expect([lastLeadOutside(ordinary, isNew)!.at, lastLeadOutside(extending, isNew)!.at]).toEqual([H, X]);
  });

  it('go round between servers that name each other, as long as both do, and without end where neither stops', () => {
    const pair = (until: number): LeadRuns => ({
      parent: [{ says: 'p', runs: [{ value: { servers: ['a'], ttl: 10 }, from: 0, until: 50 }] }],
      zone: new Map([
        ['a', [{ value: { servers: ['b'], ttl: 10 }, from: 0, until }]],
        ['b', [{ value: { servers: ['a'], ttl: 10 }, from: 0, until }]],
      ]),
      floor: 0,
    });
    expect(lastLeadOutside(ledSpans(pair(500)).extending, isNew)!.at).toBe(510);
    expect(lastLeadOutside(ledSpans(pair(Infinity)).extending, isNew)!.at).toBe(Infinity);
    expect(lastLeadOutside(ledSpans(pair(Infinity)).ordinary, isNew)!.at).toBe(70);
  });

  it('have an answer remembered from its last moment there, by its own TTL', () => {
    const runs = [{ value: { ttl: 30, words: () => 'old' }, from: -Infinity, until: 500 }];
    const spans = ledSpans(world(150)).ordinary.get('o')!;
    expect(rememberedUntil('o', runs, spans, 0)).toMatchObject({ at: 190 + 30, formula: 'min(l, q) + eff(v)' });
    expect(rememberedUntil('o', [{ ...runs[0]!, from: 300 }], spans, 0)).toBeUndefined();
    expect(rememberedUntil('o', runs, spans, 100)!.at).toBe(190 + 100);
  });
});
