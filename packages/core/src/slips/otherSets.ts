import { sameNameSet } from '../watch/verdict';
import { KnownSet } from './nameservers/slip';

interface SetOfHost {
  readonly name: string;
  readonly role: string;
  readonly nameservers: readonly string[];
  /** Whose service it is; empty: not said. */
  readonly company?: string;
}

/** The sets of other DNS hosts, and of other services of the same company, that somebody could take for the one that is wanted. */
export function otherSets(hosts: readonly SetOfHost[], known: { readonly wanted: readonly string[]; readonly old: readonly string[] }): KnownSet[] {
  const companies = new Set(hosts.flatMap(({ nameservers, company }) => (company && sameNameSet(nameservers, known.wanted) ? [company.toLowerCase()] : [])));
  return hosts
    .filter(
      ({ role, nameservers }) => role === 'dns' && nameservers.length > 0 && !sameNameSet(nameservers, known.wanted) && !sameNameSet(nameservers, known.old),
    )
    .map(({ name, nameservers, company }) => ({
      of: company && companies.has(company.toLowerCase()) ? `${name}, another service of ${company}` : name,
      nameservers,
    }));
}
