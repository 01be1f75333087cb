import { readText } from './readText';

const SUBJECT = { zone: 'kelp-forge.example.', as: 'old', own: [] } as const;
const SIZE = 40_000;

// Each of these would keep a search that begins anew at every character busy for hours.
describe('hostile text', () => {
  const units = [
    'a 300 IN TXT ( "b"\n',
    '$GENERATE 1-9 a( ',
    '(',
    '( ',
    ')\n',
    '"',
    '" ',
    ' " ',
    ': ',
    '\n',
    ' \n',
    '\t\n',
    '\r',
    '<tr',
    '<td ',
    '<td>"',
    '<input value="',
    'a ',
    'a;',
    'a,"',
    '|',
    '| ',
    '\\',
    '$TTL ',
    '@ SOA ',
    'é',
    '#\u2028',
    ' ',
    '\t',
    '> ',
    '- ',
    '* ',
    'Name: ',
    'Name:\n',
    'A\n',
    'A ',
    'www A ',
    'Type  ',
    '[',
    '{',
    '{"a":',
    '[[',
    '- a:\n',
    'a:\n ',
    '&a [',
    '*a ',
    '!!',
    'kelp-forge.example',
    '.kelp-forge.example ',
    'ns1 ',
    'ns1.',
    '1.',
    '1 ',
    '….',
    '-> ',
    'record A ',
    'www ',
    'same www ',
    '=',
    'v=spf1 ',
    '\u200b',
    '**a',
    '`',
  ];
  it.each(units)('of nothing but %j is read to its end, and nothing is made of it', (unit) => {
    for (const before of ['', 'www A 192.0.2.1\n', '<table><tr><td>']) {
      const { finds, unread } = readText(`${before}${unit.repeat(SIZE / unit.length)}\u2028x`, SUBJECT);
      expect(finds.filter(({ kind, trust, data }) => kind === 'record' && trust === 'sure' && data !== '192.0.2.1')).toEqual([]);
      expect(unread.every(({ text }) => text.length <= 300)).toBe(true);
    }
  });

  it.each(['a-', 'a.', 'a:', '1.', 'include:', '-verification=', 'a,', 'a.b.example '])(
    'of %j behind a sentence of which something is read, to its end',
    (unit) => {
      const { finds, unread } = readText(`Please point www to 192.0.2.1, and ${unit.repeat(SIZE / unit.length)}`, { ...SUBJECT, as: 'new' });
      expect(finds.filter(({ trust, data }) => trust === 'sure' && data !== '192.0.2.1')).toEqual([]);
      expect(unread.every(({ text, problem }) => text.length <= 300 && (problem ?? '').length <= 1000)).toBe(true);
    },
  );

  it.each([
    ['a', 'b'],
    ['a)', 'x'],
    ['x (TTL', '3600'],
    ['x (TTL', ')'],
    ['@ (MX)', ''],
    ['@ (MX)', ':x'],
    ['a =', 'b'],
    ['a -', 'b'],
    ['www', '→ y'],
    ['www  ', '→ 192.0.2.1 x'],
    ['ns1.host.example', '(192.0.2.1) x'],
    ['MX (1', ')x'],
    ['name: "a', 'b" x'],
    ['v=spf1', 'all x'],
    ['Name', '....... x'],
    ['A', ';'],
  ])('with a gap of 40,000 blanks between %j and %j is read to its end', (before, behind) => {
    for (const as of ['old', 'new'] as const) {
      const line = `${before}${' '.repeat(SIZE)}${behind}\n`;
      expect(readText(line + line + line, { ...SUBJECT, as }).finds.length).toBeLessThan(10);
    }
  });
});
