import { createPublicKey, generateKeyPairSync } from 'node:crypto';
import { Name } from '../../dns/name';
import { HostKnowledge } from '../host';
import { checkInput, planLine } from '../../testing/planLine';
import { Ruling, VARIES } from '../ruling';
import { overlaid } from '../rowWords';
import { Remark } from './check';
import { checkRulings } from './index';

const ZONE = Name.parse('zone.test.');
const OLD_WEB: HostKnowledge = { name: 'Old Web', nameservers: [], addresses: ['198.51.100.80', '2001:db8::80'], aliasTarget: 'sites.old.test.', requires: [] };
/** A key of signatures as it stands in a record. */
const key = (bits: number): string =>
  createPublicKey(generateKeyPairSync('rsa', { modulusLength: bits }).privateKey)
    .export({ type: 'spki', format: 'der' })
    .toString('base64');
const [KEY, SHORT] = [key(1024), key(512)];

const NEW_WEB: HostKnowledge = {
  name: 'New Web',
  nameservers: [],
  addresses: ['203.0.113.80', '2001:db8:1::80'],
  aliasTarget: 'sites.new.test.',
  requires: [],
  issuers: ['certs.test'],
};
const row = (line: string): Ruling => planLine(ZONE, line);
const said = (rulings: readonly Ruling[], newWeb: HostKnowledge | undefined = NEW_WEB): Remark[] =>
  checkRulings(checkInput(ZONE, rulings, { oldWeb: [OLD_WEB], newWeb, leaves: { name: 'Old DNS', forwards: [] } }));
const codes = (...lines: string[]): string[] => said(lines.map(row)).map((one) => `${one.weight} ${one.code} ${one.owner} ${one.type}`);
/** Codes alone, those of `only`. */
const of = (code: RegExp, lines: readonly string[]): string[] =>
  codes(...lines).flatMap((one) => (code.test(one) ? [one.split(' ').slice(0, 2).join(' ')] : []));

const PLANS: readonly [string, RegExp, readonly string[], readonly string[]][] = [
  ['a website that leads nowhere', /leads-nowhere/, ['drop @ A 198.51.100.80', 'drop @ AAAA 2001:db8::80'], ['stop leads-nowhere']],
  ['an alias of the website that goes', /leads-nowhere/, ['drop www CNAME sites.old.test.'], ['stop leads-nowhere']],
  ['one family that goes while the other leads on', /leads-nowhere/, ['drop @ AAAA 2001:db8::80', 'repoint @ A 198.51.100.80 > 203.0.113.80'], []],
  ['addresses that give way to an alias', /leads-nowhere/, ['drop www A 198.51.100.80', 'new www CNAME sites.new.test.'], ['stop leads-nowhere'].slice(1)],
  ['a name that somebody drops', /leads-nowhere/, ['drop old A 198.51.100.80 !'], []],
  ['a website below a cut that is new', /leads-nowhere/, ['drop www.shop A 198.51.100.80', 'new shop NS ns.post.test.'], []],
  ['a name that led elsewhere', /leads-nowhere/, ['drop x A 192.0.2.9'], []],
  ['a dropped name that a wildcard answers', /wildcard-answers/, ['drop shop A 192.0.2.9', 'carry * A 192.0.2.1'], ['look wildcard-answers']],
  ['a dropped name of another type than the wildcard', /wildcard-answers/, ['drop shop A 192.0.2.9', 'carry * TXT "x"'], []],
  ['a dropped text at a name that a wildcard leads from then on', /wildcard-answers/, ['drop shop TXT "x"', 'carry * A 192.0.2.1'], ['look wildcard-answers']],
  ['a dropped name whose other data stays', /wildcard-answers/, ['drop shop A 192.0.2.9', 'carry shop TXT "x"', 'carry * A 192.0.2.1'], []],
  ['mail whose MX goes', /mail-gone/, ['drop @ MX 10 mx.post.test.', 'carry @ A 192.0.2.1'], ['look mail-gone']],
  ['a null MX beside a mail host', /mx-null/, ['carry @ MX 0 . | 10 mx.post.test.'], ['look mx-null-beside']],
  ['a null MX alone', /mx-null/, ['carry @ MX 0 .'], []],
  ['keys for the parent that are typed', /signing/, [`new @ CDS 4711 13 2 ${'ab'.repeat(32)}`], ['look signing-carried']],
  ['keys for the parent that stay behind', /signing/, [`drop @ CDS 4711 13 2 ${'ab'.repeat(32)}`], []],
  ['SSH keys of a host that moves', /sshfp/, ['repoint www A 198.51.100.80 > 203.0.113.80', `carry www SSHFP 1 1 ${'ab'.repeat(20)}`], ['look sshfp-moves']],
  ['SSH keys of a host that stays', /sshfp/, ['carry www A 192.0.2.1', `carry www SSHFP 1 1 ${'ab'.repeat(20)}`], []],
  ['data below a DNAME', /below-dname/, ['carry sub DNAME other.test.', 'carry www.sub A 192.0.2.1'], ['look below-dname']],
  [
    'data at a DNAME, and one that goes',
    /below-dname/,
    ['carry sub DNAME other.test.', 'carry sub TXT "x"', 'drop old DNAME x.test.', 'carry a.old A 192.0.2.1'],
    [],
  ],
  ['a subzone whose nameserver is an alias', /server-/, ['carry sub NS ns.zone.test.', 'carry ns CNAME x.test.'], ['look server-alias']],
  ['a subzone whose nameserver has no address', /server-/, ['carry sub NS ns.zone.test. | ns.else.test.'], ['look server-gone']],
  [
    'a subzone whose nameserver has one, or stands in another subzone',
    /server-/,
    ['carry sub NS ns.zone.test. | ns.two.zone.test.', 'carry ns A 192.0.2.1', 'carry two NS ns.else.test.'],
    [],
  ],
  ['SPF that names what goes', /spf-void/, ['carry @ TXT "v=spf1 a:old.zone.test -all"', 'drop old A 192.0.2.1'], ['look spf-void']],
  ['SPF that names what never was', /spf-void/, ['carry @ TXT "v=spf1 a:old.zone.test mx -all"'], []],
  ['SPF that is new and names what is not there', /spf-void/, ['new @ TXT "v=spf1 include:_spf.zone.test a:x.else.test -all"'], ['look spf-void']],
  [
    'SPF that leads on within the zone',
    /spf-(void|itself)/,
    ['new @ TXT "v=spf1 include:_spf.zone.test -all"', 'new _spf TXT "v=spf1 ip4:192.0.2.1 ~all"'],
    [],
  ],
  ['SPF that leads on by an alias', /spf-void/, ['new @ TXT "v=spf1 include:_spf.zone.test -all"', 'carry _spf CNAME spf.post.test.'], []],
  ['SPF that leads back to itself', /spf-itself/, ['carry @ TXT "v=spf1 redirect=zone.test"'], ['look spf-itself']],
  [
    'SPF that leads back to itself by another record',
    /spf-itself/,
    ['carry @ TXT "v=spf1 include:_a.zone.test -all"', 'carry _a TXT "v=spf1 redirect=ZONE.test"'],
    ['look spf-itself', 'look spf-itself'],
  ],
  [
    'SPF that leads into a circle',
    /spf-itself/,
    ['carry @ TXT "v=spf1 include:_a.zone.test -all"', 'carry _a TXT "v=spf1 include:_b.zone.test ?all"', 'carry _b TXT "v=spf1 include:_a.zone.test ?all"'],
    ['look spf-itself', 'look spf-itself', 'look spf-itself'],
  ],
  ['SPF with a redirect that nobody looks at', /spf/, ['carry @ TXT "v=spf1 mx -all redirect=zone.test"'], []],
  [
    'SPF that includes the same twice',
    /spf-(itself|lookups)/,
    ['carry @ TXT "v=spf1 include:_a.zone.test include:_b.zone.test -all"', 'carry _a TXT "v=spf1 include:_b.zone.test ?all"', 'carry _b TXT "v=spf1 mx ?all"'],
    [],
  ],
  [
    'SPF in parts that ask eleven times together, and in parts that ask ten',
    /spf-lookups/,
    [
      'carry @ TXT "v=spf1 include:_a.zone.test include:_b.zone.test -all"',
      `carry _a TXT "v=spf1 ${Array.from({ length: 5 }, (_, i) => `include:a${i}.test`).join(' ')} ?all"`,
      `carry _b TXT "v=spf1 ${Array.from({ length: 4 }, (_, i) => `include:b${i}.test`).join(' ')} ?all"`,
      'carry news TXT "v=spf1 include:_a.zone.test include:_c.zone.test -all"',
      'carry _c TXT "v=spf1 a mx exists:x.test ?all"',
    ],
    ['look spf-lookups'],
  ],
  [
    'SPF that doubles with each part',
    /spf-(lookups|itself)/,
    Array.from({ length: 30 }, (_, i) => `carry ${i === 0 ? '@' : `_${i}`} TXT "v=spf1 include:_${i + 1}.zone.test include:_${i + 1}.zone.test -all"`),
    // The last one asks twice, the one before it 6 times, and the one before that 14 times.
    Array.from({ length: 28 }, () => 'look spf-lookups'),
  ],
  ['SPF with a macro', /spf-(void|itself)/, ['new @ TXT "v=spf1 a:%{d} exists:%{i}.zone.test -all"'], []],
  ['mail below a cut that is new', /mail-gone/, ['drop in.shop MX 10 mx.post.test.', 'new shop NS ns.post.test.'], []],
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
  ['CAA that lets others only', /caa/, ['repoint www A 198.51.100.80 > 203.0.113.80', 'carry @ CAA 0 issue "other.test"'], ['stop caa-forbids']],
  [
    'CAA of the name itself, before that above it',
    /caa/,
    ['repoint a.www A 198.51.100.80 > 203.0.113.80', 'carry www CAA 0 issue "Certs.test; account=7"', 'carry @ CAA 0 issue "other.test"'],
    [],
  ],
  ['CAA that lets nobody', /caa/, ['carry www CNAME sites.new.test.', 'carry @ CAA 0 issue ";"'], ['stop caa-forbids']],
  [
    'CAA that lets nobody make one for wildcards',
    /caa/,
    ['repoint *.b A 198.51.100.80 > 203.0.113.80', 'carry @ CAA 0 issue "certs.test" | 0 issuewild ";"'],
    ['stop caa-forbids'],
  ],
  ['CAA for wildcards where none leads there', /caa/, ['carry b A 203.0.113.80', 'carry @ CAA 0 issue "certs.test" | 0 issuewild ";"'], []],
  ['CAA with a property that nobody knows', /caa/, ['carry b A 203.0.113.80', 'carry @ CAA 128 tbs "x"'], ['stop caa-forbids']],
  ['CAA with such a property that need not be known', /caa/, ['carry b A 203.0.113.80', 'carry @ CAA 0 tbs "x" | 0 iodef "mailto:it@zone.test"'], []],
  ['CAA and a name that leads elsewhere', /caa/, ['carry b A 192.0.2.9', 'carry @ CAA 0 issue "other.test"'], []],
  ['CAA that goes', /caa/, ['carry b A 203.0.113.80', 'drop @ CAA 0 issue "other.test"'], []],
  ['a mail host that gets another address', /reverse/, ['carry @ MX 10 MAIL.zone.test.', 'repoint mail A 192.0.2.1 > 192.0.2.2'], ['look reverse-name']],
  [
    'a mail host that keeps its addresses, and one elsewhere',
    /reverse/,
    ['carry @ MX 10 mail.zone.test. | 20 mx.post.test.', 'repoint mail A 192.0.2.1 | 192.0.2.2 > 192.0.2.2'],
    [],
  ],
  [
    'a mail host that goes with the website, which is said already',
    /reverse/,
    ['carry @ MX 10 mail.zone.test.', 'repoint mail A 192.0.2.1 > 203.0.113.80'],
    [],
  ],
  ['another host that gets another address', /reverse/, ['carry @ MX 10 mail.zone.test.', 'carry mail A 192.0.2.1', 'repoint www A 192.0.2.1 > 192.0.2.2'], []],
  ['SPF without an end', /spf/, ['carry @ TXT "v=spf1 mx"'], ['look spf-open']],
  ['SPF that goes on elsewhere', /spf/, ['carry @ TXT "v=spf1 redirect=_spf.post.test"'], []],
  ['SPF for everybody', /spf/, ['carry @ TXT "v=spf1 +all"'], ['look spf-all']],
  ['SPF in two strings', /spf/, ['carry @ TXT "v=spf1 mx " "-all"'], []],
  ['SPF that lets the moving website send', /spf-moves/, ['repoint @ A 198.51.100.80 > 203.0.113.80', 'carry @ TXT "v=spf1 a/24 mx -all"'], ['look spf-moves']],
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
  ['a family that stays behind', /other-family/, ['repoint @ A 198.51.100.80 > 203.0.113.80', 'carry @ AAAA 2001:db8::9'], ['look other-family']],
  ['an alias at the apex', /alias-at-apex/, ['repoint @ CNAME sites.old.test. > sites.new.test.'], ['stop alias-at-apex']],
  ['an alias beside an address', /alias-beside/, ['carry www CNAME x.test.', 'new www A 203.0.113.80'], ['stop alias-beside-data']],
  ['an alias beside a text', /alias-beside/, ['carry www CNAME x.test.', 'carry www TXT "y"'], ['stop alias-beside-data']],
  ['www that stays behind', /one-spelling/, ['repoint @ A 198.51.100.80 > 203.0.113.80', 'carry www A 198.51.100.9'], ['look one-spelling']],
  ['an apex that stays behind', /one-spelling/, ['carry @ A 198.51.100.9', 'repoint www CNAME sites.old.test. > sites.new.test.'], ['look one-spelling']],
  [
    'www that stays behind with a text beside it',
    /one-spelling/,
    ['repoint @ A 198.51.100.80 > 203.0.113.80', 'carry www A 198.51.100.9', 'carry www TXT "y"'],
    ['look one-spelling'],
  ],
  ['www that follows the apex', /one-spelling/, ['repoint @ A 198.51.100.80 > 203.0.113.80', 'carry www CNAME zone.test.'], []],
  ['an address of the old host', /left-at/, ['carry shop A 198.51.100.80'], ['look left-at-old-host']],
  ['addresses of the old host and of another', /left-at/, ['carry shop A 198.51.100.80 | 192.0.2.7'], ['look left-at-old-host']],
  ['a name for mail at the old host', /left-at/, ['carry @ MX 10 mx.zone.test.', 'new mx A 198.51.100.80'], ['look left-at-old-host']],
  [
    'the website’s own name for mail at the old host',
    /left-at/,
    ['carry @ MX 10 zone.test. | 20 mx.post.test.', 'carry @ A 198.51.100.80', 'carry @ AAAA 2001:db8::80'],
    ['stop left-at-old-host', 'stop left-at-old-host'],
  ],
  ['an alias of the old host', /left-at/, ['carry shop CNAME a.sites.old.test.'], ['look left-at-old-host']],
  ['mail to an alias', /mail-alias/, ['carry @ MX 10 m.zone.test.', 'carry m CNAME mx.post.test.'], ['look mail-alias']],
  ['mail to a name that goes', /mail-target/, ['carry @ MX 10 m.zone.test.', 'drop m A 192.0.2.25'], ['stop mail-target-gone']],
  ['mail to a name that never was', /mail-target/, ['carry @ MX 10 m.zone.test.'], ['stop mail-target-gone']],
  ['mail to a name for which a wildcard answers', /mail-/, ['carry @ MX 10 m.in.zone.test.', 'carry * A 192.0.2.25'], []],
  [
    'mail to a name that a text keeps from the wildcard',
    /mail-/,
    ['carry @ MX 10 m.zone.test.', 'carry * A 192.0.2.25', 'carry m TXT "x"'],
    ['stop mail-target-gone'],
  ],
  [
    'mail to a name for which a wildcard answers that moves',
    /mail-/,
    ['carry @ MX 10 m.in.zone.test.', 'repoint * A 198.51.100.80 > 203.0.113.80'],
    ['stop mail-target-moves'],
  ],
  ['mail to a name that a wildcard makes an alias', /mail-/, ['carry @ MX 10 m.zone.test.', 'carry * CNAME mx.post.test.'], ['look mail-alias']],
  ['mail to a name below a cut, of which another zone knows', /mail-/, ['carry @ MX 10 m.sub.zone.test.', 'carry sub NS ns.post.test.'], []],
  [
    'mail to the apex, which moves',
    /mail-target/,
    ['carry @ MX 10 zone.test. | 20 mx.post.test.', 'repoint @ A 198.51.100.80 > 203.0.113.80', 'carry mail A 192.0.2.4'],
    ['stop mail-target-moves'],
  ],
  ['mail to a name that stays', /mail-t/, ['carry @ MX 10 mail.zone.test.', 'carry mail A 192.0.2.25', 'repoint @ A 198.51.100.80 > 203.0.113.80'], []],
  ['an owner that holds the zone twice', /doubled/, ['carry www.zone.test A 192.0.2.1'], ['look doubled-zone']],
  ['a target that holds the zone twice', /doubled/, ['carry www CNAME web.zone.test.zone.test.'], ['look doubled-zone']],
  ['an alias that leads to itself', /alias-loop/, ['carry www CNAME www.zone.test.'], ['stop alias-loop']],
  [
    'aliases in a circle',
    /alias-loop/,
    ['carry a CNAME B.zone.test.', 'carry b CNAME a.zone.test.', 'carry c CNAME a.zone.test.'],
    ['stop alias-loop', 'stop alias-loop'],
  ],
  ['aliases in a row', /alias-loop/, ['carry a CNAME b.zone.test.', 'carry b CNAME c.zone.test.', 'drop c CNAME a.zone.test. !'], []],
  ['a subzone that goes', /subzone-gone/, ['drop sub NS ns.else.test. !'], ['look subzone-gone']],
  ['a key of signatures that goes', /-gone/, ['drop s._domainkey TXT "v=DKIM1; p=" !'], ['look mail-policy-gone']],
  ['a policy that goes', /-gone/, ['drop _dmarc TXT "v=DMARC1; p=none" !'], ['look mail-policy-gone']],
  ['SPF that goes from beside another text', /-gone/, ['repoint @ TXT "v=spf1 mx -all" | "hello" > "hello"'], ['look mail-policy-gone']],
  ['SPF that is another', /-gone/, ['repoint @ TXT "v=spf1 mx -all" > "v=spf1 a -all"'], []],
  [
    'a service that goes',
    /-gone/,
    ['drop _imaps._tcp SRV 0 1 993 imap.post.test. !', 'drop autodiscover CNAME auto.post.test. !'],
    ['look service-gone', 'look service-gone'],
  ],
  ['a text of no known use, and an address, that go', /-gone/, ['drop x TXT "hello" !', 'drop imap A 192.0.2.1 !'], []],
  ['a hint that does not', /left-at/, ['carry @ HTTPS 1 . ipv4hint=198.51.100.8'], []],
];

describe('each check sees its slip, and lets near misses be', () => {
  it.each(PLANS)('%s', (_what, code, lines, expected) => {
    expect(of(code, lines)).toEqual(expected);
  });

  it('TTLs of what changes', () => {
    const at = (ttl: number, kind: 'repoint' | 'carry'): string[] => {
      const one = row(kind === 'repoint' ? 'repoint www A 192.0.2.1 > 192.0.2.2' : 'carry www A 192.0.2.1');
      const rulings = [{ ...one, planned: { ...one.planned!, ttl } }];
      return checkRulings(checkInput(ZONE, rulings)).map((remark) => remark.code);
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

it('what CAA lets a web host do is asked where it is not known who makes its certificates', () => {
  const plan = ['carry b A 203.0.113.80', 'carry @ CAA 0 issue "other.test"'].map(row);
  expect(said(plan, { ...NEW_WEB, issuers: [] }).map((one) => `${one.weight} ${one.code}`)).toEqual(['look caa-unknown']);
  expect(checkRulings(checkInput(ZONE, plan))).toEqual([]);
});

it('a set that is kept as one of several answers is said to be', () => {
  const one = row('carry x A 192.0.2.1');
  const said = (reason: string): string[] => checkRulings(checkInput(ZONE, [{ ...one, reason }])).map((remark) => `${remark.weight} ${remark.code}`);
  expect([said(`is not about the website; ${VARIES}`), said('is not about the website')]).toEqual([['look varies-as-found'], []]);
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

describe('each fix mends what it is offered for', () => {
  const HOSTS = [NEW_WEB, { ...NEW_WEB, aliasTarget: undefined }, { ...NEW_WEB, addresses: ['203.0.113.80'] }, undefined];
  const offered = PLANS.flatMap(([what, , lines]) =>
    HOSTS.flatMap((newWeb) => {
      const rulings = lines.map(row);
      return said(rulings, newWeb).flatMap((remark) => remark.fixes.map((fix) => ({ what, newWeb, rulings, remark, fix })));
    }),
  );

  it.each(offered)('$what: $fix.text', ({ newWeb, rulings, remark, fix }) => {
    const key = (one: Pick<Ruling, 'owner' | 'type'>): string => `${one.owner.toLowerCase()} ${one.type}`;
    const rows = rulings.map((one) => ({ ...one, id: key(one), decidedBy: null }));
    const after = overlaid(
      rows,
      fix.rows.map((one) => ({ id: key(one), row: one.row, by: null })),
    );
    const words = (one: Remark): string => `${one.code} ${key(one)} ${one.text}`;
    const left = said(after, newWeb);
    expect(left.map(words)).not.toContain(words(remark));
    // It brings no stop of its own.
    const stops = said(rulings, newWeb)
      .filter((one) => one.weight === 'stop')
      .map(words);
    expect(
      left
        .filter((one) => one.weight === 'stop')
        .map(words)
        .filter((one) => !stops.includes(one)),
    ).toEqual([]);
    // What was found is kept as it was found, whatever is planned in its place.
    expect(after.flatMap(({ found }) => found ?? [])).toEqual(rulings.flatMap(({ found }) => found ?? []));
    // What the fix does not name is as it was.
    const named = new Set(fix.rows.map(key));
    expect(after.filter((one) => !named.has(key(one)))).toEqual(rows.filter((one) => !named.has(key(one))));
    // A row is what its ruling says: carried as found, dropped without a plan, new without something found.
    for (const { ruling, found, planned } of after)
      expect(
        {
          carry: planned === found,
          drop: planned === undefined && found !== undefined,
          new: found === undefined && planned !== undefined,
          repoint: found !== undefined && planned !== undefined,
        }[ruling],
      ).toBe(true);
  });

  it('is offered in most cases', () => {
    expect(new Set(offered.map(({ remark }) => remark.code)).size).toBeGreaterThan(15);
  });
});

describe('a host that takes so many records in a zone', () => {
  const PLAN = ['carry @ A 192.0.2.1 | 192.0.2.2', 'carry @ MX 10 mx.post.test.', 'drop old A 192.0.2.9', 'carry x TXT "x"'].map(row);
  const many = (most: number | null): string[] =>
    checkRulings(checkInput(ZONE, PLAN, { most })).flatMap((one) => (one.code === 'too-many' ? [`${one.weight}: ${one.text}`] : []));

  it.each([
    [3, ['stop: Its new DNS host takes 3 records in a zone, and the plan has 4: leave 1 of them out, or choose another host.']],
    [4, []],
    [null, []],
  ] as const)('of %s', (most, expected) => expect(many(most)).toEqual(expected));

  it('does not count what is its own, or what is not planned', () => {
    const own = { ...row('carry @ NS ns1.new.test.'), reason: "the DNS host's own" };
    expect(checkRulings(checkInput(ZONE, [...PLAN, own], { most: 4 })).some((one) => one.code === 'too-many')).toBe(false);
  });
});
