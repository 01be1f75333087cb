import { readText } from '@wanderon/core';
import { findGroups } from './findGroups';

it('shows questions first, then what is sure by its form, then what is left out by its reason', () => {
  const text =
    's1._domainkey.kelp.example. 60 IN A 192.0.2.4\n\nwww\tA\t192.0.2.1\nmail\tMX\tmx1.post.example\nshop\tCNAME\tedge.host.example\n\nExample:\n\nblog\tA\t192.0.2.9';
  const { finds } = readText(text, { zone: 'kelp.example.', as: 'old', own: [] });
  expect(findGroups(finds).map(({ title, finds: all, isOut }) => [title, all.map(({ owner }) => owner).join(' '), isOut])).toEqual([
    ['1 question', 'mail', false],
    ['1 record from a list', 's1._domainkey', false],
    ['2 records from a table', 'www shop', false],
    ['1 left out. It stands under an example.', 'blog', true],
  ]);
});
