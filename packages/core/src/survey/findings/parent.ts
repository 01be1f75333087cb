import { sameNameSet } from '../../watch/verdict';
import { listWords, plain } from '../words';
import { Finder, Finding, delegatedNames } from './finding';

/** A TTL of the parent's NS set from which on a switch takes longer than people plan for, in seconds. */
const LONG_TTL = 86_400;

/** The delegation itself: there at all, the same at every parent server, not held too long, its servers with addresses. */
export const parent: Finder = (standing) => {
  const { domain, parent, referrals, unresolved, ofNames } = standing;
  const findings: Finding[] = [];
  const answering = referrals.filter((referral) => referral.problem === undefined);
  for (const { server, address, problem } of referrals)
    if (problem !== undefined)
      findings.push({ weight: 'look', code: 'parent-silent', text: `The parent's server ${plain(server)} (${address}) gave nothing: ${problem}.` });
  if (answering.length === 0) return findings;
  const names = delegatedNames(standing);
  if (names.length === 0)
    return [
      ...findings,
      { weight: 'stop', code: 'not-delegated', text: `${domain} is not delegated: no server of ${plain(parent) || 'the root'} names nameservers for it.` },
    ];
  const first = answering[0]!;
  for (const other of answering.slice(1))
    if (!sameNameSet(first.nameservers, other.nameservers))
      findings.push({
        weight: 'look',
        code: 'parent-differs',
        text: `The parent's servers disagree: ${plain(first.server)} delegates to ${said(first.nameservers)}, ${plain(other.server)} to ${said(other.nameservers)}. A change may be under way.`,
      });
  const ttl = Math.max(0, ...answering.map((referral) => referral.ttl ?? 0));
  if (ttl >= LONG_TTL)
    findings.push({
      weight: 'look',
      code: 'parent-ttl',
      text: `The parent's NS set has a TTL of ${hours(ttl)}: caches follow the old nameservers that long after the switch, and nobody can lower it.`,
    });
  if (names.length === 1)
    findings.push({
      weight: 'look',
      code: 'one-nameserver',
      text: `Only one nameserver is delegated to, ${plain(names[0]!)}: while it is away, nothing of the domain resolves.`,
    });
  // Addresses that the parent gives along are its own copy, and outlive a change of the server's address (RFC 1034 §4.2.2).
  const glue = new Map(answering.flatMap((referral) => referral.glue.map(({ name, address }) => [`${name.toLowerCase()} ${address}`, { name, address }])));
  for (const { name, address } of glue.values()) {
    const own = ofNames.find((one) => one.name.toLowerCase() === name.toLowerCase())?.addresses;
    if (own?.length === 0)
      findings.push({
        weight: 'look',
        code: 'glue-alone',
        text: `Only the parent says where ${plain(name)} is (${address}): its own zone has no address for it, and whoever asks there finds none.`,
      });
    else if (own && !own.includes(address))
      findings.push({
        weight: 'look',
        code: 'glue',
        text: `The parent gives ${address} for ${plain(name)}, whose own zone says ${listWords(own)}: part of the questions goes to an address that may be nobody's.`,
      });
  }
  for (const name of unresolved)
    findings.push({ weight: 'look', code: 'no-address', text: `${plain(name)} is delegated to and has no address: every question sent its way is lost.` });
  return findings;
};

function said(names: readonly string[]): string {
  return names.length === 0 ? 'nothing' : listWords(names.map(plain).sort());
}

function hours(seconds: number): string {
  return seconds % 86_400 === 0 ? `${seconds / 86_400} ${seconds === 86_400 ? 'day' : 'days'}` : `${Math.round(seconds / 3600)} hours`;
}
