import { decision, legOf } from '../testing/moving';
import { Due, dueOf, lateness } from './due';
import { LOOK_PACE_SECONDS } from './stepLooks';

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

describe('a look that somebody asked for', () => {
  const at = (lookedAt: number | undefined, askedAt: number, now: number): number | undefined => {
    const decisions = [decision('hosts'), decision('look', 'old', null, askedAt)];
    const leg = legOf({ now, decisions, seen: { looked: lookedAt === undefined ? {} : { old: lookedAt } } });
    return dueOf(leg).find((due) => due.what === 'look' && due.id === 'old')?.at;
  };

  it('is due when it was asked for, and never sooner after the last than others are to be spared', () => {
    expect(at(900, 1000, 1000)).toBe(1000);
    expect(at(995, 1000, 1001)).toBe(995 + LOOK_PACE_SECONDS);
    expect(at(undefined, 1000, 1001)).toBe(1001);
  });

  it('is over once that was looked at', () => expect(at(1001, 1000, 1002)!).toBeGreaterThan(1002));
});
