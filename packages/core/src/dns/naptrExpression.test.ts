import { substitutionProblem } from './naptrExpression';

describe('a substitution expression', () => {
  it.each(['', '!^.*$!sip:info@zone.example!i', '/a/b/', '!(a)(b)!\\1\\2!', '![[:alpha:]]+!b!', '!a{2,3}!b!', '!a\\!b!c!', '!()!b!'])('%s is one', (text) =>
    expect(substitutionProblem(text)).toBeUndefined(),
  );
  it.each([
    ['1a1b1', /delimited/],
    ['!a!b', /three times/],
    ['!a!b!i!', /three times/],
    ['!!b!', /no pattern/],
    ['!a!b!x', /flag/],
    ['!(a!b!', /regular/],
    ['!a||b!c!', /regular/],
    ['!*a!b!', /regular/],
    ['![z-a]!b!', /regular/],
    ['!a{3,2}!b!', /regular/],
    ['!(a)!\\2!', /no group/],
  ])('%s is none: %s', (text, problem) => expect(substitutionProblem(text)).toMatch(problem));
});
