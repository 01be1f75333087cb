import { registeredDomain } from '../hosts/pool';
import { HostKnowledge } from '../rebuild/host';
import { plain } from '../survey/words';

/**
 * What a DNS host that nobody described is called: the domain of its nameservers, or the first of them where they are of several.
 *
 *     dnsPlaceName(['ns1.quillmere.example.', 'ns2.quillmere.example.'])  // 'quillmere.example'
 */
export function dnsPlaceName(nameservers: readonly string[]): string {
  const domains = new Set(nameservers.map(domainOf));
  return domains.size === 1 ? [...domains][0]! : plain(nameservers[0] ?? 'New DNS host');
}

/** The same of a web host: the domain of its alias target, else its first address. */
export function webPlaceName({ aliasTarget, addresses }: Pick<HostKnowledge, 'aliasTarget' | 'addresses'>): string {
  return aliasTarget === undefined ? (addresses[0] ?? 'New web host') : domainOf(aliasTarget);
}

function domainOf(name: string): string {
  return registeredDomain(name) ?? plain(name.toLowerCase());
}
