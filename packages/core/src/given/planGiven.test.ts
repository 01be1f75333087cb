import { Name } from '../dns/name';
import { rrsetFromText } from '../dns/record';
import { proposeRulings } from '../rebuild/propose';
import { HostKnowledge } from '../rebuild/host';
import { planGiven } from './planGiven';

const ZONE = Name.parse('kelp.example.');
const set = (owner: string, type: string, ...data: string[]) => ({ owner: Name.parse(owner, ZONE).toString(), type, ttl: 3600, data });
const FOUND = [
  set('@', 'A', '198.51.100.80'),
  set('@', 'AAAA', '2001:db8:5a17::80'),
  set('www', 'A', '198.51.100.80'),
  set('blog', 'A', '198.51.100.80'),
  set('shop', 'A', '192.0.2.7'),
  set('@', 'MX', '10 mx1.post.example.'),
  set('@', 'TXT', '"v=spf1 mx -all"', '"proof=1"'),
];
const WEB: HostKnowledge = {
  name: 'Thornwick',
  nameservers: [],
  addresses: ['203.0.113.80', '2001:db8:7::80'],
  aliasTarget: 'sites.thornwick.example.',
  requires: [],
};
const DNS: HostKnowledge = { name: 'Quillmere', nameservers: [], addresses: [], aliasTarget: undefined, requires: [] };

function planned(sets: ReturnType<typeof set>[], names: Readonly<Record<string, boolean>> = {}): Record<string, string> {
  const rulings = proposeRulings(ZONE, FOUND.map(rrsetFromText), { oldWeb: [], newDns: DNS, newWeb: WEB });
  const said = new Map(Object.entries(names).map(([name, moves]) => [Name.parse(name, ZONE).toString(), moves]));
  const rows = planGiven(ZONE, rulings, { newWeb: WEB, sets, names: said });
  return Object.fromEntries(
    rows.map((row) => [`${Name.parse(row.owner).relativeTo(ZONE)} ${row.type}`, `${row.ruling} ${row.planned?.data.join(' ') ?? ''}`.trim()]),
  );
}

describe('a plan with what was given for single names', () => {
  it('leads a name where it was said to, and nothing stands beside an alias', () => {
    expect(planned([set('www', 'CNAME', 'sites.thornwick.example.')])).toMatchObject({ 'www A': 'drop', 'www CNAME': 'new sites.thornwick.example.' });
    expect(planned([set('blog', 'A', '203.0.113.9')])).toMatchObject({ 'blog A': 'repoint 203.0.113.9' });
  });

  it('leaves a name where it is that was unticked, whatever was given for it, and takes one along that was ticked', () => {
    const rows = planned([set('blog', 'A', '203.0.113.9')], { blog: false, shop: true });
    expect(rows).toMatchObject({ 'blog A': 'carry 198.51.100.80', 'shop A': 'repoint 203.0.113.80', 'shop AAAA': 'new 2001:db8:7::80' });
  });

  it('adds texts beside what is there, but for those of which a name has one', () => {
    expect(planned([set('@', 'TXT', '"thornwick=1"')])['@ TXT']).toBe('repoint "v=spf1 mx -all" "proof=1" "thornwick=1"');
    expect(planned([set('@', 'TXT', '"v=spf1 include:spf.thornwick.example -all"')])['@ TXT']).toBe(
      'repoint "proof=1" "v=spf1 include:spf.thornwick.example -all"',
    );
  });

  it('puts other records in the place of what stands there', () => {
    expect(planned([set('@', 'MX', '10 mx.thornwick.example.')])['@ MX']).toBe('repoint 10 mx.thornwick.example.');
    expect(planned([set('_sip._tcp', 'SRV', '0 1 5060 sip.thornwick.example.')])['_sip._tcp SRV']).toBe('new 0 1 5060 sip.thornwick.example.');
  });

  it('changes nothing by what is there already', () => {
    expect(planned([set('@', 'TXT', '"proof=1"')])['@ TXT']).toBe('carry "v=spf1 mx -all" "proof=1"');
  });
});
