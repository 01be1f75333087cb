import { Name } from '../dns/name';
import { RRset, rrsetFromText } from '../dns/record';
import { Scope } from '../move/scope';
import { backRulings } from './backRulings';
import { plainRequirement } from '../hosts/requirement';
import { HostKnowledge } from './host';
import { isAskedElsewhere } from '../move/scope';
import { askedKeys, proposeRepoint } from './proposeRepoint';
import { Ruling, isChanging } from './ruling';

const ZONE = Name.parse('choir.example.');
const host = (more: Partial<HostKnowledge>): HostKnowledge => ({
  name: 'Thornwick',
  nameservers: [],
  addresses: [],
  aliasTarget: undefined,
  requires: [],
  ...more,
});
const web = host({ addresses: ['203.0.113.80', '2001:db8::80'], aliasTarget: 'edge.thornwick.example.' });
const set = (owner: string, type: string, ...data: string[]): RRset =>
  rrsetFromText({ owner: owner === '@' ? 'choir.example.' : `${owner}.choir.example.`, type, ttl: 1800, data });
const FOUND = [
  set('@', 'SOA', 'ns1.oldquay.example. host.oldquay.example. 1 60 60 600 60'),
  set('@', 'NS', 'ns1.oldquay.example.'),
  set('@', 'A', '192.0.2.80'),
  set('@', 'MX', '10 mail.choir.example.'),
  set('www', 'CNAME', 'sites.saltmarsh.example.'),
  set('shop', 'A', '192.0.2.90'),
  set('shop', 'AAAA', '2001:db8:5::90'),
  set('shop', 'TXT', '"proof"'),
  set('www.shop', 'CNAME', 'shop.choir.example.'),
  set('mail', 'A', '192.0.2.25'),
];
const names = (...all: string[]): Scope => ({ kind: 'names', names: all.map((name) => `${name}.choir.example`) });
const changes = (scope: Scope, newWeb = web, found = FOUND): string[] =>
  proposeRepoint(ZONE, found, {
    scope,
    oldWeb: [host({ name: 'Saltmarsh', addresses: ['192.0.2.80'], aliasTarget: 'sites.saltmarsh.example.' })],
    dns: host({ name: 'Oldquay' }),
    newWeb,
  })
    .filter(isChanging)
    .map(({ owner, type, ruling, planned }) =>
      `${owner.replace('.choir.example.', '').replace('choir.example.', '@')} ${type} ${ruling} ${planned?.data.join(' ') ?? ''}`.trim(),
    )
    .sort();

describe('what changes where the zone stays', () => {
  it('is what leads to the old web host, for the whole website', () => {
    expect(changes({ kind: 'whole' })).toEqual(['@ A repoint 203.0.113.80', 'www CNAME repoint edge.thornwick.example.']);
  });

  it('is what leads anywhere from the names of the move, and nothing else', () => {
    // Beside the text no alias may stand: addresses it is. Its own www is an alias, and becomes one of the host.
    expect(changes(names('shop', 'www.shop'))).toEqual([
      'shop A repoint 203.0.113.80',
      'shop AAAA repoint 2001:db8::80',
      'www.shop CNAME repoint edge.thornwick.example.',
    ]);
    // Each of several names that were chosen, found or not; a www that nobody has is not made.
    expect(changes(names('shop', 'www.shop', 'fresh', 'www.fresh'))).toEqual([
      'fresh A new 203.0.113.80',
      'fresh AAAA new 2001:db8::80',
      'shop A repoint 203.0.113.80',
      'shop AAAA repoint 2001:db8::80',
      'www.shop CNAME repoint edge.thornwick.example.',
    ]);
    expect(changes(names('shop', 'www.shop'), host({ addresses: ['203.0.113.80'] }))).toEqual([
      'shop A repoint 203.0.113.80',
      'shop AAAA drop',
      'www.shop A new 203.0.113.80',
      'www.shop CNAME drop',
    ]);
  });

  it('is an alias only where none of the name’s other records forbids it (RFC 1034 §3.6.2)', () => {
    const only = host({ aliasTarget: 'edge.thornwick.example.' });
    expect(changes(names('mail'), only)).toEqual(['mail A drop', 'mail CNAME new edge.thornwick.example.']);
    // The host names no address, and an alias cannot stand beside the text: nothing leads there, which the ledger shows.
    expect(changes(names('shop'), only)).toEqual(['shop A drop', 'shop AAAA drop']);
  });

  it('is nothing where a name leads there already, and a new name is added', () => {
    expect(changes(names('shop'), host({ addresses: ['192.0.2.90', '2001:db8:5::90'] }))).toEqual([]);
    expect(changes(names('tickets', 'www.tickets'))).toEqual(['tickets A new 203.0.113.80', 'tickets AAAA new 2001:db8::80']);
  });

  it('holds what the host asks for, at the domain itself as well, and nothing else of the zone', () => {
    const asks = host({
      addresses: ['203.0.113.80'],
      requires: [
        { owner: '_proof.shop', type: 'TXT', data: '"{zone}"' },
        { owner: '_proof', type: 'TXT', data: '"{zone}"' },
      ].map(plainRequirement),
    });
    expect(changes(names('shop'), asks)).toEqual([
      ...['_proof TXT new "choir.example"', '_proof.shop TXT new "choir.example"', 'shop A repoint 203.0.113.80', 'shop AAAA drop'],
    ]);
    expect(askedKeys(ZONE, asks)).toEqual(['_proof.shop.choir.example./TXT', '_proof.choir.example./TXT']);
  });
});

describe('setting back', () => {
  it('leaves what the web host asked for elsewhere in the zone: another move may need it', () => {
    const asks = host({ addresses: ['203.0.113.80'], requires: [plainRequirement({ owner: '_proof', type: 'TXT', data: '"{zone}"' })] });
    const made = proposeRepoint(ZONE, FOUND, { scope: names('shop'), oldWeb: [], dns: host({}), newWeb: asks });
    const back = backRulings(made, false, ({ owner }) => isAskedElsewhere(names('shop'), owner));
    const at = (type: string, owner: string): string | undefined => back.find((row) => row.type === type && row.owner === `${owner}.choir.example.`)?.ruling;
    expect([at('TXT', '_proof'), at('A', 'shop')]).toEqual(['carry', 'repoint']);
  });

  it('turns every row that changed round, and leaves the others', () => {
    const made = proposeRepoint(ZONE, FOUND, { scope: names('shop', 'www.shop'), oldWeb: [], dns: host({}), newWeb: host({ addresses: ['203.0.113.80'] }) });
    const back = backRulings(made, false);
    const brief = (all: readonly Ruling[]): string[] =>
      all
        .filter(isChanging)
        .map(({ owner, type, ruling, found, planned }) => `${owner} ${type} ${ruling} ${found?.data.join() ?? '-'} ${planned?.data.join() ?? '-'}`);
    expect(brief(back)).toEqual([
      'shop.choir.example. A repoint 203.0.113.80 192.0.2.90',
      'shop.choir.example. AAAA new - 2001:db8:5::90',
      'www.shop.choir.example. CNAME new - shop.choir.example.',
      'www.shop.choir.example. A drop 203.0.113.80 -',
    ]);
    // Its TTL is what it was; and what is set back again is what was planned first.
    expect(back.find((row) => row.type === 'AAAA')!.planned!.ttl).toBe(1800);
    expect(brief(backRulings(back, false))).toEqual(brief(made));
  });
});
