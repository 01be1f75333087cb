import { AuthorityAnswer, Name, RRset, ServerAt, TsigKey, counted, isIpv4, isIpv6, plain, sameNameSet } from '@wanderon/core';
import { askAuthorities } from './askAuthorities';
import { SurveyWalker, SurveyWish, SurveyWorld } from './surveyWorld';
import { Inventory, byTransfer, takeInventory } from './takeInventory';

/** Addresses of one server that a person named. */
const ADDRESSES = 4;

/** What a server gives that a person named, and to which nobody has to be led: a primary that hides, or one that lost the delegation. */
export interface NamedZone {
  readonly answers: readonly AuthorityAnswer[];
  readonly inventory: Inventory;
  readonly sets: readonly RRset[];
  /** Of a transfer. */
  readonly serial: number | undefined;
  readonly from: ServerAt;
}

export interface AskedNamed {
  /** Of the first server that gave anything. */
  readonly zone: NamedZone | undefined;
  /** Why others gave nothing, in sentences. */
  readonly problems: readonly string[];
}

/**
 * Asks the servers that a person named: for the whole zone, and, where no nameserver of the domain answers (`isServed` false), along its
 * chain or by questions as well.
 */
export async function askNamed(world: SurveyWorld, wish: SurveyWish, walker: SurveyWalker, isServed: boolean): Promise<AskedNamed> {
  const problems: string[] = [];
  for (const named of wish.given.servers ?? []) {
    const servers = await at(walker, named);
    if (servers.length === 0) problems.push(`${plain(named)}, which you named, has no address.`);
    for (const server of servers) {
      const asked = await askAuthorities(world.client, wish.zone, [server], wish.signal);
      const key = await keyFor(wish, server);
      const inventory = isServed ? await byTransfer(world, wish, key, asked.answers, []) : await takeInventory(world, wish, key, asked);
      const [first] = inventory?.sightings ?? [];
      if (inventory && first && first.sets.length > 0)
        return {
          zone: {
            ...{ answers: asked.answers, inventory, from: server },
            sets: first.sets,
            serial: inventory.means.kind === 'transfer' ? first.source.serial : undefined,
          },
          problems,
        };
      problems.push(`${where(server)}, which you named, ${unhelpful(asked.answers[0])}.`);
    }
  }
  return { zone: undefined, problems };
}

/** What a named server shows where no nameserver of the domain answers, in a sentence. */
export function namedWords({ sets, from }: NamedZone): string {
  return `No nameserver that the domain is delegated to answers: ${counted(sets.length, 'record set stands', 'record sets stand')} here as ${where(from)}, which you named, gives ${sets.length === 1 ? 'it' : 'them'}.`;
}

export function where({ server, address }: ServerAt): string {
  return server === address ? address : `${plain(server)} (${address})`;
}

function unhelpful(answer: AuthorityAnswer | undefined): string {
  if (!answer?.responded) return `did not answer${answer?.problem === undefined ? '' : `: ${answer.problem}`}`;
  return answer.authoritative ? `does not hand the zone out: ${answer.problem ?? 'nothing came'}` : 'does not have the zone';
}

async function at(walker: SurveyWalker, named: string): Promise<ServerAt[]> {
  if (isIpv4(named) || isIpv6(named)) return [{ server: named, address: named }];
  const addresses = await walker.addressesOf(Name.parse(named));
  return addresses.slice(0, ADDRESSES).map((address) => ({ server: named, address }));
}

/** The key of the agency's host that has this server. */
async function keyFor({ hosts }: SurveyWish, { server, address }: ServerAt): Promise<TsigKey | undefined> {
  const host = hosts.find((one) => one.addresses?.includes(address) || (server !== address && one.nameservers.some((name) => sameNameSet([name], [server]))));
  return host?.key();
}
