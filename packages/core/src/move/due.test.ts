import { legOf } from '../testing/moving';
import { Due, lateness } from './due';

const look = (id: string, at: number, every: number): Due => ({ what: 'look', id, at, every });

describe('how late something is', () => {
  it('is told in pauses of its own kind, and most of all where it was never looked at', () => {
    const leg = legOf({ now: 1000, seen: { looked: { lookouts: 400, website: 900 } } });
    expect([lateness(leg, look('lookouts', 460, 60)), lateness(leg, look('website', 950, 900))]).toEqual([9, 50 / 900]);
    // Looks that take longer than their pause are late for ever; what is due for the first time has its turn all the same.
    expect(lateness(leg, look('drift', 1000, 120))).toBe(Infinity);
    expect(lateness(leg, { what: 'act', id: 'push', at: 940, every: 60 })).toBe(1);
  });
});
