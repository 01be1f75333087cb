import fc from 'fast-check';
import { name } from '../testing/arbitrary';
import { Name } from './name';
import { NameMap } from './nameMap';

describe('a map by name', () => {
  it('holds what a map by key holds, letter case aside', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(name, fc.nat(), fc.boolean()), { maxLength: 300 }), (entries) => {
        const ours = new NameMap<number>();
        const theirs = new Map<string, number>();
        for (const [one, value, shout] of entries) {
          const spelled = shout ? Name.parse(one.toString().toUpperCase()) : one;
          ours.set(spelled, value);
          theirs.set(spelled.key, value);
        }
        expect([ours.size, [...ours.values()]]).toEqual([theirs.size, [...theirs.values()]]);
        for (const [one] of entries) expect([ours.get(one), ours.has(one.child('x'))]).toEqual([theirs.get(one.key), theirs.has(one.child('x').key)]);
      }),
    );
  });

  it('makes what is not there once', () => {
    const map = new NameMap<string[]>(1000);
    map.getOr(Name.parse('A.example.'), () => []).push('one');
    map.getOr(Name.parse('a.EXAMPLE.'), () => []).push('two');
    expect(map.get(Name.parse('a.example.'))).toEqual(['one', 'two']);
  });

  it('lets what is made add names of its own, however many', () => {
    const map = new NameMap<number>();
    const deep = (name: Name): number => map.getOr(name, () => (name.isRoot ? 0 : deep(name.parent) + 1));
    for (let i = 0; i < 300; i++) deep(Name.parse(`n${i}.m${i}.p${i % 7}.example.`));
    expect([map.get(Name.parse('n5.m5.p5.example.')), map.get(Name.parse('p5.example.')), map.size]).toEqual([4, 2, 609]);
  });
});
