import { Message, Name, RCODE, RRset, SetChange, TsigKey, UpdatePart, rcodeName, typeMnemonic, updateParts } from '@wanderon/core';
import { DnsClient } from './client';
import { NetError } from './netError';
import { ServerAddress, where } from './server';

/** A server refused these changes, each of them sent alone; all others took effect. */
export class RefusedChanges extends NetError {
  constructor(
    server: ServerAddress,
    readonly changes: readonly SetChange[],
    rcode: number,
  ) {
    const names = changes.slice(0, TOLD).map((change) => `${change.owner.toString().replace(/\.$/, '')} ${typeMnemonic(change.type)}`);
    const more = changes.length > TOLD ? ` and ${changes.length - TOLD} more` : '';
    super('refused', `${where(server)} refuses ${names.join(', ')}${more} (${rcodeName(rcode)})`, rcode);
  }
}

const TOLD = 3;
/** Updates on their way at once: a server that waits for its disk or its journal takes those that are there in one go. */
const ABREAST = 8;
/** Changes that a server may refuse one by one before the rest is not tried any more: it takes none of their kind. */
const MOST_REFUSED = 8;

/** What says nothing about a single change: the zone, the key or the moment is wrong. */
const OF_THE_WHOLE: ReadonlySet<number> = new Set([RCODE.NXRRSET, RCODE.YXRRSET, RCODE.NXDOMAIN, RCODE.YXDOMAIN, RCODE.NOTAUTH, RCODE.NOTZONE]);

export interface UpdateOptions {
  /** A set that has to be as it was seen when the first message arrives. */
  readonly guard?: RRset | undefined;
  /** Told after each message how many changes took effect so far. */
  readonly onTaken?: ((changes: number) => void) | undefined;
}

/**
 * Sends the changes as updates (RFC 2136): the first alone, and if it is taken the others several at a time, since no two are about one
 * set and each is guarded by what was seen.
 * Where a server refuses one, it is halved until what it refuses is found, each half guarded as before; what it takes takes effect. Gives
 * the number of messages that took effect. Throws a NetError, a `RefusedChanges` where single changes are to blame.
 */
export async function sendUpdates(
  client: DnsClient,
  server: ServerAddress,
  zone: Name,
  changes: readonly SetChange[],
  key: TsigKey,
  { guard, onTaken }: UpdateOptions = {},
): Promise<number> {
  const refused: SetChange[] = [];
  let rcode: number = RCODE.NOERROR;
  let sent = 0;
  let taken = 0;
  const waiting: UpdatePart[] = updateParts(zone, changes, undefined, guard);
  while (waiting.length > 0) {
    const parts = waiting.splice(0, sent === 0 ? 1 : abreast(waiting));
    const asked = await Promise.allSettled(parts.map((part) => client.exchange(server, part.message, { key, timeout: 15_000, tries: 1 })));
    const halves: UpdatePart[] = [];
    for (const [index, one] of asked.entries()) {
      if (one.status === 'rejected') throw one.reason;
      const answer: Message = one.value;
      if (answer.rcode === RCODE.NOERROR) {
        sent += 1;
        taken += parts[index]!.changes.length;
        onTaken?.(taken);
        continue;
      }
      if (OF_THE_WHOLE.has(answer.rcode)) throw new NetError('refused', refusal(server, zone, answer.rcode), answer.rcode);
      rcode = answer.rcode;
      const { changes: some } = parts[index]!;
      const [a, b] = halved(some) ?? [];
      if (a && b) halves.push(...updateParts(zone, a), ...updateParts(zone, b));
      else refused.push(...some);
    }
    waiting.unshift(...halves);
    // The first one that is taken tells that not all of them are refused.
    if (refused.length >= MOST_REFUSED && sent === 0) throw new NetError('refused', refusal(server, zone, rcode), rcode);
    if (refused.length >= MOST_REFUSED) break;
  }
  if (refused.length === 0) return sent;
  if (sent === 0 && refused.length === changes.length && changes.length > 1) throw new NetError('refused', refusal(server, zone, rcode), rcode);
  throw new RefusedChanges(server, refused, rcode);
}

/** How many parts at the head may be on their way at once: of one owner's changes the later ones rest on the earlier ones. */
function abreast(waiting: readonly UpdatePart[]): number {
  const owners = new Set<string>();
  for (const [index, { changes }] of waiting.slice(0, ABREAST).entries()) {
    if (changes.some((change) => owners.has(change.owner.key))) return index;
    for (const change of changes) owners.add(change.owner.key);
  }
  return ABREAST;
}

/** Two parts of the changes; sets of one owner stay together as long as there is another owner. Undefined for one change. */
function halved(changes: readonly SetChange[]): [SetChange[], SetChange[]] | undefined {
  if (changes.length < 2) return undefined;
  const owners = [...new Set(changes.map((change) => change.owner.key))];
  const first = owners.length > 1 ? new Set(owners.slice(0, owners.length >> 1)) : undefined;
  const isFirst = (change: SetChange): boolean => (first ? first.has(change.owner.key) : changes.indexOf(change) < changes.length >> 1);
  return [changes.filter(isFirst), changes.filter((change) => !isFirst(change))];
}

function refusal(server: ServerAddress, zone: Name, rcode: number): string {
  switch (rcode) {
    case RCODE.NOTAUTH:
      return `${where(server)} does not hold ${zone.toString()} yet, or the key is not good for it`;
    case RCODE.NXRRSET:
    case RCODE.YXRRSET:
      return `${where(server)} refused: somebody changed the zone since it was read`;
    default:
      return `${where(server)} refused the update: ${rcodeName(rcode)}`;
  }
}
