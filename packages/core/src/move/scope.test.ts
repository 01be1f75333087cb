import { Scope, chosenNames, inScope, scopesMeet, shownScope } from './scope';

const names = (...all: string[]): { kind: 'names'; names: string[] } => ({ kind: 'names', names: all });

describe('what a move is about', () => {
  it('is called by its domain, its name, or the first of its names, without the www that goes with each', () => {
    expect(shownScope({ kind: 'whole' }, 'xn--crmerie-3xa.example')).toBe('crèmerie.example');
    expect(shownScope(names('shop.reed.example', 'www.shop.reed.example'), 'reed.example')).toBe('shop.reed.example');
    expect(shownScope(names('shop.reed.example', 'www.shop.reed.example', 'blog.reed.example', 'www.blog.reed.example'), 'reed.example')).toBe(
      'shop.reed.example and 1 more',
    );
    expect(chosenNames(['www.shop.reed.example'])).toEqual(['www.shop.reed.example']);
  });

  it('meets another where a name is in both', () => {
    expect(scopesMeet(names('a.example', 'b.example'), names('b.example'))).toBe(true);
    expect(scopesMeet(names('a.example'), names('b.example'))).toBe(false);
    expect(scopesMeet({ kind: 'whole' }, names('b.example'))).toBe(true);
    expect([inScope(names('a.example'), 'A.example.', 'A'), inScope(names('a.example'), 'b.a.example.', 'A')]).toEqual([true, false]);
  });

  it('takes in single sets that the new web host asks for, and nothing else at their names', () => {
    const scope: Scope = { kind: 'names', names: ['shop.a.example'], asked: ['a.example./TXT'] };
    expect([inScope(scope, 'A.example.', 'TXT'), inScope(scope, 'a.example.', 'MX'), inScope(scope, 'shop.a.example.', 'MX')]).toEqual([true, false, true]);
  });
});
