import {
  Name,
  ServerAt,
  SetKey,
  TsigKey,
  askedOfNew,
  askedOfOld,
  changingSets,
  frontQuestions,
  mayBeTyped,
  sameNameSet,
  slipQuestions,
  strangersNamed,
} from '@wanderon/core';
import { NetError, limited } from '@wanderon/net';
import { Network } from '../../network/network';
import { givenServers } from '../../hosts/givenServers';
import { HostStore } from '../../hosts/host.store';
import { Sighted } from '../../moves/observation.store';
import { Asked, askSets, askZone, inOrder, tryTransfer } from '../askZone';
import { WorkContext } from '../context';
import { withSignatures } from './signatures';

const SERVERS = 4;
/** Servers in neither set that are asked as well. */
const STRANGERS = 10;
/** Sets that are asked for one by one beside a transfer, so that a view which only the key sees is noticed. */
const BESIDE_TRANSFER = 200;

/** What every old authority answers of the sets that change, of its NS set, and of names that stay and move. */
export async function lookAtOld(context: WorkContext, network: Network): Promise<Sighted[]> {
  const { leg, zone } = context;
  const keys = askedOfOld(leg);
  const ask = (address: string): Promise<Asked> => (mayBeTyped(leg) ? askTwice(context, network, address, keys) : askZone(network.client, address, zone, keys));
  const servers = [...leg.plan.oldServers, ...(await thirdServers(context, network))];
  return limited(servers, SERVERS, async ({ server, address }) => sighted(server, address, await ask(address)));
}

/** What every server of the new host answers of every planned set, at the addresses that the host gave. */
export async function lookAtNew(context: WorkContext, network: Network, hosts: HostStore): Promise<{ sights: Sighted[]; servers: ServerAt[] }> {
  const servers = await newServersOf(context, network);
  const key: TsigKey | undefined = await hosts.keyOf(context.loaded.row.new_dns_host);
  const sights = await limited(servers, SERVERS, async ({ server, address }) => {
    const asked = await askNew(context, network, address, key);
    return sighted(server, address, 'sight' in asked ? { sight: await withSignatures(context, network, address, asked.sight) } : asked);
  });
  return { sights, servers };
}

/** By transfer where a key opens one, and by questions. */
async function askNew(context: WorkContext, network: Network, address: string, key: TsigKey | undefined): Promise<Asked> {
  const { leg, zone } = context;
  const all = askedOfNew(leg);
  const transferred = key && (await tryTransfer(network.client, address, zone, all, key));
  if (!transferred) return askTwice(context, network, address, all);
  // What a host fronts is answered, and stands in no transfer.
  const changing = [...frontQuestions(leg.plan), ...changingSets(leg.plan)];
  const asked = await askZone(network.client, address, zone, changing.slice(0, BESIDE_TRANSFER));
  // What is answered counts before what is transferred: visitors get answers.
  return 'sight' in asked ? { sight: { ...transferred, sets: inOrder(Object.entries({ ...transferred.sets, ...asked.sight.sets })) } } : asked;
}

/** A set that is not there is looked for elsewhere in the zone at once: nobody is told that it was not typed before that is known. */
async function askTwice({ leg, zone }: WorkContext, { client }: Network, address: string, keys: readonly SetKey[]): Promise<Asked> {
  const asked = await askZone(client, address, zone, keys);
  if (!('sight' in asked)) return asked;
  const { sight } = asked;
  const more = await askSets(client, address, zone, slipQuestions(leg, sight));
  return { sight: { ...sight, sets: inOrder(Object.entries({ ...sight.sets, ...more })) } };
}

function sighted(server: string, address: string, asked: Awaited<ReturnType<typeof askZone>>): Sighted {
  const base = { kind: 'zone', subject: address, server } as const;
  return 'sight' in asked ? { ...base, value: withoutSerial(asked.sight) } : { ...base, value: undefined, problem: asked.problem, refused: asked.refused };
}

/** A serial that counts up by itself, as where a zone is signed again, does not make another answer. */
function withoutSerial(sight: object): object {
  return { ...sight, serial: null };
}

/** Servers that a parent server or an authority has named and that stand in neither set. */
async function thirdServers({ leg }: WorkContext, network: Network): Promise<ServerAt[]> {
  const walker = network.walker();
  const servers: ServerAt[] = [];
  for (const server of strangersNamed(leg).slice(0, STRANGERS))
    for (const address of (await addressesOf(walker, server)).slice(0, 4)) servers.push({ server, address });
  return servers;
}

/** Every address of the new set: as the host gave them, else as its names resolve. */
export async function newServersOf({ loaded, leg }: WorkContext, network: Network): Promise<ServerAt[]> {
  const host = loaded.row.new_dns_host ? loaded.hosts.get(loaded.row.new_dns_host) : undefined;
  const names = leg.plan.newNameservers;
  if (host && host.addresses.length > 0 && sameNameSet(host.nameservers, names)) return givenServers(host);
  const walker = network.walker();
  const servers: ServerAt[] = [];
  for (const server of names) for (const address of await addressesOf(walker, server)) servers.push({ server, address });
  return servers.length > 0 ? servers : [...leg.plan.newServers];
}

/** As a name resolves; nothing where it does not. */
export async function addressesOf(walker: { addressesOf: (name: Name) => Promise<string[]> }, server: string): Promise<string[]> {
  try {
    return await walker.addressesOf(Name.parse(server));
  } catch (error) {
    if (error instanceof NetError) return [];
    throw error;
  }
}
