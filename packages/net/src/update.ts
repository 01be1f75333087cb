import { Message, Name, RCODE, SetChange, TsigKey, rcodeName, updateMessages } from '@wanderon/core';
import { DnsClient } from './client';
import { NetError } from './netError';
import { ServerAddress, where } from './server';

/** Sends the changes as updates (RFC 2136), one after the other; throws a NetError at the first that is refused. */
export async function sendUpdates(client: DnsClient, server: ServerAddress, zone: Name, changes: readonly SetChange[], key: TsigKey): Promise<number> {
  const messages = updateMessages(zone, changes);
  for (const message of messages) {
    const answer: Message = await client.exchange(server, message, { key, timeout: 15_000, tries: 1 });
    if (answer.rcode !== RCODE.NOERROR) throw new NetError('refused', refusal(server, zone, answer.rcode), answer.rcode);
  }
  return messages.length;
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
