import { checkInput } from '../testing/planLine';
import { Name } from '../dns/name';
import { RRsetText, rrsetFromText } from '../dns/record';
import { checkRulings } from './checks';
import { plainRequirement } from '../hosts/requirement';
import { HostKnowledge } from './host';
import { plannedSets, proposeRulings } from './propose';
import { Ruling, isChanging } from './ruling';

const zone = Name.parse('zone.example.');
const host = (name: string, more: Partial<HostKnowledge>): HostKnowledge => ({
  name,
  nameservers: [],
  addresses: [],
  aliasTarget: undefined,
  requires: [],
  ...more,
});
const oldWeb = host('Old', { addresses: ['192.0.2.80', '2001:db8::80'], aliasTarget: 'sites.old.example.' });
const newDns = host('NewDNS', { nameservers: ['ns1.new.example.'] });
const newWeb = host('New', {
  addresses: ['203.0.113.80'],
  aliasTarget: 'edge.new.example.',
  requires: [plainRequirement({ owner: '_proof', type: 'TXT', data: '"site={zone}"' })],
});
const text = (owner: string, type: string, ...data: string[]): RRsetText => ({
  owner: owner === '@' ? 'zone.example.' : `${owner}.zone.example.`,
  type,
  ttl: 3600,
  data,
});
const propose = (sets: RRsetText[], web: HostKnowledge | undefined = newWeb): Ruling[] =>
  proposeRulings(zone, sets.map(rrsetFromText), { oldWeb: [oldWeb], newDns, newWeb: web });
const rulingOf = (rulings: readonly Ruling[], owner: string, type: string): string => {
  const ruling = rulings.find((one) => one.owner === text(owner, type).owner && one.type === type);
  return ruling ? [ruling.ruling, ...(ruling.planned?.data ?? [])].join(' ') : 'none';
};

describe('proposed rulings', () => {
  const rulings = propose([
    text('@', 'SOA', 'ns1.old.example. h.old.example. 1 2 3 4 5'),
    text('@', 'NS', 'ns1.old.example.'),
    text('@', 'A', '192.0.2.80'),
    text('@', 'AAAA', '2001:db8::80'),
    text('www', 'CNAME', 'sites.old.example.'),
    text('shop', 'CNAME', 'a.sites.old.example.'),
    text('blog', 'CNAME', 'elsewhere.example.'),
    text('@', 'MX', '10 mail.zone.example.', '20 mx.else.example.'),
    text('mail', 'A', '192.0.2.80'),
    text('archive', 'A', '192.0.2.9'),
    text('@', 'TXT', '"v=spf1 ip4:192.0.2.80 -all"'),
    text('sub', 'NS', 'ns.sub.example.'),
    text('@', 'DNSKEY', '257 3 13 AAAA'),
  ]);

  it.each([
    ['@', 'SOA', 'drop'],
    ['@', 'NS', 'drop'],
    ['@', 'DNSKEY', 'drop'],
    ['@', 'A', 'repoint 203.0.113.80'],
    ['@', 'AAAA', 'drop'],
    ['www', 'CNAME', 'repoint edge.new.example.'],
    ['shop', 'CNAME', 'repoint edge.new.example.'],
    ['blog', 'CNAME', 'carry elsewhere.example.'],
    ['mail', 'A', 'carry 192.0.2.80'],
    ['archive', 'A', 'carry 192.0.2.9'],
    ['sub', 'NS', 'carry ns.sub.example.'],
    ['_proof', 'TXT', 'new "site=zone.example"'],
  ])('%s %s: %s', (owner, type, wanted) => expect(rulingOf(rulings, owner, type)).toBe(wanted));

  it('carry everything where the website stays', () => {
    const staying = proposeRulings(zone, [text('@', 'A', '192.0.2.80'), text('@', 'NS', 'ns1.old.example.')].map(rrsetFromText), {
      oldWeb: [oldWeb],
      newDns,
      newWeb: undefined,
    });
    expect(staying.map((ruling) => ruling.ruling)).toEqual(['carry', 'drop']);
  });

  it('are served with low TTLs first and with their own once finished everywhere', () => {
    expect(new Set(plannedSets(rulings, 'starting').map((set) => set.ttl))).toEqual(new Set([300]));
    expect(new Set(plannedSets(rulings, 'settled').map((set) => set.ttl))).toEqual(new Set([3600]));
  });

  it('do not count the host’s own sets among what changes', () => {
    expect(
      rulings
        .filter(isChanging)
        .map((ruling) => `${ruling.owner} ${ruling.type}`)
        .sort(),
    ).toEqual(['_proof.zone.example. TXT', 'shop.zone.example. CNAME', 'www.zone.example. CNAME', 'zone.example. A', 'zone.example. AAAA']);
  });
});

describe('checks', () => {
  const ruling = (kind: Ruling['ruling'], found: RRsetText, planned: string[] = found.data): Ruling => ({
    owner: found.owner,
    type: found.type,
    ruling: kind,
    found,
    planned: kind === 'drop' ? undefined : { ...found, data: planned },
    reason: '',
  });
  const codes = (...rulings: Ruling[]): string[] =>
    checkRulings(checkInput(zone, rulings, { oldWeb: [oldWeb] })).map((remark) => `${remark.weight} ${remark.code}`);

  it.each<[string, Ruling[], string[]]>([
    ['an alias at the apex', [ruling('repoint', text('@', 'CNAME', 'a.example.'))], ['stop alias-at-apex']],
    [
      'an alias beside an address',
      [ruling('carry', text('www', 'CNAME', 'a.example.')), ruling('carry', text('www', 'A', '192.0.2.9'))],
      ['stop alias-beside-data'],
    ],
    ['two aliases', [ruling('carry', text('www', 'CNAME', 'a.example.', 'b.example.'))], ['stop alias-twice']],
    ['an alias beside a dropped address', [ruling('carry', text('www', 'CNAME', 'a.example.')), ruling('drop', text('www', 'A', '192.0.2.9'))], []],
    [
      'the apex without www',
      [ruling('repoint', text('@', 'A', '192.0.2.1'), ['192.0.2.2']), ruling('carry', text('www', 'A', '192.0.2.1'))],
      ['look one-spelling'],
    ],
    ['www following the apex', [ruling('repoint', text('@', 'A', '192.0.2.1'), ['192.0.2.2']), ruling('carry', text('www', 'CNAME', 'zone.example.'))], []],
    [
      'IPv6 left behind',
      [ruling('repoint', text('shop', 'A', '192.0.2.1'), ['192.0.2.2']), ruling('carry', text('shop', 'AAAA', '2001:db8::5'))],
      ['look other-family'],
    ],
    ['the zone twice', [ruling('carry', text('www.zone.example', 'A', '192.0.2.9'))], ['look doubled-zone']],
    ['a target with the zone twice', [ruling('carry', text('www', 'CNAME', 'a.zone.example.zone.example.'))], ['look doubled-zone']],
    ['mail to nowhere', [ruling('carry', text('@', 'MX', '10 mail.zone.example.')), ruling('drop', text('mail', 'A', '192.0.2.9'))], ['stop mail-target-gone']],
    [
      'mail whose target moves',
      [ruling('carry', text('@', 'MX', '10 mail.zone.example.')), ruling('repoint', text('mail', 'A', '192.0.2.9'), ['192.0.2.8'])],
      ['look mail-target-moves', 'look reverse-name'],
    ],
    [
      'mail to an alias',
      [ruling('carry', text('@', 'MX', '10 mail.zone.example.')), ruling('carry', text('mail', 'CNAME', 'a.example.'))],
      ['look mail-alias'],
    ],
    ['mail elsewhere and no mail', [ruling('carry', text('@', 'MX', '10 mx.else.example.')), ruling('carry', text('x', 'MX', '0 .'))], []],
    ['an SPF that names the old host', [ruling('carry', text('@', 'TXT', '"v=spf1 ip4:192.0.2.80 -all"'))], ['look left-at-old-host']],
    ['an SPF that names a neighbour', [ruling('carry', text('@', 'TXT', '"v=spf1 ip4:192.0.2.8 ip4:192.0.2.801 -all"'))], []],
    ['an address of the old host carried', [ruling('carry', text('intra', 'A', '192.0.2.80'))], ['look left-at-old-host']],
    [
      'a set that no message holds',
      [ruling('new', text('@', 'TXT', ...['a', 'b'].map((one) => Array.from({ length: 140 }, () => `"${one.repeat(255)}"`).join(' '))))],
      ['stop too-large'],
    ],
    ['an alias to the old host carried', [ruling('carry', text('intra', 'CNAME', 'x.sites.old.example.'))], ['look left-at-old-host']],
  ])('see %s', (_what, rulings, wanted) => expect(codes(...rulings)).toEqual(wanted));
});
