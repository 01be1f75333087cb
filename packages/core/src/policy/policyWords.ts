import { RRsetText, rrsetRead } from '../dns/record';
import { textOf } from '../survey/namesInText';
import { counted } from '../survey/words';
import { Outside } from '../survey/outside';
import { isBimi, readBimi } from './bimi';
import { readCaa } from './caa';
import { readDkimKey } from './dkim';
import { isDmarc, readDmarc } from './dmarc';
import { isMtaSts, readMtaStsPolicy, readMtaStsRecord } from './mtaSts';
import { SPF_LOOKUPS, SpfTerm, readSpf } from './spf';
import { isTlsReports, readTlsReports } from './tlsReports';

/** What becomes of everybody else, by the sign before `all` (RFC 7208 §8). */
const REST: Readonly<Record<SpfTerm['qualifier'], string>> = { '-': 'fails', '~': 'fails softly', '?': 'is skipped', '+': 'may send too' };

/** What a set says to receivers of mail and to those who make certificates, in words; nothing where it holds no policy. Never throws. */
export function policyWords(set: RRsetText, outside: Outside | null = null): string[] {
  if (set.type === 'CAA') return caaWords(set.data);
  if (set.type !== 'TXT') return [];
  const texts = rrsetRead(set).data.map(textOf);
  const isKey = /\._domainkey\./i.test(set.owner);
  return texts.flatMap((text) => {
    if (isKey) return [dkimWords(text)];
    if (isDmarc(text)) return [dmarcWords(text)];
    if (isMtaSts(text)) return mtaStsWords(text, outside);
    if (isTlsReports(text)) return [tlsWords(text)];
    if (isBimi(text)) return [bimiWords(text)];
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

function mtaStsWords(text: string, outside: Outside | null): string[] {
  const record = readMtaStsRecord(text);
  const announced = record.ok ? `MTA-STS: a policy for mail, by the id ${record.id}.` : `MTA-STS: ${record.problem}.`;
  const page = outside?.mtaSts?.text ?? null;
  if (page === null) return [announced];
  const policy = readMtaStsPolicy(page);
  if (!policy.ok) return [announced, `Its page: ${policy.problem}.`];
  const how = { enforce: 'senders have to insist on it', testing: 'senders only report', none: 'it asks for nothing' }[policy.mode];
  const hosts = policy.mx.length > 0 ? `; mail hosts ${policy.mx.join(', ')}` : '';
  return [announced, `Its page, when the zone was surveyed: ${how}${hosts}; kept for ${counted(Math.round(policy.maxAge / 86_400), 'day', 'days')}.`];
}

function tlsWords(text: string): string {
  const reports = readTlsReports(text);
  return reports.ok ? `TLS reports: they go to ${reports.to.join(', ')}.` : `TLS reports: ${reports.problem}.`;
}

function bimiWords(text: string): string {
  const record = readBimi(text);
  if (!record.ok) return `BIMI: ${record.problem}.`;
  if (record.mark === '') return 'BIMI: no mark is shown.';
  return `BIMI: the mark at ${record.mark}${record.evidence === '' ? ', without evidence' : `, with evidence at ${record.evidence}`}.`;
}

/** RFC 8659 §4. */
function caaWords(data: readonly string[]): string[] {
  const { issue = [], issueWild: wild = [] } = readCaa(data);
  const who = (names: readonly string[]): string => names.filter((one) => one !== '').join(', ') || 'nobody';
  if (issue.length === 0 && wild.length === 0) return [];
  const whole = issue.length > 0 ? `Certificates by ${who(issue)}` : 'Certificates by anybody';
  return [wild.length > 0 ? `${whole}; of wildcards by ${who(wild)}.` : `${whole} alone.`.replace('nobody alone', 'nobody')];
}
