import { readText } from '@wanderon/core';
import { placeOf, withFinds } from './takeFinds';
import { typedOf } from './typedHost';

const web = { ...typedOf(undefined), role: 'web' as const };

it('a page that was pasted fills the form of a host, beside what is there', () => {
  const page =
    'Type\tName\tValue\nA\t@\t203.0.113.7\nAAAA\t@\t2001:db8::7\nCNAME\twww\tsites.hearth.example\nTXT\t_hearth\tsite=9f2c4d5e\nTXT\t_policy\tv=1\nNameserver: ns1.hearth.example';
  const { finds } = readText(page, { zone: undefined, as: 'new', own: [] });
  const filled = withFinds({ ...web, addresses: '203.0.113.1' }, finds);
  expect(filled.addresses.split('\n')).toEqual(['203.0.113.1', '203.0.113.7', '2001:db8::7']);
  expect(filled.aliasTarget).toBe('sites.hearth.example.');
  // A value that is made for one site is nobody else's: it is asked for in each move.
  expect(filled.requires.map(({ owner, type, data }) => [owner, type, data])).toEqual([
    ['_hearth', 'TXT', ''],
    ['_policy', 'TXT', '"v=1"'],
  ]);
  expect(withFinds(filled, finds).requires).toHaveLength(2);
  expect(filled.nameservers).toBe('');
  expect(withFinds({ ...web, role: 'dns' }, finds).nameservers).toBe('ns1.hearth.example.');
  expect(placeOf('registrar', finds[0]!)).toBeUndefined();
});
