import { Astray, Name, astrayKeys, ownerOf, setKey, typeOf } from '@wanderon/core';
import { Host } from '@wanderon/contract';
import { limited } from '@wanderon/net';
import { Network } from '../../network/network';
import { Sighted } from '../../moves/observation.store';
import { addressesOf } from './zones';
import { askSet } from '../askZone';
import { WorkContext } from '../context';

/** Questions at a time; hosts that are asked besides. */
const AT_ONCE = 8;
const OTHER_HOSTS = 12;
/** Looks that pass before the same is looked for again. */
const PAUSES = 10;

/**
 * Where rows stand that somebody says are typed and that are not where they belong: below other domains (`others`, without final dot) at
 * the same host, and at other hosts that the agency knows. Nothing is asked where nothing is missing.
 */
export async function lookAstray({ leg, loaded, zone, every }: WorkContext, network: Network, others: () => Promise<readonly string[]>): Promise<Sighted[]> {
  // What was looked for a moment ago is hardly somewhere else by now.
  const lately = new Set(loaded.observations.filter((row) => row.kind === 'astray' && leg.now - row.last_seen < PAUSES * every).map((row) => row.subject));
  const keys = astrayKeys(leg).filter((key) => !lately.has(key));
  const here = leg.plan.newServers[0]?.address;
  if (keys.length === 0 || here === undefined) return [];
  const domains = await others();
  // The host that is left has all that is kept, and is delegated to.
  const known = new Set([loaded.row.new_dns_host, loaded.row.old_dns_host]);
  const hosts = [...loaded.hosts.values()].filter((host) => host.role === 'dns' && !known.has(host.id)).slice(0, OTHER_HOSTS);
  const walker = network.walker();
  const addressed = await limited(hosts, AT_ONCE, async (host) => ({ host, address: await addressOf(walker, host) }));
  const places = keys.flatMap((key) => [
    ...domains.map((domain) => {
      const owner = Name.parse(ownerOf(key));
      const there = Name.fromLabels([...owner.labels.slice(0, owner.labels.length - zone.labels.length), ...Name.parse(`${domain}.`).labels]);
      return {
        key,
        what: 'domain' as const,
        where: there.toString(),
        address: here,
        zone: Name.parse(`${domain}.`),
        asks: setKey(there.toString(), typeOf(key)),
      };
    }),
    ...addressed.flatMap(({ host, address }) => (address === undefined ? [] : [{ key, what: 'host' as const, where: host.name, address, zone, asks: key }])),
  ]);
  const answers = await limited(places, AT_ONCE, async ({ key, what, where, address, zone: at, asks }) => ({
    key,
    found: { what, where, data: (await askSet(network.client, address, at, asks))?.data ?? [] } satisfies Astray,
  }));
  return keys.map((key): Sighted => ({
    kind: 'astray',
    subject: key,
    value: { found: answers.filter((one) => one.key === key && one.found.data.length > 0).map((one) => one.found) },
  }));
}

/** One server of a host: as it was given, else as its name resolves. */
async function addressOf(walker: ReturnType<Network['walker']>, { addresses, nameservers }: Host): Promise<string | undefined> {
  return addresses[0] ?? (nameservers[0] === undefined ? undefined : (await addressesOf(walker, nameservers[0]))[0]);
}
