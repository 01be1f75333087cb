import { createPublicKey, generateKeyPairSync } from 'node:crypto';
import { Name } from '../../dns/name';
import { HostKnowledge } from '../host';
import { Ruling, RulingKind } from '../ruling';
import { checkRulings } from './index';

const ZONE = Name.parse('zone.test.');
const OLD_WEB: HostKnowledge = { name: 'Old Web', nameservers: [], addresses: ['198.51.100.80', '2001:db8::80'], aliasTarget: 'sites.old.test.', requires: [] };
/** A key of signatures as it stands in a record. */
const key = (bits: number): string =>
  createPublicKey(generateKeyPairSync('rsa', { modulusLength: bits }).privateKey)
    .export({ type: 'spki', format: 'der' })
    .toString('base64');
const [KEY, SHORT] = [key(1024), key(512)];

/**
 * A row of a plan in one line: `carry www A 192.0.2.1`, `repoint @ A 192.0.2.1 > 192.0.2.2`, `drop x TXT "y"`, `new x A 192.0.2.3`; several
 * values are parted by `|`, and `!` at the end says that a person ruled it so.
 */
function row(line: string): Ruling {
  const byHand = line.endsWith(' !');
  const [, kind, label, type, rest] = /^(\w+) (\S+) (\S+) (.*?)(?: !)?$/s.exec(line) as unknown as [string, RulingKind, string, string, string];
  const owner = Name.parse(label, ZONE).toString();
  const [before, after] =
    kind === 'new' ? [undefined, rest] : kind === 'repoint' ? (rest.split(' > ') as [string, string]) : [rest, kind === 'drop' ? undefined : rest];
  const set = (text: string | undefined): Ruling['found'] => (text === undefined ? undefined : { owner, type, ttl: 3600, data: text.split(' | ') });
  return { owner, type, ruling: kind, found: set(before), planned: set(after), reason: byHand ? 'decided by hand' : '' };
}
const codes = (...lines: string[]): string[] => {
  const rulings = lines.map(row);
  const leaves = { name: 'Old DNS', forwards: [] };
  return checkRulings({ zone: ZONE, rulings, oldWeb: [OLD_WEB], fronted: [], lacks: [], leaves, edge: undefined }).map(
    (one) => `${one.weight} ${one.code} ${one.owner} ${one.type}`,
  );
};
/** Codes alone, those of `only`. */
const of = (code: RegExp, lines: readonly string[]): string[] =>
  codes(...lines).flatMap((one) => (code.test(one) ? [one.split(' ').slice(0, 2).join(' ')] : []));

describe('each check sees its slip, and lets near misses be', () => {
  it.each<[string, RegExp, readonly string[], readonly string[]]>([
    ['a website that leads nowhere', /leads-nowhere/, ['drop @ A 198.51.100.80', 'drop @ AAAA 2001:db8::80'], ['stop leads-nowhere']],
    ['an alias of the website that goes', /leads-nowhere/, ['drop www CNAME sites.old.test.'], ['stop leads-nowhere']],
    ['one family that goes while the other leads on', /leads-nowhere/, ['drop @ AAAA 2001:db8::80', 'repoint @ A 198.51.100.80 > 203.0.113.80'], []],
    ['addresses that give way to an alias', /leads-nowhere/, ['drop www A 198.51.100.80', 'new www CNAME sites.new.test.'], ['stop leads-nowhere'].slice(1)],
    ['a name that somebody drops', /leads-nowhere/, ['drop old A 198.51.100.80 !'], []],
    ['a name that led elsewhere', /leads-nowhere/, ['drop x A 192.0.2.9'], []],
    ['a dropped name that a wildcard answers', /wildcard-answers/, ['drop shop A 192.0.2.9', 'carry * A 192.0.2.1'], ['look wildcard-answers']],
    ['a dropped name of another type than the wildcard', /wildcard-answers/, ['drop shop A 192.0.2.9', 'carry * TXT "x"'], []],
    ['a dropped name whose other data stays', /wildcard-answers/, ['drop shop A 192.0.2.9', 'carry shop TXT "x"', 'carry * A 192.0.2.1'], []],
    ['mail whose MX goes', /mail-gone/, ['drop @ MX 10 mx.post.test.', 'carry @ A 192.0.2.1'], ['look mail-gone']],
    ['a null MX that goes', /mail-gone/, ['drop @ MX 0 .'], []],
    ['an MX that is another', /mail-gone/, ['repoint @ MX 10 a.post.test. > 10 b.post.test.'], []],
    [
      'mail to a domain without MX, whose website moves',
      /mail-at-name/,
      ['repoint @ A 198.51.100.80 > 203.0.113.80', 'carry @ TXT "v=spf1 a -all"'],
      ['look mail-at-name'],
    ],
    ['no sign of mail', /mail-at-name/, ['repoint @ A 198.51.100.80 > 203.0.113.80', 'carry @ TXT "v=spf1 -all"'], []],
    ['mail with an MX', /mail-at-name/, ['repoint @ A 198.51.100.80 > 203.0.113.80', 'carry @ MX 10 mx.post.test.', 'carry s._domainkey TXT "p="'], []],
    ['two SPF records', /spf-several/, ['carry @ TXT "v=spf1 mx -all" | "v=spf1 a -all"'], ['stop spf-several']],
    ['one SPF record among other texts', /spf/, ['carry @ TXT "v=spf1 mx -all" | "spf is fine"'], []],
    ['SPF that cannot be read', /spf/, ['carry @ TXT "v=spf1 inculde:x.test -all"'], ['look spf-unreadable']],
    [
      'SPF with eleven lookups',
      /spf/,
      [`carry @ TXT "v=spf1 ${Array.from({ length: 11 }, (_, i) => `include:s${i}.test`).join(' ')} -all"`],
      ['look spf-lookups'],
    ],
    ['SPF with ten lookups', /spf/, [`carry @ TXT "v=spf1 ${Array.from({ length: 10 }, (_, i) => `include:s${i}.test`).join(' ')} -all"`], []],
    ['SPF without an end', /spf/, ['carry @ TXT "v=spf1 mx"'], ['look spf-open']],
    ['SPF that goes on elsewhere', /spf/, ['carry @ TXT "v=spf1 redirect=_spf.post.test"'], []],
    ['SPF for everybody', /spf/, ['carry @ TXT "v=spf1 +all"'], ['look spf-all']],
    ['SPF in two strings', /spf/, ['carry @ TXT "v=spf1 mx " "-all"'], []],
    [
      'SPF that lets the moving website send',
      /spf-moves/,
      ['repoint @ A 198.51.100.80 > 203.0.113.80', 'carry @ TXT "v=spf1 a/24 mx -all"'],
      ['look spf-moves'],
    ],
    [
      'SPF that names another moving name',
      /spf-moves/,
      ['repoint www A 198.51.100.80 > 203.0.113.80', 'carry @ TXT "v=spf1 a:WWW.zone.test -all"'],
      ['look spf-moves'],
    ],
    ['SPF of what stays', /spf-moves/, ['repoint www A 198.51.100.80 > 203.0.113.80', 'carry @ TXT "v=spf1 a:mail.zone.test mx -all"'], []],
    ['a DKIM key that is cut', /dkim/, [`carry s._domainkey TXT "v=DKIM1; p=${KEY.slice(0, 200)}"`], ['look dkim-unreadable']],
    ['a DKIM key of 512 bits', /dkim/, [`carry s._domainkey TXT "v=DKIM1; p=${SHORT}"`], ['look dkim-short']],
    ['a DKIM key in two strings', /dkim/, [`carry s._domainkey TXT "v=DKIM1; k=rsa; p=${KEY.slice(0, 100)}" "${KEY.slice(100)}"`], []],
    [
      'a DKIM key that was revoked, and a text that is none',
      /dkim/,
      ['carry s._domainkey TXT "v=DKIM1; p="', 'carry _domainkey TXT "o=~"', 'carry t._domainkey TXT "o=-"'],
      [],
    ],
    ['two DMARC policies', /dmarc/, ['carry _dmarc TXT "v=DMARC1; p=none" | "v=DMARC1; p=reject"'], ['look dmarc-several']],
    ['a DMARC policy that cannot be read', /dmarc/, ['carry _dmarc TXT "v=DMARC1; p=stop"'], ['look dmarc-unreadable']],
    ['a DMARC policy without its version', /dmarc/, ['carry _dmarc TXT "p=none"'], ['look dmarc-unreadable']],
    ['a DMARC policy that is right', /dmarc/, ['carry _dmarc TXT "v=DMARC1; p=quarantine; rua=mailto:a@zone.test"'], []],
    ['a proof that goes', /proof-gone/, ['drop @ TXT "site-verification=7f3a21c9"'], ['look proof-gone']],
    ['a proof that goes from beside others', /proof-gone/, ['repoint @ TXT "v=spf1 mx -all" | "site-verification=7" > "v=spf1 mx -all"'], ['look proof-gone']],
    ['a text that goes and is no proof', /proof-gone/, ['drop @ TXT "hello"'], []],
    ['an alias to a name that is not there', /dangling/, ['carry www CNAME web.zone.test.'], ['look dangling']],
    ['a service at a name that goes', /dangling/, ['carry _sip._tcp SRV 0 0 5060 pbx.zone.test.', 'drop pbx A 192.0.2.1'], ['look dangling']],
    [
      'an alias to what a wildcard answers, a subzone, a key, and elsewhere',
      /dangling/,
      [
        ...['carry a CNAME any.w.zone.test.', 'carry *.w A 192.0.2.1', 'carry b CNAME x.sub.zone.test.', 'carry sub NS ns.else.test.'],
        ...['carry s._domainkey CNAME key.zone.test.', 'carry key TXT "v=DKIM1; p="', 'carry c CNAME web.else.test.', 'carry _no._tcp SRV 0 0 0 .'],
      ],
      [],
    ],
    ['a subzone whose server has no address', /no-glue/, ['carry sub NS ns.sub.zone.test.'], ['stop no-glue']],
    ['a subzone with glue', /no-glue|below-cut/, ['carry sub NS ns.sub.zone.test.', 'carry ns.sub A 192.0.2.1'], []],
    ['a signed subzone that loses its DS', /ds-lost/, ['carry sub NS ns.else.test.', `drop sub DS 1 13 2 ${'0'.repeat(64)}`], ['look ds-lost']],
    ['a subzone that keeps its DS', /ds-lost|below-cut/, ['carry sub NS ns.else.test.', `carry sub DS 1 13 2 ${'0'.repeat(64)}`], []],
    ['data below a cut', /below-cut/, ['carry sub NS ns.else.test.', 'carry www.sub A 192.0.2.1'], ['look below-cut']],
    ['data at a cut', /below-cut/, ['carry sub NS ns.else.test.', 'carry sub A 192.0.2.1'], ['look below-cut']],
    ['data beside a cut', /below-cut/, ['carry sub NS ns.else.test.', 'carry subs A 192.0.2.1'], []],
    ['an address of a private network', /special/, ['carry nas A 192.168.1.4'], ['look special-address']],
    ['an address beside private ones', /special/, ['carry nas A 172.32.0.1 | 11.0.0.1', 'carry v AAAA 2001:db8::1'], []],
    ['a URL that was pasted', /odd-name/, ['carry https\\058//www A 192.0.2.1'], ['look odd-name']],
    [
      'a policy for mail whose host moves',
      /mta-sts/,
      ['carry _mta-sts TXT "v=STSv1; id=1"', 'repoint mta-sts CNAME sites.old.test. > sites.new.test.'],
      ['look mta-sts-moves'],
    ],
    ['a policy for mail whose host stays', /mta-sts/, ['carry _mta-sts TXT "v=STSv1; id=1"', 'carry mta-sts CNAME policy.post.test.'], []],
    ['a host of that name without a policy', /mta-sts/, ['repoint mta-sts A 198.51.100.80 > 203.0.113.80'], []],
    [
      'an address where a name is wanted',
      /address-as-name/,
      ['carry www CNAME 192.0.2.7.', 'carry @ MX 10 192.0.2.7'],
      ['look address-as-name', 'look address-as-name'],
    ],
    ['a name of numbers that is no address', /address-as-name/, ['carry www CNAME 7.2.0.else.test.'], []],
    ['a blank in a target', /odd-name/, ['carry www CNAME sites\\032new.test.'], ['look odd-name']],
    [
      'names with digits, dashes and underscores',
      /odd-name|underscore|wildcard-place/,
      ['carry a-1 A 192.0.2.1', 'carry _x TXT "y"', 'carry *.b A 192.0.2.1', 'carry _d CNAME x.test.'],
      [],
    ],
    ['a wildcard in the wrong place', /wildcard-place/, ['carry a.* A 192.0.2.1'], ['look wildcard-place']],
    ['a wildcard with more in its label', /wildcard-place/, ['carry *shop A 192.0.2.1'], ['look wildcard-place']],
    ['an underscore before a host', /underscore/, ['carry _shop A 192.0.2.1'], ['look underscore']],
    [
      'a pinned certificate whose host moves',
      /tlsa/,
      ['repoint @ A 198.51.100.80 > 203.0.113.80', `carry _443._tcp TLSA 3 1 1 ${'0'.repeat(64)}`],
      ['look tlsa-moves'],
    ],
    [
      'a pinned certificate whose host stays',
      /tlsa/,
      ['repoint @ A 198.51.100.80 > 203.0.113.80', `carry _25._tcp.mail TLSA 3 1 1 ${'0'.repeat(64)}`, 'carry mail A 192.0.2.1'],
      [],
    ],
    ['proofs that something writes', /automation/, ['carry _acme-challenge TXT "token"'], ['look automation']],
    ['proofs that are written elsewhere', /automation/, ['carry _acme-challenge CNAME zone.certs.test.'], []],
    ['a hint that leads to the old host', /left-at/, ['carry @ HTTPS 1 . ipv4hint=198.51.100.80'], ['look left-at-old-host']],
    ['a hint that does not', /left-at/, ['carry @ HTTPS 1 . ipv4hint=198.51.100.8'], []],
  ])('%s', (_what, code, lines, expected) => {
    expect(of(code, lines)).toEqual(expected);
  });

  it('TTLs of what changes', () => {
    const at = (ttl: number, kind: 'repoint' | 'carry'): string[] => {
      const one = row(kind === 'repoint' ? 'repoint www A 192.0.2.1 > 192.0.2.2' : 'carry www A 192.0.2.1');
      const rulings = [{ ...one, planned: { ...one.planned!, ttl } }];
      return checkRulings({ zone: ZONE, rulings, oldWeb: [], fronted: [], lacks: [], leaves: undefined, edge: undefined }).map((remark) => remark.code);
    };
    expect([at(0, 'repoint'), at(86_401, 'repoint'), at(86_400, 'repoint'), at(0, 'carry'), at(604_800, 'carry')]).toEqual([
      ['ttl-zero'],
      ['ttl-long'],
      [],
      [],
      [],
    ]);
  });
});

it('nothing is said of a lifelike plan in which nothing is wrong', () => {
  expect(
    codes(
      ...['repoint @ A 198.51.100.80 > 203.0.113.80', 'repoint @ AAAA 2001:db8::80 > 2001:db8:1::80', 'repoint www CNAME sites.old.test. > sites.new.test.'],
      ...['carry @ MX 10 mx1.post.test. | 20 mx2.post.test.', 'carry @ TXT "v=spf1 include:spf.post.test -all" | "site-verification=7f3a21c9"'],
      ...[
        `carry tide._domainkey TXT "v=DKIM1; k=rsa; p=${KEY.slice(0, 120)}" "${KEY.slice(120)}"`,
        'carry _dmarc TXT "v=DMARC1; p=quarantine; rua=mailto:post@zone.test"',
      ],
      ...['carry _smtp._tls TXT "v=TLSRPTv1; rua=mailto:reports@post.test"', 'carry mail A 198.51.100.25', 'carry autoconfig CNAME autoconfig.post.test.'],
      ...['carry _imaps._tcp SRV 0 1 993 imap.post.test.', 'carry @ CAA 0 issue "certs.test"', 'new _proof TXT "site=zone.test"', 'carry *.boats A 192.0.2.7'],
      ...['carry sub NS ns1.else.test. | ns2.else.test.', 'drop old A 192.0.2.9 !', 'carry _acme-challenge CNAME zone.certs.test.'],
    ),
  ).toEqual([]);
});
