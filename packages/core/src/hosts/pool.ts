import { getDomain } from 'tldts';
import { plain } from '../survey/words';

/**
 * Whether a nameserver is one of those from which a host gives each domain some of its own: it is named under the registered domain of one
 * that is known of it. Names absolute, in any case.
 *
 *     isOfPool('ns7.dns.quillmere.example.', ['ns1.dns.quillmere.example.']) // true
 */
export function isOfPool(server: string, known: readonly string[]): boolean {
  const domain = registeredDomain(server);
  return domain !== null && known.some((name) => registeredDomain(name) === domain);
}

/** The registered domain of a name, without final dot; null where it has none. */
export function registeredDomain(name: string): string | null {
  return getDomain(plain(name.toLowerCase()));
}
