import { checkInput, planLine } from '../testing/planLine';
import { Name } from '../dns/name';
import { RRset, rrsetFromText } from '../dns/record';
import { checkRulings } from './checks';
import { HostKnowledge } from './host';
import { otherUses } from './otherUses';
import { presentWeb } from './presentWeb';
import { proposeRulings } from './propose';

const ZONE = Name.parse('boats.example.');
const WEB: HostKnowledge = { name: 'New Web', nameservers: [], addresses: ['203.0.113.80'], aliasTarget: 'sites.new.example.', requires: [] };
const DNS: HostKnowledge = { ...WEB, name: 'New DNS', addresses: [], aliasTarget: undefined };
const sets = (...lines: string[]): RRset[] => lines.map((line) => rrsetFromText(planLine(ZONE, `carry ${line}`).found!));

/** Nobody described any host: `name type` of each row with its ruling, in the words of the proposal. */
function proposed(...lines: string[]): Record<string, string> {
  const rulings = proposeRulings(ZONE, sets(...lines), { oldWeb: [], newDns: DNS, newWeb: WEB });
  return Object.fromEntries(rulings.map((row) => [`${Name.parse(row.owner).relativeTo(ZONE)} ${row.type}`, `${row.ruling}: ${row.reason}`]));
}

describe('what the website is today, with no host described', () => {
  it.each([
    ['addresses of both spellings', ['@ A 198.51.100.80', 'www A 198.51.100.81'], ['198.51.100.80', '198.51.100.81'], undefined],
    ['an alias inside the zone', ['www CNAME pages.boats.example.', 'pages AAAA 2001:db8::8'], ['2001:db8::8'], undefined],
    ['an alias out of it', ['@ A 198.51.100.80', 'www CNAME tide.sites.old.example.'], ['198.51.100.80'], 'tide.sites.old.example.'],
    ['what is at the new place already', ['@ A 203.0.113.80', 'www CNAME x.sites.new.example.'], undefined, undefined],
    ['nothing at all', ['@ MX 10 mx.post.example.'], undefined, undefined],
  ])('%s', (_what, lines, addresses, aliasTarget) => {
    const present = presentWeb(ZONE, sets(...lines), [WEB]);
    expect([present?.addresses, present?.aliasTarget]).toEqual([addresses, aliasTarget]);
  });

  it('is what changes, and nothing else', () => {
    const all = proposed('@ A 198.51.100.80', 'www A 198.51.100.80', 'blog A 198.51.100.80', 'shop A 198.51.100.9', '@ MX 10 mx.post.example.');
    expect(Object.entries(all).map(([key, words]) => `${key} ${words.split(':')[0]!}`)).toEqual([
      ...['@ A repoint', 'www A repoint', 'blog A repoint', 'shop A carry', '@ MX carry'],
    ]);
  });
});

describe('a name at the website’s address that something else uses', () => {
  const SITE = ['@ A 198.51.100.80', 'www A 198.51.100.80'];

  it.each([
    ['SRV', ['box A 198.51.100.80', '_imaps._tcp SRV 0 1 993 box.boats.example.'], 'box A', /SRV of _imaps\._tcp leads here/],
    ['MX', ['box A 198.51.100.80', '@ MX 10 box.boats.example.'], 'box A', /MX of @ leads here/],
    ['MX along an alias', ['in CNAME box.boats.example.', 'box A 198.51.100.80', 'news MX 10 in.boats.example.'], 'box A', /MX of news leads here/],
    ['glue of a subzone', ['branch NS ns.branch.boats.example.', 'ns.branch A 198.51.100.80'], 'ns.branch A', /NS of branch leads here/],
    ['SVCB', ['_dns SVCB 1 asks.boats.example. alpn=dot', 'asks A 198.51.100.80'], 'asks A', /SVCB of _dns leads here/],
    ['a bound certificate', ['_25._tcp.box TLSA 3 1 1 aabb', 'box A 198.51.100.80'], 'box A', /TLSA at _25\._tcp\.box/],
    ['CAA', ['@ CAA 0 iodef "https://told.boats.example/caa"', 'told A 198.51.100.80'], 'told A', /CAA of @ leads here/],
    ['its own name', ['imap A 198.51.100.80'], 'imap A', /imap is a common name/],
    ['two uses', ['smtp A 198.51.100.80', '_submission._tcp SRV 0 1 587 smtp.boats.example.', '@ MX 5 smtp.boats.example.'], 'smtp A', /SRV of .*; MX of @/],
  ])('by %s is kept, and its use is named', (_what, lines, key, words) => {
    const all = proposed(...SITE, ...lines);
    expect(all[key]).toMatch(/^carry: stays for another use: /);
    expect(all[key]).toMatch(words);
    expect(all['www A']).toMatch(/^repoint/);
  });

  it('is the website all the same where its certificate is bound to the website’s port', () => {
    expect(proposed(...SITE, '_443._tcp.www TLSA 3 1 1 aabb')['www A']).toMatch(/^repoint/);
    expect(otherUses(ZONE, sets('_443._tcp.www TLSA 3 1 1 aabb'))(ZONE.child('www'))).toEqual([]);
  });

  const remarks = (...lines: string[]): string[] =>
    checkRulings(
      checkInput(
        ZONE,
        lines.map((line) => planLine(ZONE, line)),
        { newWeb: WEB, oldWeb: [{ name: 'Old Web', addresses: ['198.51.100.80'] }] },
      ),
    ).map((one) => `${one.weight} ${one.code} ${Name.parse(one.owner).relativeTo(ZONE)}`);
  const MOVES = ['repoint @ A 198.51.100.80 > 203.0.113.80', 'repoint www A 198.51.100.80 > 203.0.113.80'];

  it('stops a plan in which it lands at the web host, by its own value or by an alias that moves', () => {
    const srv = 'carry _imaps._tcp SRV 0 1 993 box.boats.example.';
    expect(remarks(...MOVES, srv, 'repoint box A 198.51.100.80 > 203.0.113.80')).toContain('stop use-at-web-host box');
    expect(remarks(...MOVES, srv, 'carry box CNAME www.boats.example.')).toContain('stop use-at-web-host box');
    expect(remarks(...MOVES, srv, 'carry box A 198.51.100.25').join()).not.toContain('use-at-web-host');
    expect(remarks(...MOVES, 'carry @ MX 10 box.boats.example.', 'repoint box A 198.51.100.80 > 203.0.113.80')).toContain('stop mail-target-moves @');
  });

  it('is asked about where it stays; where the website’s own name has another use, that stops', () => {
    expect(remarks(...MOVES, 'carry imap A 198.51.100.80')).toContain('look left-at-old-host imap');
    expect(remarks('carry @ A 198.51.100.80', MOVES[1]!, 'carry @ MX 10 boats.example.')).toContain('stop left-at-old-host @');
  });
});
