import { unreadableIn } from './unreadable';

describe('a body', () => {
  it.each([
    [{ text: 'a\nb\tc é 🛶' }, undefined],
    [{ rows: [{ data: 'a' }, { data: 'b\u0000' }] }, 'rows.1.data'],
    [{ text: '\ud800' }, 'text'],
    [{ text: '\udc00\ud800' }, 'text'],
    [{ a: { 'b\u0000': 1 } }, 'a'],
    [['x', 7, null, true], undefined],
    [undefined, undefined],
  ])('%j is kept, or told where it is not', (body, field) => expect(unreadableIn(body)).toBe(field));

  it('is not followed into its depths', () => {
    const nested = JSON.parse('['.repeat(400_000) + ']'.repeat(400_000)) as unknown;
    expect(unreadableIn(nested)).toMatch(/^0\.0\.0/);
    expect(unreadableIn({ a: [{ b: [{ c: 'deep enough' }] }] })).toBeUndefined();
  });
});
