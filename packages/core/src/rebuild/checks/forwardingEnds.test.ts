import { Name } from '../../dns/name';
import { ruling } from '../../testing/moving';
import { forwardingEnds } from './forwardingEnds';

const input = (forwards: readonly string[]) => ({
  zone: Name.parse('zone.test.'),
  rulings: [
    ruling('zone.test.', 'MX', 'carry', 3600, ['10 mx.forward.old.test.'], ['10 mx.forward.old.test.']),
    ruling('go.zone.test.', 'A', 'carry', 3600, ['198.51.100.70'], ['198.51.100.70']),
    ruling('left.zone.test.', 'A', 'drop', 3600, ['198.51.100.71'], undefined),
    ruling('www.zone.test.', 'A', 'carry', 3600, ['198.51.100.90'], ['198.51.100.90']),
  ],
  oldWeb: [],
  fronted: [],
  lacks: [],
  leaves: { name: 'Old DNS', forwards },
  edge: undefined,
});

it('says which rows lead to a service of the old host that ends with its zone, and of no others', () => {
  const found = forwardingEnds(input(['forward.old.test', '198.51.100.64/28']));
  expect(found.map(({ owner, weight, text }) => [owner, weight, /forwards (\w+)/.exec(text)![1]])).toEqual([
    ['zone.test.', 'look', 'mail'],
    ['go.zone.test.', 'look', 'visitors'],
  ]);
  expect(forwardingEnds(input([]))).toEqual([]);
  expect(forwardingEnds({ ...input(['forward.old.test']), leaves: undefined })).toEqual([]);
});
