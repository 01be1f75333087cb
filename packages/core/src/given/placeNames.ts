import { registeredDomain } from '../hosts/pool';
import { HostKnowledge } from '../rebuild/host';
import { plain } from '../survey/words';

/** What a web host is called of which no more than addresses is known. */
export const UNNAMED_WEB = 'New web host';

/**
 * What a DNS host that nobody described is called: the domain of its nameservers, or the first of them where they are of several.
 *
 *     dnsPlaceName(['ns1.quillmere.example.', 'ns2.quillmere.example.'])  // 'quillmere.example'
 */
export function dnsPlaceName(nameservers: readonly string[]): string {
  const domains = new Set(nameservers.map(domainOf));
  return domains.size === 1 ? [...domains][0]! : plain(nameservers[0] ?? 'New DNS host');
}

/** The same of a web host: the domain of its alias target. */
export function webPlaceName({ aliasTarget }: Pick<HostKnowledge, 'aliasTarget'>): string {
  return aliasTarget === undefined ? UNNAMED_WEB : domainOf(aliasTarget);
}

function domainOf(name: string): string {
  return registeredDomain(name) ?? plain(name.toLowerCase());
}
