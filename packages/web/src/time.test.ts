import { duration, fullTime, relative } from './time';

describe('times in words', () => {
  it.each([
    [0, '0 s'],
    [59, '59 s'],
    [60, '1 min'],
    [3599, '59 min'],
    [12_000, '3 h 20 min'],
    [86_400, '1 d'],
    [190_800, '2 d 5 h'],
    [-300, '5 min'],
  ])('%p s are %p', (seconds, words) => expect(duration(seconds)).toBe(words));

  it('say before, now and after', () => {
    expect(relative(1000, 1020)).toBe('now');
    expect(relative(4600, 1000)).toBe('in 1 h');
    expect(relative(1000, 1300)).toBe('5 min ago');
  });

  it('give UTC beside the zone', () => expect(fullTime(1_804_856_700)).toContain('2027-03-12 13:05:00 UTC'));
});
