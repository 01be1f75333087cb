import { Name } from '../dns/name';
import { readText } from './readText';
import { servedBy, servedSays } from './served';

const ZONE = Name.parse('kelp.example.');
const SERVED = servedBy([
  { owner: 'kelp.example.', type: 'MX', ttl: 60, data: ['10 MX1.post.example.'] },
  { owner: 'kelp.example.', type: 'TXT', ttl: 60, data: ['"v=spf1 " "mx -all"'] },
  { owner: 'www.kelp.example.', type: 'A', ttl: 60, data: ['192.0.2.1'] },
  { owner: 'shop.kelp.example.', type: 'CNAME', ttl: 60, data: ['edge.kelp.example.'] },
]);
const says = (text: string) => readText(text, { zone: ZONE.toString(), as: 'old', own: [] }).finds.map((find) => servedSays(find, ZONE, SERVED));

it('answers a question with what is served, in whichever reading, and says where another value is', () => {
  // No priority stands there; the server has the one that was taken.
  expect(says('@\tMX\tmx1.post.example')).toEqual([{ is: 'same', reading: undefined }]);
  expect(says('@\tTXT\tv=spf1 mx -all')).toEqual([{ is: 'same', reading: undefined }]);
  // Name and value could be the other way round.
  expect(says('edge\tCNAME\tshop')).toEqual([{ is: 'same', reading: 0 }]);
  expect(says('www\tA\t192.0.2.9')).toEqual([{ is: 'other', data: ['192.0.2.1'] }]);
  expect(says('s1._domainkey\tTXT\tv=DKIM1; p=MIIB…\nftp\tA\t192.0.2.4')).toEqual([undefined, undefined]);
});
