import { Name } from '../dns/name';
import { inPrefix, parsePrefix } from '../dns/prefix';
import { namesIn } from '../dns/rdata';
import { RRset } from '../dns/record';
import { isReverse } from '../dns/reverse';
import { TYPE_CODES, typeMnemonic } from '../dns/typeNames';
import { textOf } from './namesInText';

/** What a record set may serve. */
export const PURPOSES = [
  'website',
  'mail in',
  'mail out',
  'sender policy',
  'verification',
  'calendar and devices',
  'voice',
  'certificates',
  'delegated subzone',
  'infrastructure',
  "host's default",
  'unknown',
] as const;
export type Purpose = (typeof PURPOSES)[number];

export interface Meaning {
  readonly purpose: Purpose;
  /** Why, in words. */
  readonly reason: string;
}

/** Labels that say what a name is for, where its type does not. */
const LABELS: readonly (readonly [Purpose, RegExp])[] = [
  ['calendar and devices', /^(autodiscover|autoconfig|calendar|cal|caldav|carddav|contacts|enroll\w*|enterprise\w+|mdm|wpad)$/],
  ['mail out', /^(smtp\d*|smtpout|out(bound)?|relay|em\d*|bounces?|return|mta)$/],
  ['mail in', /^(e?mail\d*|mx\d*|imap\d?|pop3?|webmail|post|mailhost|mailserver|inbound)$/],
  ['voice', /^(sips?\d?|pbx|voip|voice|phone|tel(ephone)?|meet|conf|xmpp|chat|turn|stun)$/],
  [
    'infrastructure',
    /^(ns\d*|dns\d*|vpn\d?|remote|rdp|gw\d?|gateway|fw|firewall|router|ssh|s?ftps?\d?|ntp|time|ldaps?|dc\d?|kdc|srv\d?|server\d?|host\d?|nas|backups?)$/,
  ],
  [
    'website',
    /^(www\d?|m|shop|store|blog|news|portal|static|assets|img|images|cdn|media|app\d?|api\d?|beta|test|dev|stag(e|ing)|preview|old|new|docs|help|support|status)$/,
  ],
];
const SERVICES: readonly (readonly [Purpose, RegExp])[] = [
  ['calendar and devices', /^_(cal|card)davs?$|^_autodiscover$|^_ipps?$|^_ntp$/],
  ['voice', /^_(sips?|sipfederationtls|sipinternaltls|h323\w+|stuns?|turns?|xmpp\S*|irc|matrix\S*)$/],
  ['mail in', /^_(submissions?|imaps?|pop3s?|sieve|jmap)$/],
  ['infrastructure', /^_(ldaps?|kerberos\S*|kpasswd|gc|msdcs|radsec|ssh|sftp-ssh|ftp)$/],
];

/**
 * What each record set of a zone serves, with the reason. Addresses and aliases mean what leads to them: the target of a
 * mail exchange is for mail, whatever its name.
 */
export function meaningsOf(zone: Name, sets: readonly RRset[]): Map<RRset, Meaning> {
  const leading = new Map<string, Meaning>();
  for (const set of sets) {
    const purpose: Purpose | undefined =
      set.type === TYPE_CODES.MX
        ? 'mail in'
        : set.type === TYPE_CODES.NS
          ? set.owner.equals(zone)
            ? 'infrastructure'
            : 'delegated subzone'
          : set.type === TYPE_CODES.SRV
            ? (bySet(zone, set)?.purpose ?? undefined)
            : undefined;
    if (!purpose) continue;
    const by = `${typeMnemonic(set.type)} of ${set.owner.relativeTo(zone)} leads here`;
    for (const data of set.data) for (const name of namesIn(set.type, data)) leading.set(name.key, { purpose, reason: by });
  }
  const cuts = sets.filter((set) => set.type === TYPE_CODES.NS && !set.owner.equals(zone));
  return new Map(
    sets.map((set): [RRset, Meaning] => {
      const cut = cuts.find((one) => set.owner.isAtOrBelow(one.owner));
      if (cut) return [set, { purpose: 'delegated subzone', reason: `${cut.owner.relativeTo(zone)} is delegated` }];
      const { bySet: strong, byLabel: weak } = ownMeaning(zone, set);
      return [set, strong ?? leading.get(set.owner.key) ?? weak ?? UNKNOWN];
    }),
  );
}

const UNKNOWN: Meaning = { purpose: 'unknown', reason: 'neither its type nor its name says' };

/** What sets say by themselves, read once for each: a ledger is put in order again whenever one row of thousands is another. */
const OWN = new WeakMap<RRset, { readonly zone: Name; readonly bySet: Meaning | undefined; readonly byLabel: Meaning | undefined }>();

function ownMeaning(zone: Name, set: RRset): NonNullable<ReturnType<(typeof OWN)['get']>> {
  const known = OWN.get(set);
  if (known && known.zone.equals(zone)) return known;
  const strong = bySet(zone, set);
  const made = { zone, bySet: strong, byLabel: strong ? undefined : byLabel(zone, set) };
  OWN.set(set, made);
  return made;
}

const LOOPBACK = [parsePrefix('127.0.0.0/8')!, parsePrefix('::1')!];

/** By type and data, and by the labels that standards reserve. */
function bySet(zone: Name, set: RRset): Meaning | undefined {
  const labels = set.owner.relativeTo(zone).toLowerCase().split('.');
  const type = typeMnemonic(set.type);
  switch (set.type) {
    case TYPE_CODES.SOA:
    case TYPE_CODES.NS:
    case TYPE_CODES.DNSKEY:
    case TYPE_CODES.DS:
    case TYPE_CODES.CDS:
    case TYPE_CODES.CDNSKEY:
    case TYPE_CODES.NSEC3PARAM:
    case TYPE_CODES.CSYNC:
    case TYPE_CODES.ZONEMD:
    case TYPE_CODES.SSHFP:
      return { purpose: 'infrastructure', reason: `${type} records are` };
    case TYPE_CODES.MX:
      return { purpose: 'mail in', reason: 'MX says where mail is taken' };
    case TYPE_CODES.CAA:
    case TYPE_CODES.TLSA:
      return { purpose: 'certificates', reason: `${type} is about certificates` };
    case TYPE_CODES.OPENPGPKEY:
    case TYPE_CODES.SMIMEA:
      return { purpose: 'mail out', reason: `${type} holds keys of correspondents` };
    case TYPE_CODES.HTTPS:
      return { purpose: 'website', reason: 'HTTPS says how a site is reached' };
  }
  if ((set.type === TYPE_CODES.A || set.type === TYPE_CODES.AAAA) && set.data.every((data) => LOOPBACK.some((prefix) => inPrefix(prefix, data))))
    return { purpose: "host's default", reason: 'it leads nowhere but to the asking machine itself; panels put it there' };
  if (labels.includes('_domainkey')) return { purpose: 'mail out', reason: 'below _domainkey stand keys of signatures (RFC 6376)' };
  if (labels[0] === '_dmarc' || labels.includes('_report')) return { purpose: 'sender policy', reason: 'what receivers do with forged mail (RFC 7489)' };
  if (labels[0] === '_mta-sts' || labels[0] === 'mta-sts' || (labels[0] === '_smtp' && labels[1] === '_tls'))
    return { purpose: 'mail in', reason: 'how mail is brought safely (RFC 8461, RFC 8460)' };
  if (labels.includes('_bimi')) return { purpose: 'sender policy', reason: 'the mark that mailboxes show beside the sender' };
  if (labels[0]?.startsWith('_acme')) return { purpose: 'certificates', reason: 'a certificate is proved with it (RFC 8555)' };
  if (set.type === TYPE_CODES.TXT || set.type === TYPE_CODES.SPF) return byText(set);
  if (set.type === TYPE_CODES.PTR && isReverse(set.owner)) return { purpose: 'infrastructure', reason: 'it names an address' };
  const service = SERVICES.find(([, pattern]) => labels.some((label) => pattern.test(label)));
  return service && { purpose: service[0], reason: `${labels[0]} is a reserved name for it` };
}

function byText(set: RRset): Meaning | undefined {
  const texts = set.data.map(textOf);
  if (texts.some((text) => /^v=spf1\b/i.test(text)))
    return { purpose: 'sender policy', reason: texts.length > 1 ? 'it holds who may send (RFC 7208), among others' : 'who may send (RFC 7208)' };
  const proof = texts.find((text) => /(verif|valid|proof|challenge|confirm|token|site-|domain-)[\w-]{0,60}\s{0,5}[=:]/i.test(text));
  return proof === undefined ? undefined : { purpose: 'verification', reason: `"${proof.slice(0, 40)}" looks like a proof of ownership` };
}

function byLabel(zone: Name, set: RRset): Meaning | undefined {
  if (set.owner.equals(zone)) return ADDRESSED.has(set.type) ? { purpose: 'website', reason: 'the domain itself' } : undefined;
  return labelPurpose(zone, set.owner);
}

/** What a name is for by its labels alone, as people name things; undefined where they do not say. */
export function labelPurpose(zone: Name, owner: Name): Meaning | undefined {
  const labels = owner.relativeTo(zone).toLowerCase().split('.');
  for (const label of labels) {
    const found = LABELS.find(([, pattern]) => pattern.test(label));
    if (found) return { purpose: found[0], reason: `${label} is a common name for it` };
  }
  return undefined;
}

const ADDRESSED: ReadonlySet<number> = new Set([TYPE_CODES.A, TYPE_CODES.AAAA, TYPE_CODES.CNAME]);

/** What a name leads to, then its mail and texts; what the host writes itself comes last. */
const TYPE_ORDER: readonly number[] = [TYPE_CODES.A, TYPE_CODES.AAAA, TYPE_CODES.CNAME, TYPE_CODES.HTTPS, TYPE_CODES.MX, TYPE_CODES.TXT];
const TYPES_LAST: readonly number[] = [TYPE_CODES.DS, TYPE_CODES.NS, TYPE_CODES.SOA];

function typeRank(type: number): number {
  const first = TYPE_ORDER.indexOf(type);
  const last = TYPES_LAST.indexOf(type);
  return first >= 0 ? first - TYPE_ORDER.length : last >= 0 ? 0x10000 + last : type;
}

/** Digits as they stand in `Name.order`, where each octet is one more than it is, and the first of them. */
const DIGITS = /[1-:]+/g;
const ZERO = 0x31;

/**
 * A text for each name, by which names stand as a person counts them: in canonical order, but that a number of fewer digits comes first.
 *
 *     web2  // before web10, as 9.2.0.192.in-addr.arpa before 10
 */
function counted(owner: Name): string {
  // How many there are is written as a digit too: among letters and hyphens a number stays where it was.
  return owner.order.replace(DIGITS, (run) => String.fromCharCode(ZERO + Math.min(run.length, 10) - 1) + run);
}

/** Record sets in the order in which a person thinks of them: the domain itself, `www`, what is for mail, then the rest. */
export function inReadingOrder(zone: Name, sets: readonly RRset[], meanings: ReadonlyMap<RRset, Meaning> = meaningsOf(zone, sets)): RRset[] {
  const www = zone.child('www');
  const rank = (set: RRset): number => {
    if (set.owner.equals(zone)) return 0;
    if (set.owner.isAtOrBelow(www)) return 1;
    return ['mail in', 'mail out', 'sender policy'].includes(meanings.get(set)!.purpose) ? 2 : 3;
  };
  return sets
    .map((set) => ({ set, rank: rank(set), order: counted(set.owner), type: typeRank(set.type) }))
    .sort((a, b) => a.rank - b.rank || (a.order < b.order ? -1 : a.order > b.order ? 1 : a.type - b.type))
    .map(({ set }) => set);
}
