import { isDohPath } from './dohPath';

describe('the template of a path for queries (RFC 9461 §5)', () => {
  it.each(['/q{?dns}', '/q{+dns}', '/{/dns}', '/q{?a,dns}', '/q{?x.y,dns*}', '/q{?x%20,dns:3}', '/q{?x}{&dns}', '/q?x={dns}', '/é{?dns}', '/q%20{?dns}'])(
    'takes %s',
    (path) => expect(isDohPath(path)).toBe(true),
  );

  it.each([
    ['has no variable', '/q'],
    ['has another variable', '/q{?name}'],
    ['differs in case', '/q{?Dns}'],
    ['is no path', 'q{?dns}'],
    ['is a whole address', 'https://r.example/q{?dns}'],
    ['makes a fragment', '/q{#dns}'],
    ['has a fragment', '/q{?dns}#x'],
    ['opens a brace only', '/q{?dns}{'],
    ['closes a brace only', '/q{?dns}}'],
    ['nests', '/q{?{dns}}'],
    ['has an unknown operator', '/q{=dns}'],
    ['has an empty variable', '/q{?dns,}'],
    ['has a hyphen in a variable', '/q{?x-y,dns}'],
    ['is cut to nothing', '/q{?dns:0}'],
    ['is cut to five digits', '/q{?dns:12345}'],
    ['has a blank', '/a b{?dns}'],
    ['has a broken escape', '/a%2{?dns}'],
    ['was not UTF-8', '/\ufffd{?dns}'],
  ])('refuses what %s', (_, path) => expect(isDohPath(path)).toBe(false));
});
