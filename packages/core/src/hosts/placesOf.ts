import { registeredDomain } from './pool';

/** A host, by as much as tells which place of a move it is. */
interface Known {
  readonly id: string;
  readonly name: string;
  readonly role: string;
  readonly nameservers: readonly string[];
}

/** The registrar of a move: the one that somebody chose, else the one that registration data names. That only one is known says nothing. */
export function registrarOf<H extends Known>(
  hosts: readonly H[],
  { chosen, named }: { readonly chosen: string | null; readonly named: string | null },
): H | undefined {
  const all = hosts.filter((host) => host.role === 'registrar');
  return all.find((host) => host.id === chosen) ?? all.find((host) => host.name.toLowerCase() === named?.toLowerCase());
}

/** The DNS host of a domain: the one that the move goes by, else the one that has all of its nameservers. */
export function dnsHostOf<H extends Known>(hosts: readonly H[], chosen: string | null, nameservers: readonly string[]): H | undefined {
  const all = hosts.filter((host) => host.role === 'dns');
  if (chosen !== null) return all.find((host) => host.id === chosen);
  const has = ({ nameservers: own }: H, name: string): boolean => own.some((one) => one.toLowerCase() === name.toLowerCase());
  return nameservers.length === 0 ? undefined : all.find((host) => nameservers.every((name) => has(host, name)));
}

/**
 * The nameservers of a domain that are of one host: those of the company whose they mostly are; all of them, where none has more than the others. A
 * left-over name of a former host is none of it.
 *
 *     commonServers(['a.pebbledock.example.', 'b.pebbledock.example.', 'ns2.oldquay.example.'])  // the first two
 */
export function commonServers(names: readonly string[]): string[] {
  const counts = new Map<string | null, number>();
  for (const name of names) counts.set(registeredDomain(name), (counts.get(registeredDomain(name)) ?? 0) + 1);
  const most = Math.max(0, ...counts.values());
  const leading = [...counts].filter(([, count]) => count === most);
  return leading.length === 1 ? names.filter((name) => registeredDomain(name) === leading[0]![0]) : [...names];
}
