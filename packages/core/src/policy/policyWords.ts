import { RRsetText, rrsetRead } from '../dns/record';
import { textOf } from '../survey/namesInText';
import { readCaa } from './caa';
import { readDkimKey } from './dkim';
import { isDmarc, readDmarc } from './dmarc';
import { SPF_LOOKUPS, SpfTerm, readSpf } from './spf';

/** What becomes of everybody else, by the sign before `all` (RFC 7208 §8). */
const REST: Readonly<Record<SpfTerm['qualifier'], string>> = { '-': 'fails', '~': 'fails softly', '?': 'is let be', '+': 'may send too' };

/** What a set says to receivers of mail and to those who make certificates, in words; nothing where it holds no policy. Never throws. */
export function policyWords(set: RRsetText): string[] {
  if (set.type === 'CAA') return caaWords(set.data);
  if (set.type !== 'TXT') return [];
  const texts = rrsetRead(set).data.map(textOf);
  const isKey = /\._domainkey\./i.test(set.owner);
  return texts.flatMap((text) => {
    if (isKey) return [dkimWords(text)];
    if (isDmarc(text)) return [dmarcWords(text)];
    const spf = readSpf(text);
    if (!spf) return [];
    const may = spf.terms.filter(({ kind, qualifier, name }) => kind === 'mechanism' && qualifier === '+' && name !== 'all').map(termWords);
    const all = spf.terms.find(({ name }) => name === 'all');
    const goesOn = spf.terms.find(({ name }) => name === 'redirect');
    const rest = all ? `everybody else ${REST[all.qualifier]}` : goesOn ? `for the rest see ${goesOn.value}` : 'of everybody else it says nothing';
    const lookups = spf.lookups > 0 ? `; ${spf.lookups} of ${SPF_LOOKUPS} lookups` : '';
    return [`SPF: ${may.length > 0 ? `${may.join(', ')} may send` : 'nobody may send'}, ${rest}${lookups}.`];
  });
}

/** `the MX of the domain itself`, `the address of www.zone.test and its /28`, `198.51.100.0/28`, `whom spf.post.test names` */
function termWords({ name, value }: SpfTerm): string {
  const at = value.indexOf('/');
  const host = at < 0 ? value : value.slice(0, at);
  const of = `${host === '' ? 'the domain itself' : host}${at < 0 ? '' : ` and its ${value.slice(at)}`}`;
  switch (name) {
    case 'mx':
      return `the MX of ${of}`;
    case 'a':
      return `the address of ${of}`;
    case 'include':
      return `whom ${value} names`;
    case 'ip4':
    case 'ip6':
      return value;
    default:
      return `${name}:${value}`;
  }
}

function dkimWords(text: string): string {
  const key = readDkimKey(text);
  if (!key.ok) return `Key of signatures: ${key.problem}.`;
  if (key.revoked) return 'Key of signatures: revoked.';
  return `Key of signatures: ${key.kind.toUpperCase()}${key.bits === undefined ? '' : `, ${key.bits} bits`}.`;
}

function dmarcWords(text: string): string {
  const policy = readDmarc(text);
  if (!policy.ok) return `DMARC: ${policy.problem}.`;
  const forged = { none: 'is only reported', quarantine: 'is put aside', reject: 'is refused' }[policy.policy];
  const to = policy.reports.length > 0 ? `; reports go to ${policy.reports.join(', ')}` : '; no reports are sent';
  return `DMARC: forged mail ${forged}${to}.`;
}

/** RFC 8659 §4. */
function caaWords(data: readonly string[]): string[] {
  const { issue = [], issueWild: wild = [] } = readCaa(data);
  const who = (names: readonly string[]): string => names.filter((one) => one !== '').join(', ') || 'nobody';
  if (issue.length === 0 && wild.length === 0) return [];
  const whole = issue.length > 0 ? `Certificates by ${who(issue)}` : 'Certificates by anybody';
  return [wild.length > 0 ? `${whole}; of wildcards by ${who(wild)}.` : `${whole} alone.`.replace('nobody alone', 'nobody')];
}
