import { Recent } from './recent';

describe('what was read last', () => {
  it('lets go of what was not asked for longest', () => {
    const recent = new Recent<number>(3);
    recent.set('a', 1, 1);
    recent.set('b', 2, 1);
    recent.set('c', 3, 1);
    expect(recent.get('a')).toBe(1);
    recent.set('d', 4, 1);
    expect(['a', 'b', 'c', 'd'].map((key) => recent.get(key))).toEqual([1, undefined, 3, 4]);
  });

  it('weighs what is set again once, and does not hold what is too heavy', () => {
    const recent = new Recent<number>(3);
    for (let i = 0; i < 5; i++) recent.set('a', i, 2);
    recent.set('b', 9, 1);
    expect([recent.get('a'), recent.get('b')]).toEqual([4, 9]);
    recent.set('b', 10, 4);
    expect([recent.get('a'), recent.get('b')]).toEqual([4, undefined]);
  });
});
