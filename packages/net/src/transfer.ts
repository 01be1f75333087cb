import { Name, RCODE, ResourceRecord, TYPE_CODES, equalBytes, query, rcodeName, readSoa } from '@wanderon/core';
import { AskOptions, DnsClient, ServerAddress, where } from './client';
import { NetError } from './netError';

export interface TransferredZone {
  readonly serial: number;
  /** Every record once, the SOA first. */
  readonly records: readonly ResourceRecord[];
}

/** Fetches a whole zone (RFC 5936). `limit`: the most records that are taken. Throws a NetError. */
export async function transferZone(
  client: DnsClient,
  server: ServerAddress,
  zone: Name,
  options: AskOptions & { limit?: number } = {},
): Promise<TransferredZone> {
  const records: ResourceRecord[] = [];
  const limit = options.limit ?? 5_000_000;
  let soa: ResourceRecord | undefined;
  const request = { ...query(zone, TYPE_CODES.AXFR), edns: undefined };
  for await (const message of client.stream(server, request, options)) {
    if (message.rcode !== RCODE.NOERROR) throw new NetError('refused', `${where(server)} refused the transfer: ${rcodeName(message.rcode)}`, message.rcode);
    for (const record of message.answers) {
      if (!soa) {
        if (record.type !== TYPE_CODES.SOA || !record.owner.equals(zone))
          throw new NetError('malformed', `${where(server)} did not begin the transfer with the SOA`);
        soa = record;
        records.push(record);
      } else if (record.type === TYPE_CODES.SOA && record.owner.equals(zone)) {
        if (!equalBytes(record.data, soa.data)) throw new NetError('malformed', `${where(server)} changed the zone during the transfer`);
        return { serial: readSoa(soa.data).serial, records };
      } else {
        if (!record.owner.isAtOrBelow(zone)) throw new NetError('malformed', `${where(server)} sent ${record.owner.toString()}, which is outside the zone`);
        records.push(record);
        if (records.length > limit) throw new NetError('limit', `the zone holds more than ${limit} records`);
      }
    }
    if (message.answers.length === 0) throw new NetError('refused', `${where(server)} sent an empty transfer`);
  }
  throw new NetError('cut', `${where(server)} ended the transfer early`);
}
