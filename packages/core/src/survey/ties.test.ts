import { Name } from '../dns/name';
import { RRset, rrsetFromText } from '../dns/record';
import { Follower, targetsOutside } from './ends';
import { tiesOf } from './ties';

const ZONE = Name.parse('reed-bank.example.');
const set = (owner: string, type: string, ...data: string[]): RRset => rrsetFromText({ owner, type, ttl: 60, data });
const sets = [
  set('reed-bank.example.', 'A', '198.51.100.80'),
  set('reed-bank.example.', 'MX', '10 post.reed-bank.example.', '20 mx.other.example.'),
  set('post.reed-bank.example.', 'CNAME', 'box.reed-bank.example.'),
  set('box.reed-bank.example.', 'A', '198.51.100.80'),
  set('mta-sts.reed-bank.example.', 'CNAME', 'sites.host.example.'),
  set('_mta-sts.reed-bank.example.', 'TXT', '"v=STSv1; id=1"'),
  set('_25._tcp.post.reed-bank.example.', 'TLSA', '3 1 1 00'),
  set('loop.reed-bank.example.', 'CNAME', 'loop.reed-bank.example.'),
];
const outside = [{ target: Name.parse('mx.other.example.'), addresses: ['198.51.100.25'] }];
const follower = new Follower(sets, outside);

describe('what names end at', () => {
  it('is asked for outside the zone, and followed inside', () => {
    expect(
      targetsOutside(ZONE, sets)
        .map((name) => name.toString())
        .sort(),
    ).toEqual(['mx.other.example.', 'sites.host.example.']);
    expect(follower.endsOf(sets[1]!).map((end) => [end.target.toString(), end.addresses])).toEqual([
      ['post.reed-bank.example.', ['198.51.100.80']],
      ['mx.other.example.', ['198.51.100.25']],
    ]);
    expect(follower.endsOf(sets[7]!).map((end) => [end.target.toString(), end.addresses])).toEqual([['loop.reed-bank.example.', []]]);
    expect(follower.endsOf(sets[0]!)).toEqual([]);
  });
});

describe('names under a wildcard', () => {
  it('end where it does, unless they exist or something nearer does (RFC 4592 §3.3.1)', () => {
    const wild = new Follower(
      [
        ...sets,
        set('*.reed-bank.example.', 'CNAME', 'sites.host.example.'),
        set('www.shop.reed-bank.example.', 'A', '192.0.2.7'),
        set('note.reed-bank.example.', 'TXT', '"x"'),
      ],
      [{ target: Name.parse('sites.host.example.'), addresses: ['198.51.100.9'] }],
    );
    const ends = ['any', 'far.below', 'box', 'note', 'shop', 'else.shop'].map((name) => wild.addressesOf(Name.parse(name, ZONE)).join());
    expect(ends).toEqual(['198.51.100.9', '198.51.100.9', '198.51.100.80', '', '', '']);
    expect(wild.addressesOf(Name.parse('elsewhere.test.'))).toEqual([]);
    expect(['any', 'post', 'loop'].map((name) => wild.lastOf(Name.parse(name, ZONE)).toString())).toEqual([
      'sites.host.example.',
      'box.reed-bank.example.',
      'loop.reed-bank.example.',
    ]);
  });
});

describe('ties', () => {
  it('are a policy host, keys bound to a certificate, and mail on the server of the website', () => {
    expect(tiesOf(ZONE, sets, outside, []).map((tie) => tie.code)).toEqual(['policy host', 'certificate', 'local mail']);
    const apart = sets.filter((one) => !['_mta-sts.reed-bank.example.', 'box.reed-bank.example.'].includes(one.owner.toString()));
    expect(tiesOf(ZONE, apart, outside, []).map((tie) => tie.code)).toEqual(['certificate']);
  });

  it('are other domains that name something here, in data of any kind and in sender policies', () => {
    const others = [
      {
        domain: 'tern.example',
        nameservers: [Name.parse('ns1.reed-bank.example.'), Name.parse('ns1.oldquay.example.')],
        sets: [
          set('tern.example.', 'MX', '10 post.reed-bank.example.'),
          set('tern.example.', 'TXT', '"v=spf1 include:_spf.reed-bank.example -all"'),
          set('www.tern.example.', 'CNAME', 'not-reed-bank.example.'),
          set('note.tern.example.', 'TXT', '"ask reed-bank.example"'),
        ],
      },
    ];
    expect(tiesOf(ZONE, [], [], others).map((tie) => [tie.owner.toString(), tie.text.split(':')[0]])).toEqual([
      ['ns1.reed-bank.example.', 'tern.example is delegated to ns1.reed-bank.example'],
      ['post.reed-bank.example.', 'tern.example leads here'],
      ['_spf.reed-bank.example.', 'tern.example leads here'],
    ]);
  });
});
