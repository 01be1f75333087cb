import { sameNameSet } from '../watch/verdict';
import { KnownSet } from './nameservers/slip';

/** The sets of other DNS hosts and products that somebody could take for the one that is wanted. */
export function otherSets(
  hosts: readonly { readonly name: string; readonly role: string; readonly nameservers: readonly string[] }[],
  known: { readonly wanted: readonly string[]; readonly old: readonly string[] },
): KnownSet[] {
  return hosts
    .filter(
      ({ role, nameservers }) => role === 'dns' && nameservers.length > 0 && !sameNameSet(nameservers, known.wanted) && !sameNameSet(nameservers, known.old),
    )
    .map(({ name, nameservers }) => ({ of: name, nameservers }));
}
