import { sameNameSet } from '../../watch/verdict';
import { listWords, plain } from '../words';
import { Finder, Finding, delegatedNames } from './finding';

/** The authorities: each answers with authority over UDP and TCP, at the same serial, and names the set that the parent delegates to. */
export const authorities: Finder = (standing) => {
  const findings: Finding[] = [];
  const delegated = delegatedNames(standing);
  const asked = standing.authorities.filter((authority) => delegated.includes(authority.server.toLowerCase()));
  for (const { server, address, authoritative, withoutAuthority, problem, tcpProblem, responded } of asked) {
    const at = `${plain(server)} (${address})`;
    if (!authoritative && responded)
      findings.push({
        weight: 'look',
        code: 'lame',
        text: `${at} is delegated to and does not answer for the zone: it is lame. Some resolvers get no answer because of it.`,
      });
    else if (!authoritative)
      findings.push({ weight: 'look', code: 'silent', text: `${at} is delegated to and gave no answer: ${problem ?? 'no reason known'}.` });
    else if (withoutAuthority)
      findings.push({
        weight: 'look',
        code: 'no-authority',
        text: `${at} answers for the zone and does not claim authority for it. Most resolvers take its answers; some ask another server instead.`,
      });
    else if (tcpProblem !== undefined)
      findings.push({
        weight: 'look',
        code: 'no-tcp',
        text: `${at} answers over UDP and not over TCP (${tcpProblem}): long answers are lost on their way (RFC 7766).`,
      });
  }
  const sound = standing.authorities.filter((authority) => authority.authoritative);
  const serials = new Map<number, string[]>();
  for (const { server, address, serial } of asked)
    if (serial !== undefined) serials.set(serial, [...(serials.get(serial) ?? []), `${plain(server)} (${address})`]);
  if (serials.size > 1)
    findings.push({
      weight: 'look',
      code: 'serials',
      text: `The nameservers do not have the same serial: ${[...serials].map(([serial, servers]) => `${listWords(servers)} at ${serial}`).join('; ')}. What was changed last may not be everywhere yet.`,
    });
  const own = new Map<string, { names: readonly string[]; servers: string[] }>();
  for (const { server, nameservers } of sound.filter((authority) => authority.nameservers.length > 0)) {
    const key = [...nameservers]
      .map((name) => name.toLowerCase())
      .sort()
      .join(' ');
    const held = own.get(key) ?? { names: nameservers, servers: [] };
    if (!held.servers.includes(plain(server))) held.servers.push(plain(server));
    own.set(key, held);
  }
  if (own.size > 1)
    findings.push({
      weight: 'look',
      code: 'ns-differs',
      text: `The nameservers name different nameservers for the zone: ${[...own.values()].map(({ names, servers }) => `${listWords(servers)} ${servers.length === 1 ? 'names' : 'name'} ${listWords(names.map(plain).sort())}`).join('; ')}.`,
    });
  for (const { names } of own.values()) {
    if (delegated.length === 0 || sameNameSet(names, delegated)) continue;
    const small = names.map((name) => name.toLowerCase());
    const left = small.filter((name) => !delegated.includes(name));
    const unsaid = delegated.filter((name) => !small.includes(name));
    if (left.length > 0)
      findings.push({
        weight: 'look',
        code: 'leftover-in-zone',
        text: `The zone names ${listWords(left.map(plain))} as nameserver, and the parent does not delegate there: left over from before, or a change not finished.`,
      });
    if (unsaid.length > 0)
      findings.push({
        weight: 'look',
        code: 'leftover-at-parent',
        text: `The parent delegates to ${listWords(unsaid.map(plain))}, which the zone itself does not name: left over from before, or added at the registrar only.`,
      });
  }
  return unique(findings);
};

function unique(findings: readonly Finding[]): Finding[] {
  return [...new Map(findings.map((finding) => [finding.text, finding])).values()];
}
