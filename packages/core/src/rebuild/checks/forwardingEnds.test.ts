import { Name } from '../../dns/name';
import { checkInput, planLine } from '../../testing/planLine';
import { forwardingEnds } from './forwardingEnds';

const ZONE = Name.parse('zone.test.');
const ROWS = ['carry @ MX 10 mx.forward.old.test.', 'carry go A 198.51.100.70', 'drop left A 198.51.100.71', 'carry www A 198.51.100.90'].map((line) =>
  planLine(ZONE, line),
);
const input = (forwards: readonly string[]) => checkInput(ZONE, ROWS, { leaves: { name: 'Old DNS', forwards } });

it('says which rows lead to a service of the old host that ends with its zone, and of no others', () => {
  const found = forwardingEnds(input(['forward.old.test', '198.51.100.64/28']));
  expect(found.map(({ owner, weight, text }) => [owner, weight, /forwards (\w+)/.exec(text)![1]])).toEqual([
    ['zone.test.', 'look', 'mail'],
    ['go.zone.test.', 'look', 'visitors'],
  ]);
  expect(forwardingEnds(input([]))).toEqual([]);
  expect(forwardingEnds({ ...input(['forward.old.test']), leaves: undefined })).toEqual([]);
});
