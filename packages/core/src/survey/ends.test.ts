import { Name } from '../dns/name';
import { rrsetFromText } from '../dns/record';
import { Follower } from './ends';

const ends = (owner: string, type: string, ...data: string[]): string[] => {
  const set = rrsetFromText({ owner, type, ttl: 60, data });
  const here = [set, rrsetFromText({ owner: 'web.quay.example.', type: 'A', ttl: 60, data: ['192.0.2.7'] })];
  const outside = [
    { target: Name.parse('edge.marsh.example.'), addresses: ['203.0.113.7'] },
    { target: Name.parse('gone.marsh.example.'), addresses: [] },
  ];
  return new Follower(here, outside).endsOf(set).map(({ target, addresses }) => `${target.toString()} ${addresses.join(', ') || 'no address'}`);
};

describe('what a record leads to in the end', () => {
  it.each<[string, string, string, string[]]>([
    ['shop.quay.example.', 'CNAME', 'web.quay.example.', ['web.quay.example. 192.0.2.7']],
    ['shop.quay.example.', 'CNAME', 'edge.marsh.example.', ['edge.marsh.example. 203.0.113.7']],
    ['shop.quay.example.', 'CNAME', 'gone.marsh.example.', ['gone.marsh.example. no address']],
    ['quay.example.', 'MX', '10 gone.marsh.example.', ['gone.marsh.example. no address']],
    ['_sip._tcp.quay.example.', 'SRV', '1 2 5060 gone.marsh.example.', ['gone.marsh.example. no address']],
    ['_8443._https.quay.example.', 'HTTPS', '1 gone.marsh.example.', ['gone.marsh.example. no address']],
    ['quay.example.', 'MX', '0 .', []],
    // A key, a challenge, the name of an address and a subtree have none to have.
    ['key._domainkey.quay.example.', 'CNAME', 'gone.marsh.example.', []],
    ['_acme-challenge.shop.quay.example.', 'CNAME', 'gone.marsh.example.', []],
    ['65.2.0.192.in-addr.arpa.', 'CNAME', '65.64-127.2.0.192.in-addr.arpa.', []],
    ['old.quay.example.', 'DNAME', 'gone.marsh.example.', []],
    ['old.quay.example.', 'DNAME', 'edge.marsh.example.', ['edge.marsh.example. 203.0.113.7']],
    ['_odd.quay.example.', 'CNAME', 'web.quay.example.', ['web.quay.example. 192.0.2.7']],
  ])('%s %s %s', (owner, type, data, wanted) => expect(ends(owner, type, data)).toEqual(wanted));
});
