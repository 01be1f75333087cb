import { readFile } from 'node:fs/promises';
import { isIpv4, isIpv6 } from '@wanderon/core';
import { Lookout } from './lookout';

/** Nameservers of one resolv.conf that are read, as its own readers do (resolv.conf(5)). */
const MOST = 3;

/** The way from the root servers down, as each look takes it anew: nothing remembers it, so that it shows what a resolver would learn now. */
export const AFRESH: Lookout = { name: 'Asked afresh', address: '', over: 'afresh', stands: 'from the root servers down', note: 'remembers nothing' };

/** The resolvers that a resolv.conf names; none where there is no such file. */
export async function machineResolvers(file: string): Promise<Lookout[]> {
  let text: string;
  try {
    text = await readFile(file, 'utf8');
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return [];
    throw error;
  }
  return resolversIn(text);
}

/**
 * The nameservers that the text of a resolv.conf names.
 *
 *     resolversIn('nameserver 192.0.2.53\nsearch office.example')  // one, at 192.0.2.53
 */
export function resolversIn(text: string): Lookout[] {
  const addresses = [
    ...new Set(
      text.split('\n').flatMap((line) => {
        const [word, address] = line.trim().split(/\s+/);
        const bare = address?.replace(/%.*$/, '') ?? '';
        return word === 'nameserver' && (isIpv4(bare) || isIpv6(bare)) ? [bare] : [];
      }),
    ),
  ].slice(0, MOST);
  return addresses.map((address, index) => ({
    name: addresses.length === 1 ? 'This machine’s resolver' : `This machine’s resolver ${index + 1}`,
    ...{ address, over: 'udp', stands: 'the network of this machine', note: '' },
  }));
}
