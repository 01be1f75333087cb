import { readText } from './readText';

const read = (text: string, as: 'old' | 'new' = 'new') => readText(text, { zone: 'kelp.example.', as, own: [] });
const left = (text: string): (string | undefined)[] => read(text).unread.map(({ problem }) => problem);

describe('a line of which only a part was read', () => {
  it('is listed with what was not read, and what was read stands', () => {
    const text = 'Please point www to 203.0.113.80, and for mail add include:spf.brinepost.example to SPF.';
    expect(read(text).finds.some(({ data }) => data === '203.0.113.80')).toBe(true);
    expect(left(text)).toEqual(['Not read in it: include:spf.brinepost.example.']);
  });

  it.each([
    'Your nameservers are ns1.hearth.example (203.0.113.1) and ns2.hearth.example (203.0.113.2).',
    'The website of kelp.example is at 203.0.113.80.',
    'From 12.03.2026 13:08:03 on, the website of kelp.example is at 203.0.113.80.',
    'Point www.kelp.example to 203.0.113.80, see https://help.hearth.example/dns or write to help@hearth.example.',
  ])('is not one where all of it was read, or is no value: %s', (text) => {
    expect(left(text)).toEqual([]);
  });

  it('gives the names in it to the survey, as those of a line that was not read', () => {
    const { finds } = read('The website of kelp.example is at 203.0.113.80, as shop.kelp.example is too.', 'new');
    expect(finds.some(({ owner }) => owner === 'shop')).toBe(true);
  });
});
