import { isIpv4, isIpv6 } from '../dns/address';
import { plain } from '../survey/words';
import { HostKnowledge } from './host';
import { Ruling } from './ruling';

/** A value that may be meant, and whose it is. */
export interface Suggested {
  readonly text: string;
  readonly of: string;
}

/** Of what fits, the first. */
const MOST = 6;

/**
 * Values that fit a type and begin with what is typed last in a line: of the hosts that are known, then of the zone as it is planned. Names are
 * absolute with final dot.
 */
export function suggestValues(type: string, line: string, hosts: readonly HostKnowledge[], rulings: readonly Ruling[]): Suggested[] {
  const begun = /\S*$/.exec(line)![0].toLowerCase();
  const all = candidates(type, hosts, rulings);
  const seen = new Set<string>();
  return all
    .filter(({ text, of }) => text.toLowerCase() !== begun && (text.toLowerCase().startsWith(begun) || of.toLowerCase().startsWith(begun)))
    .filter(({ text }) => !seen.has(text.toLowerCase()) && seen.add(text.toLowerCase()))
    .slice(0, MOST);
}

/** The line with a suggestion in the place of what is typed last. */
export function withSuggested(line: string, { text }: Suggested): string {
  return `${line.slice(0, line.length - /\S*$/.exec(line)![0].length)}${text}`;
}

function candidates(type: string, hosts: readonly HostKnowledge[], rulings: readonly Ruling[]): Suggested[] {
  if (type === 'A' || type === 'AAAA') {
    const fits = type === 'A' ? isIpv4 : isIpv6;
    const own = rulings.flatMap((row) => (row.type === type ? (row.planned?.data ?? []).map((text) => ({ text, of: plain(row.owner) })) : []));
    return [...hosts.flatMap((host) => host.addresses.filter(fits).map((text) => ({ text, of: host.name }))), ...own];
  }
  const named = (which: (host: HostKnowledge) => readonly string[]): Suggested[] =>
    hosts.flatMap((host) => which(host).map((text) => ({ text, of: host.name })));
  const owners = (has: (row: Ruling) => boolean): Suggested[] =>
    rulings.flatMap((row) => (row.planned && has(row) && !/^[*_]/.test(row.owner) ? [{ text: row.owner, of: 'in this zone' }] : []));
  const isAddress = (row: Ruling): boolean => row.type === 'A' || row.type === 'AAAA';
  switch (type) {
    case 'CNAME':
      return [...named((host) => (host.aliasTarget ? [host.aliasTarget] : [])), ...owners((row) => isAddress(row) || row.type === 'CNAME')];
    case 'NS':
      return named((host) => host.nameservers);
    // Mail and services lead to names with addresses (RFC 2181 §10.3, RFC 2782).
    case 'MX':
    case 'SRV':
      return owners(isAddress);
    default:
      return [];
  }
}
