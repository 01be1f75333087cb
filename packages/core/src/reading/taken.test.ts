import { Name } from '../dns/name';
import { rrsetToText } from '../dns/record';
import { readText } from './readText';
import { takenNames, takenSets } from './taken';

const ZONE = Name.parse('kelp-forge.example.');
const read = (text: string) => readText(text, { zone: ZONE.toString(), as: 'old', own: [] });

it('what was taken is sets of records, names of which no whole record is there, and no SOA of the domain', () => {
  const { finds } = read('@ IN SOA ns1 host 7 1 1 1 1\n@ 60 IN MX 10 mail\n@ 60 IN MX 20 mail2\nmail 60 IN A 192.0.2.25\n');
  expect(
    takenSets(finds, ZONE, 5)
      .map(rrsetToText)
      .map(({ owner, type, data }) => [owner, type, data.length]),
  ).toEqual([
    ['kelp-forge.example.', 'MX', 2],
    ['mail.kelp-forge.example.', 'A', 1],
  ]);
  expect(takenNames(finds, ZONE).map(String)).toEqual([]);
  const table = read('Name\tType\tValue\nwww\tALIAS\tedge.hearth.example\ns1._domainkey\tTXT\tv=DKIM1; p=MIIB…\nshop\tA\t192.0.2.1').finds;
  expect(takenSets(table, ZONE, 5).map(rrsetToText)).toEqual([{ owner: 'shop.kelp-forge.example.', type: 'A', ttl: 5, data: ['192.0.2.1'] }]);
  expect(takenNames(table, ZONE).map(String)).toEqual(['www.kelp-forge.example.', 's1._domainkey.kelp-forge.example.']);
});

it('the serial of a zone file counts where every line of the text was read', () => {
  const file = '$TTL 60\n@ SOA ns1 host 42 1 1 1 1\nwww A 192.0.2.1\n';
  expect(read(file).serial).toBe(42);
  expect(read(`${file}ns1.elsewhere.test. A 192.0.2.2\n`).serial).toBe(42);
  expect(read(`${file}odd A 192.0.2\n`).serial).toBeUndefined();
  expect(read(`${file}${'n A 192.0.2.1\n'.repeat(20_000)}`).serial).toBeUndefined();
});

it('data of a program that was cut off is read as far as it goes, and the cut is told', () => {
  const whole = JSON.stringify({ records: ['a', 'b', 'c'].map((name) => ({ name, type: 'A', value: '192.0.2.1' })) }, null, 1);
  const { finds, unread, serial } = read(whole.slice(0, whole.lastIndexOf('192')));
  expect(finds.map(({ owner, trust }) => [owner, trust])).toEqual([
    ['a', 'sure'],
    ['b', 'sure'],
  ]);
  expect([unread.length > 0, unread[0]!.problem, serial]).toEqual([true, 'the data was cut off here', undefined]);
});
