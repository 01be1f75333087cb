import fc from 'fast-check';
import { absentHorizon, addressHorizon, delegationHorizon, eff, inStepHorizon, loweredHorizon, negativeTtl } from './horizons';
import { backOutByRecords, legTimes } from './legTimes';

/**
 * A brute-force look at what caches can hold: every moment at which one may fetch an answer, and how long it keeps it.
 * It knows nothing of the formulas.
 */
interface Served {
  readonly from: number;
  readonly until: number;
  readonly ttl: number;
}

function lastHeld(served: readonly Served[], floor: number): number {
  let last = 0;
  for (const answer of served) for (let at = answer.from; at <= answer.until; at++) last = Math.max(last, at + Math.max(answer.ttl, floor));
  return last;
}

const ttl = fc.integer({ min: 0, max: 60 });
const floor = fc.integer({ min: 0, max: 20 });

describe('horizons are never earlier than what caches can hold', () => {
  it('of a lowered set: what was served with the old TTL', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 50 }), ttl, floor, (tl, T, f) => {
        expect(loweredHorizon({ tl, T, floor: f, what: '' }).at).toBeGreaterThanOrEqual(lastHeld([{ from: 0, until: tl, ttl: T }], f));
      }),
    );
  });

  it('of the delegation: a parent-preferring cache, and a child-preferring one that fetched the old apex set last', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), ttl, ttl, fc.option(fc.integer({ min: 0, max: 60 })), floor, (t0, P, C, turnedAfter, f) => {
        const te = turnedAfter === null ? undefined : t0 + turnedAfter;
        const H = delegationHorizon({ t0, P, C, te, floor: f }).at;
        const referral = lastHeld([{ from: 0, until: t0, ttl: P }], f);
        // A cache led by a referral may ask the old servers until that runs out, as long as they serve the old set.
        const childUntil = te === undefined ? referral : Math.min(te, referral);
        expect(H).toBeGreaterThanOrEqual(referral);
        expect(H).toBeGreaterThanOrEqual(lastHeld([{ from: 0, until: childUntil, ttl: C }], f));
      }),
      { numRuns: 500 },
    );
  });

  it('of an address: fetched with the old TTL before tl, or with the lowered one as long as anybody is led to the old servers', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), ttl, ttl, fc.integer({ min: 41, max: 120 }), floor, (tl, T, L, H, f) => {
        expect(addressHorizon({ tl, T, L, H, floor: f, what: '' }).at).toBeGreaterThanOrEqual(
          lastHeld(
            [
              { from: 0, until: tl, ttl: T },
              { from: tl, until: H, ttl: L },
            ],
            f,
          ),
        );
        expect(inStepHorizon({ tl, T, tk: H, L, floor: f, what: '' }).at).toBe(addressHorizon({ tl, T, L, H, floor: f, what: '' }).at);
        expect(absentHorizon({ H, N: L, floor: f, what: '' }).at).toBeGreaterThanOrEqual(lastHeld([{ from: 0, until: H, ttl: L }], f));
      }),
    );
  });

  it('and no cache that honours its TTL is needed for them to be reached: they are tight', () => {
    expect(loweredHorizon({ tl: 10, T: 30, floor: 0, what: '' }).at).toBe(lastHeld([{ from: 0, until: 10, ttl: 30 }], 0));
    expect(delegationHorizon({ t0: 10, P: 30, C: 20, te: undefined, floor: 0 }).at).toBe(60);
    expect(delegationHorizon({ t0: 10, P: 30, C: 20, te: 15, floor: 0 }).at).toBe(40);
    expect(delegationHorizon({ t0: 10, P: 30, C: 90, te: 15, floor: 0 }).at).toBe(105);
  });
});

describe('every time', () => {
  const base = {
    now: 1000,
    P: 600,
    C: 600,
    loweredC: 300,
    N: 300,
    floor: 0,
    tl: 900,
    t0: undefined,
    te: undefined,
    plannedSwitch: undefined,
    turns: true,
    changing: [
      { owner: 'www.', type: 'A', T: 3600, L: 300 },
      { owner: 'new.', type: 'TXT', T: undefined, L: 300 },
    ],
  };

  it('grows with every TTL', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<'P' | 'C' | 'loweredC' | 'N' | 'floor'>('P', 'C', 'loweredC', 'N', 'floor'),
        fc.nat(5000),
        fc.nat(5000),
        (which, small, more) => {
          const low = legTimes({ ...base, [which]: small });
          const high = legTimes({ ...base, [which]: small + more });
          expect(high.last.at).toBeGreaterThanOrEqual(low.last.at);
          expect(high.earliestSwitch.at).toBeGreaterThanOrEqual(low.earliestSwitch.at);
        },
      ),
    );
  });

  it('can be opened: the sum leads to it', () => {
    const times = legTimes(base);
    expect(times.earliestSwitch).toMatchObject({ at: 4500, formula: 'tl + eff(T)' });
    expect(times.earliestSwitch.terms.map((term) => [term.symbol, term.value])).toEqual([
      ['tl', 900],
      ['T', 3600],
      ['f', 0],
    ]);
    // Switched at 4500 with the old zone turned at once: H = 4500 + 600, the new name is denied until H + 300.
    expect([times.delegation.at, times.last.at, times.certain]).toEqual([5100, 5400, true]);
  });

  it('is uncertain before the TTLs were seen lowered, and counts from now', () =>
    expect(legTimes({ ...base, tl: undefined })).toMatchObject({ certain: false, earliestSwitch: { at: 4600 } }));
  it('follows the switch once it is seen', () =>
    expect(legTimes({ ...base, t0: 5000, te: 5050 })).toMatchObject({ switchSeen: true, delegation: { at: 5600 } }));
  it('reads a TTL of 2^31 and more as 0 (RFC 2181 §8)', () =>
    expect([eff(0x8000_0000, 0), eff(0x7fff_ffff, 0), eff(0x8000_0000, 30)]).toEqual([0, 0x7fff_ffff, 30]));
  it('takes the smaller of SOA TTL and minimum for a denial (RFC 2308 §5)', () => expect([negativeTtl(3600, 300), negativeTtl(60, 300)]).toEqual([300, 60]));
  it('of backing out by records is the larger of TTL and negative TTL', () => expect(backOutByRecords(100, 300, 900, 0)).toBe(1000));
});
