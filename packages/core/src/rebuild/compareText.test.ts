import fc from 'fast-check';
import { Piece, compareText } from './compareText';

const shown = (pieces: readonly Piece[]): string => pieces.map(({ text, changed }) => (changed ? `[${text}]` : text)).join('');

it.each([
  ['192.0.2.10', '192.0.2.25', '192.0.2.[10]', '192.0.2.[25]'],
  ['198.51.100.80', '203.0.113.90', '[198.51.100.80]', '[203.0.113.90]'],
  ['198.51.100.80', '203.0.113.80', '[198.51.100].80', '[203.0.113].80'],
  ['192.0.2.1', '192.0.2.11', '192.0.2.[1]', '192.0.2.[11]'],
  ['sites.old.test.', 'sites.new.test.', 'sites.[old].test.', 'sites.[new].test.'],
  ['10 mx1.test.', '20 mx1.test.', '[10] mx1.test.', '[20] mx1.test.'],
  ['the same', 'the same', 'the same', 'the same'],
  ['', 'new', '', '[new]'],
])('%s against %s', (before, after, left, right) => {
  expect(compareText(before, after).map(shown)).toEqual([left, right]);
});

it('loses nothing of either side, and marks only what lies between what they share', () => {
  const text = fc.string({ unit: fc.constantFrom('0', '1', '9', 'a', '.', ' '), maxLength: 12 });
  fc.assert(
    fc.property(text, text, (before, after) => {
      const sides = compareText(before, after);
      expect(sides.map((side) => side.map((piece) => piece.text).join(''))).toEqual([before, after]);
      const kept = sides.map((side) =>
        side
          .filter((piece) => !piece.changed)
          .map((piece) => piece.text)
          .join('|'),
      );
      if (before !== after) expect(kept[0]!.replace(/\|/g, '')).toBe(kept[1]!.replace(/\|/g, ''));
    }),
    { numRuns: 2000 },
  );
});
