import { createPublicKey, generateKeyPairSync } from 'node:crypto';
import { Name } from '../../dns/name';
import { quotedText } from '../../dns/quotedText';
import { groupRecords } from '../../dns/record';
import { parseZoneFile } from '../../dns/zoneFile';
import { LifelikeZone, lifelikeZones } from '../../testing/lifelikeZones';
import { checkInput } from '../../testing/planLine';
import { HostKnowledge } from '../host';
import { fixedTo } from '../fix';
import { proposeRulings } from '../propose';
import { Ruling } from '../ruling';
import { Remark } from './check';
import { checkRulings } from './index';

const KEY = `v=DKIM1; k=rsa; p=${createPublicKey(generateKeyPairSync('rsa', { modulusLength: 2048 }).privateKey)
  .export({ type: 'spki', format: 'der' })
  .toString('base64')}`;
const host = (name: string, more: Partial<HostKnowledge>): HostKnowledge => ({
  name,
  nameservers: [],
  addresses: [],
  aliasTarget: undefined,
  requires: [],
  ...more,
});
const OLD_WEB = host('Old Web', { addresses: ['192.0.2.80', '2001:db8::80'], aliasTarget: 'sites.old.test.' });
const NEW_WEB = host('New Web', { addresses: ['203.0.113.80', '2001:db8:1::80'], aliasTarget: 'sites.new.test.', issuers: ['certs.test'] });
const NEW_DNS = host('New DNS', { nameservers: ['ns1.dns.new.test.', 'ns2.dns.new.test.'] });
const zones = lifelikeZones(quotedText(KEY));

/** What Wanderon proposes for a zone of these lines. */
function proposed({ name, lines }: LifelikeZone): readonly Ruling[] {
  const zone = Name.parse(`${name}.`);
  const file = parseZoneFile(`$TTL 3600\n${lines.join('\n')}\n`, zone);
  expect(file.findings.filter((one) => one.severity === 'error')).toEqual([]);
  return proposeRulings(zone, groupRecords(file.records), { oldWeb: [OLD_WEB], newDns: NEW_DNS, newWeb: NEW_WEB });
}
const said = (name: string, rulings: readonly Ruling[]): Remark[] =>
  checkRulings(
    checkInput(Name.parse(`${name}.`), rulings, {
      oldWeb: [OLD_WEB],
      newWeb: NEW_WEB,
      lacks: ['LOC'],
      ttls: { ttls: [], leastTtl: 60 },
      leaves: { name: 'Old DNS', forwards: ['forward.old.test'] },
    }),
  );

/** A plan in somebody's hands: what they do to a row, by its name below the zone and its type. */
class Plan {
  rows: Ruling[];
  constructor(
    readonly zone: string,
    rulings: readonly Ruling[],
  ) {
    this.rows = [...rulings];
  }
  name(label: string): string {
    return label === '@' ? `${this.zone}.` : `${label}.${this.zone}.`;
  }
  at(label: string, type: string): Ruling | undefined {
    return this.rows.find((row) => row.owner === this.name(label) && row.type === type);
  }
  private put(row: Ruling): void {
    this.rows = [...this.rows.filter((one) => one.owner !== row.owner || one.type !== row.type), { ...row, reason: 'decided by hand' }];
  }
  drop(label: string, type: string): void {
    this.put({ ...this.at(label, type)!, ruling: 'drop', planned: undefined });
  }
  carry(label: string, type: string): void {
    const row = this.at(label, type)!;
    this.put({ ...row, ruling: 'carry', planned: row.found });
  }
  set(label: string, type: string, data: readonly string[], ttl?: number): void {
    this.put(fixedTo(this.rows, this.name(label), type, data, ttl).row!);
  }
  /** The texts of a row with one of them another. */
  text(label: string, is: RegExp, write: (text: string) => string | undefined): void {
    this.set(
      label,
      'TXT',
      this.at(label, 'TXT')!.planned!.data.flatMap((data) => (is.test(data) ? (write(data) ?? []) : [data])),
    );
  }
}

/** A slip of somebody's hand: where it can be made, what it does, what says so, and what is true besides then. */
type Slip = readonly [what: string, needs: string, make: (plan: Plan) => void, code: string, also?: RegExp];
const LEFT = /left-at-old-host|one-spelling|other-family/;
const SLIPS: readonly Slip[] = [
  ['www is forgotten', 'www-a', (p) => p.carry('www', 'A'), 'one-spelling', LEFT],
  ['www is forgotten as an alias', 'www-alias', (p) => p.carry('www', 'CNAME'), 'one-spelling', LEFT],
  ['the apex is forgotten', 'www-alias', (p) => (p.carry('@', 'A'), p.at('@', 'AAAA') && p.carry('@', 'AAAA')), 'one-spelling', LEFT],
  ['IPv6 is forgotten', 'v6', (p) => p.carry('@', 'AAAA'), 'other-family', LEFT],
  ['IPv4 is forgotten', 'v6', (p) => p.carry('@', 'A'), 'other-family', LEFT],
  ['an alias of the old host is forgotten', 'blog', (p) => p.carry('blog', 'CNAME'), 'left-at-old-host'],
  ['the apex becomes an alias', 'v4', (p) => p.set('@', 'CNAME', ['sites.new.test.']), 'alias-at-apex', /alias-beside-data|mail-alias/],
  ['an address beside the alias', 'www-alias', (p) => p.set('www', 'A', ['203.0.113.80']), 'alias-beside-data'],
  ['two aliases', 'www-alias', (p) => p.set('www', 'CNAME', ['sites.new.test.', 'edge.new.test.']), 'alias-twice'],
  ['an alias to itself', 'www-alias', (p) => p.set('www', 'CNAME', [p.name('www')]), 'alias-loop', /dangling/],
  ['the client’s name as target', 'www-alias', (p) => p.set('www', 'CNAME', [p.name('sites')]), 'dangling'],
  [
    'the panel adds the zone to the owner',
    'files',
    (p) => (p.drop('files', 'A'), p.set(`files.${p.zone}`, 'A', ['198.51.100.30'])),
    'doubled-zone',
    /wildcard-answers/,
  ],
  ['the panel adds the zone to the target', 'shop', (p) => p.set('shop', 'CNAME', [p.name('shops.market.test')]), 'dangling'],
  ['the zone twice in MX', 'mail-own', (p) => p.set('@', 'MX', [`10 ${p.name(`mail.${p.zone}`)}`]), 'doubled-zone', /mail-target-gone/],
  ['CAA names somebody else', 'caa', (p) => p.set('@', 'CAA', ['0 issue "else.test"']), 'caa-forbids'],
  ['CAA lets nobody', 'caa', (p) => p.set('@', 'CAA', ['0 issue ";"']), 'caa-forbids'],
  ['MX is deleted', 'mail-post', (p) => p.drop('@', 'MX'), 'mail-gone'],
  ['MX is deleted', 'mail-own', (p) => p.drop('@', 'MX'), 'mail-gone', /spf-void/],
  ['the mail host is deleted', 'mail-own', (p) => p.drop('mail', 'A'), 'mail-target-gone', /dangling/],
  ['the mail host goes with the website', 'mail-own', (p) => p.set('mail', 'A', ['203.0.113.80']), 'mail-target-moves', /tlsa-moves|use-at-web-host/],
  ['the mail host becomes an alias', 'mail-own', (p) => (p.drop('mail', 'A'), p.set('mail', 'CNAME', ['mx1.post.test.'])), 'mail-alias', /tlsa-moves/],
  ['MX as an address', 'mail-own', (p) => p.set('@', 'MX', ['10 198.51.100.25.']), 'address-as-name'],
  ['MX at the apex', 'mail-own', (p) => p.set('@', 'MX', [`10 ${p.name('@')}`]), 'mail-target-moves'],
  ['SPF twice', 'spf-post', (p) => p.set('@', 'TXT', [...p.at('@', 'TXT')!.planned!.data, '"v=spf1 include:spf.new.test -all"']), 'spf-several'],
  ['SPF misspelt', 'spf-post', (p) => p.text('@', /spf1/, (text) => text.replace('include', 'inculde')), 'spf-unreadable'],
  ['SPF cut', 'spf-post', (p) => p.text('@', /spf1/, (text) => text.replace(' -all', '')), 'spf-open'],
  ['SPF for everybody', 'spf-own', (p) => p.text('@', /spf1/, (text) => text.replace('~all', '+all')), 'spf-all'],
  [
    'SPF asks too often',
    'spf-long',
    (p) =>
      p.text('@', /spf1/, (text) =>
        text.replace(
          'v=spf1',
          `v=spf1 ${'a b c d e f g h'
            .split(' ')
            .map((x) => `include:${x}.test`)
            .join(' ')}`,
        ),
      ),
    'spf-lookups',
  ],
  ['SPF is deleted', 'spf-post', (p) => p.text('@', /spf1/, () => undefined), 'mail-policy-gone'],
  ['the DKIM key is cut', 'dkim', (p) => p.set('tide._domainkey', 'TXT', [quotedText(KEY.slice(0, 255))]), 'dkim-unreadable'],
  ['the DKIM key lost a character', 'dkim', (p) => p.set('tide._domainkey', 'TXT', [quotedText(KEY.slice(0, 100) + KEY.slice(101))]), 'dkim-unreadable'],
  ['the DKIM key is deleted', 'dkim', (p) => p.drop('tide._domainkey', 'TXT'), 'mail-policy-gone'],
  ['an alias of a DKIM key is deleted', 'dkim-alias', (p) => p.drop('s2._domainkey', 'CNAME'), 'mail-policy-gone'],
  ['DMARC twice', 'dmarc', (p) => p.set('_dmarc', 'TXT', [...p.at('_dmarc', 'TXT')!.planned!.data, '"v=DMARC1; p=none"']), 'dmarc-several'],
  ['DMARC misspelt', 'dmarc', (p) => p.text('_dmarc', /DMARC/, (text) => text.replace('quarantine', 'quarantaine')), 'dmarc-unreadable'],
  ['DMARC is deleted', 'dmarc', (p) => p.drop('_dmarc', 'TXT'), 'mail-policy-gone'],
  ['a proof is deleted', 'verify', (p) => p.text('@', /site-verification/, () => undefined), 'proof-gone'],
  [
    'a wildcard answers',
    'wild-all',
    (p) => p.drop(p.at('files', 'A') ? 'files' : 'www', p.at('files', 'A') ? 'A' : 'CNAME'),
    'wildcard-answers',
    /one-spelling/,
  ],
  ['a subzone is deleted', 'sub', (p) => p.drop('office', 'NS'), 'subzone-gone'],
  ['its glue is deleted', 'sub-glue', (p) => p.drop('ns1.lab', 'A'), 'no-glue'],
  ['its DS is deleted', 'sub-ds', (p) => p.drop('safe', 'DS'), 'ds-lost'],
  ['data below a cut', 'sub', (p) => p.set('www.office', 'A', ['203.0.113.80']), 'below-cut'],
  ['the telephone is deleted', 'voip', (p) => p.drop('pbx', 'A'), 'dangling'],
  ['the telephone’s service is deleted', 'voip', (p) => p.drop('_sip._udp', 'SRV'), 'service-gone'],
  ['the calendar is deleted', 'calendar', (p) => p.drop('_caldavs._tcp', 'SRV'), 'service-gone'],
  ['autodiscover is deleted', 'mail-post', (p) => p.drop('autodiscover', 'CNAME'), 'service-gone'],
  ['a private address', 'files', (p) => p.set('files', 'A', ['192.168.1.30']), 'special-address'],
  ['a URL as target', 'shop', (p) => p.set('shop', 'CNAME', ['https\\058//shops.market.test.']), 'odd-name'],
  ['a blank in a target', 'shop', (p) => p.set('shop', 'CNAME', ['\\032shops.market.test.']), 'odd-name'],
  ['an address as target', 'shop', (p) => p.set('shop', 'CNAME', ['203.0.113.80.']), 'address-as-name'],
  ['an underscore before a host', 'files', (p) => p.set('_files', 'A', ['198.51.100.30']), 'underscore'],
  ['a wildcard that stands for nothing', 'wild', (p) => p.set('boats.*', 'A', ['198.51.100.7']), 'wildcard-place'],
  ['a week as TTL', 'v4', (p) => p.set('@', 'A', ['203.0.113.80'], 604_800), 'ttl-long'],
  ['no TTL', 'v6', (p) => p.set('@', 'AAAA', ['2001:db8:1::80'], 0), 'ttl-zero', /ttl-under-least/],
  ['a TTL that the host does not take', 'files', (p) => p.set('files', 'A', p.at('files', 'A')!.found!.data, 30), 'ttl-under-least'],
  ['the policy’s host moves', 'mta-sts', (p) => p.set('mta-sts', 'CNAME', ['sites.new.test.']), 'mta-sts-moves'],
  ['a pinned certificate', 'tlsa', (p) => p.set('mail', 'A', ['203.0.113.80']), 'tlsa-moves', /mail-target-moves|use-at-web-host/],
  ['a hint of the old host', 'https', (p) => p.set('files', 'HTTPS', ['1 . alpn="h2" ipv4hint=192.0.2.80']), 'left-at-old-host'],
  ['SPF names the website’s name', 'spf-own', (p) => p.text('@', /spf1/, (text) => text.replace('ip4:198.51.100.25', 'a')), 'spf-moves'],
  ['the mark is deleted', 'bimi', (p) => p.drop('default._bimi', 'TXT'), 'mail-policy-gone'],
  ['the mark’s place is misspelt', 'bimi', (p) => p.text('default._bimi', /BIMI1/, (text) => text.replace('https:', 'http:')), 'bimi-unreadable'],
  ['TLS reports misspelt', 'mta-sts', (p) => p.text('_smtp._tls', /TLSRPT/, (text) => text.replace('mailto:', '')), 'tls-reports-unreadable'],
  ['the policy’s id with a dash', 'mta-sts', (p) => p.text('_mta-sts', /STS/, (text) => text.replace('2026', '2026-')), 'mta-sts-unreadable'],
  ['DMARC reports to no address', 'dmarc', (p) => p.text('_dmarc', /DMARC/, (text) => text.replace('mailto:', '')), 'dmarc-reports'],
  ['SPF includes itself', 'spf-post', (p) => p.text('@', /spf1/, (text) => text.replace('v=spf1', `v=spf1 include:${p.zone}`)), 'spf-itself'],
  [
    'SPF names a name that is not there',
    'spf-post',
    (p) => p.text('@', /spf1/, (text) => text.replace('v=spf1', `v=spf1 a:${p.zone.replace(/^/, 'maill.')}`)),
    'spf-void',
  ],
  ['a null MX beside the others', 'mail-post', (p) => p.set('@', 'MX', [...p.at('@', 'MX')!.planned!.data, '0 .']), 'mx-null-beside'],
  ['the keys of signing are typed', 'v4', (p) => p.set('@', 'CDS', [`4711 13 2 ${'c3'.repeat(32)}`]), 'signing-carried'],
  [
    'a nameserver of the subzone is an alias',
    'sub',
    (p) => (p.set('ns-a', 'CNAME', ['ns1.else.test.']), p.set('office', 'NS', [p.name('ns-a'), 'ns2.else.test.'])),
    'server-alias',
  ],
  ['a nameserver of the subzone is misspelt', 'sub', (p) => p.set('office', 'NS', [p.name('ns9'), 'ns2.else.test.']), 'server-gone', /wildcard-answers/],
  [
    'a hundred addresses',
    'files',
    (p) =>
      p.set(
        'files',
        'A',
        Array.from({ length: 100 }, (_, index) => `198.51.100.${index}`),
      ),
    'large-answer',
  ],
  ['names below are renamed as a whole', 'files', (p) => (p.set('old', 'DNAME', ['else.test.']), p.set('a.old', 'A', ['198.51.100.30'])), 'below-dname'],
  ['mail through a service that ends', 'mail-post', (p) => p.set('@', 'MX', ['10 mx.forward.old.test.']), 'forwarding-ends'],
];
const words = (one: Remark): string => `${one.weight} ${one.code} ${one.owner} ${one.type} ${one.text}`;
const plans = zones.map((zone) => ({ zone, rulings: proposed(zone) }));

describe('forty lifelike zones as they are proposed', () => {
  it.each(plans)('$zone.name: nothing false stops it, and at most one thing is to be looked at for nothing', ({ zone, rulings }) => {
    // What cannot be held by this host is true.
    const remarks = said(zone.name, rulings).filter((one) => one.code !== 'cannot-hold');
    expect(remarks.filter((one) => one.weight === 'stop').map(words)).toEqual([]);
    expect(remarks.map(words).slice(1)).toEqual([]);
  });
});

describe('slips seeded in forty lifelike zones', () => {
  const seeded = SLIPS.flatMap(([what, needs, make, code, also]) =>
    plans
      .filter(({ zone }) => zone.parts.has(needs) && (code !== 'wildcard-answers' || zone.parts.has('files') || zone.parts.has('www-apex')))
      .slice(0, 6)
      .map((plan) => ({ ...plan, what, make, code, also, name: plan.zone.name })),
  );

  it.each(seeded)('$what in $name is told as $code, and nothing false beside it', ({ zone, rulings, make, code, also }) => {
    const plan = new Plan(zone.name, rulings);
    make(plan);
    const before = new Set(said(zone.name, rulings).map(words));
    const fresh = said(zone.name, plan.rows).filter((one) => !before.has(words(one)));
    expect(fresh.map((one) => one.code)).toContain(code);
    expect(fresh.filter((one) => one.code !== code && !also?.test(one.code)).map(words)).toEqual([]);
  });

  it('are about two hundred', () => {
    expect(zones).toHaveLength(40);
    expect(seeded.length).toBeGreaterThan(200);
  });
});
