import fc from 'fast-check';
import { textOf } from '../survey/namesInText';
import { utf8 } from './bytes';
import { quotedText } from './quotedText';
import { parseRdata } from './rdata';
import { Name } from './name';
import { TYPE_CODES } from './typeNames';

const ZONE = Name.parse('zone.test.');

it('gives a text that is read as it was, in strings that hold it', () => {
  expect(quotedText('a "b" \\c')).toBe('"a \\"b\\" \\\\c"');
  expect(quotedText('')).toBe('""');
  fc.assert(
    fc.property(fc.string({ maxLength: 900, unit: fc.constantFrom('a', '"', '\\', ' ', ';', '(', '=') }), (text) => {
      const data = parseRdata(TYPE_CODES.TXT, quotedText(text), ZONE);
      expect(textOf(data)).toBe(text);
    }),
  );
});

it('parts between characters, not within one', () => {
  const text = 'é'.repeat(300);
  const data = parseRdata(TYPE_CODES.TXT, quotedText(text), ZONE);
  expect(data.length).toBe(utf8(text).length + 3);
  expect(
    quotedText(text)
      .split('" "')
      .map((part) => part.replaceAll('"', '').length),
  ).toEqual([127, 127, 46]);
});
