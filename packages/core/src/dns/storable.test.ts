import fc from 'fast-check';
import { storable } from './storable';

describe('text of strangers', () => {
  it.each([
    ['plain, with é and 🛶', 'plain, with é and 🛶'],
    ['a\u0000b', 'a\ufffdb'],
    ['cut \ud83d', 'cut \ufffd'],
    ['\udef6 and \ud83d\udef6', '\ufffd and 🛶'],
  ])('%j is kept as %j', (text, kept) => expect(storable(text)).toBe(kept));

  it('is well formed and without NUL whatever it was, and the same where it was so', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 0xffff }), { maxLength: 20 }), (units) => {
        const text = String.fromCharCode(...units);
        // UTF-8 has no halves of characters.
        expect(storable(text)).toBe(Buffer.from(text).toString().replaceAll('\0', '\ufffd'));
      }),
    );
  });
});
