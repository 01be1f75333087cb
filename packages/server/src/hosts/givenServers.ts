import { Host } from '@wanderon/contract';
import { ServerAt } from '@wanderon/core';

/**
 * The servers of a DNS host at the addresses that were given with it; empty where none were. Addresses go with its names in
 * their order, and round where there are more of them.
 */
export function givenServers(host: Pick<Host, 'name' | 'nameservers' | 'addresses'>): ServerAt[] {
  const { nameservers, addresses } = host;
  return addresses.map((address, index) => ({ server: nameservers[index % Math.max(1, nameservers.length)] ?? host.name, address }));
}
