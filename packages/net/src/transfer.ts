import { Message, Name, RCODE, ResourceRecord, TYPE_CODES, equalBytes, message, query, rcodeName, readSoa, serialAfter } from '@wanderon/core';
import { AskOptions, DnsClient } from './client';
import { deadline } from './deadline';
import { NetError } from './netError';
import { ServerAddress, where } from './server';

export interface TransferredZone {
  readonly serial: number;
  /** Every record once, the SOA first. */
  readonly records: readonly ResourceRecord[];
}

export interface TransferOptions extends AskOptions {
  /** The most records that are taken. */
  readonly limit?: number;
  /** The most octets that are read. */
  readonly octets?: number;
  /** Milliseconds that all of it may take, however little silence there is. */
  readonly longest?: number;
}

const LIMIT = 5_000_000;
const OCTETS = 1_000_000_000;
const LONGEST = 3_600_000;

/** Fetches a whole zone (RFC 5936). Throws a NetError. */
export async function transferZone(client: DnsClient, server: ServerAddress, zone: Name, options: TransferOptions = {}): Promise<TransferredZone> {
  const records: ResourceRecord[] = [];
  for await (const part of transferStream(client, server, zone, options)) for (const record of part) records.push(record);
  return { serial: readSoa(records[0]!.data).serial, records };
}

/**
 * A whole zone as it comes (RFC 5936), every record once, the SOA first. Only when the stream has ended without a
 * NetError is it the whole zone.
 */
export async function* transferStream(
  client: DnsClient,
  server: ServerAddress,
  zone: Name,
  options: TransferOptions = {},
): AsyncGenerator<readonly ResourceRecord[], void> {
  const limit = options.limit ?? LIMIT;
  let soa: ResourceRecord | undefined;
  let count = 0;
  for await (const part of bounded(client, server, { ...query(zone, TYPE_CODES.AXFR), edns: undefined }, options)) {
    refuseErrors(part, server);
    const records: ResourceRecord[] = [];
    for (const record of part.answers) {
      if (!soa) {
        soa = firstSoa(record, zone, server);
        records.push(record);
      } else if (record.type === TYPE_CODES.SOA && record.owner.equals(zone)) {
        if (!equalBytes(record.data, soa.data)) throw new NetError('malformed', `${where(server)} changed the zone during the transfer`);
        if (part.answers.at(-1) !== record) throw new NetError('malformed', `${where(server)} sent records after the end of the zone`);
        yield records;
        return;
      } else {
        refuseOutside(record, zone, server);
        records.push(record);
      }
    }
    count += records.length;
    if (count > limit) throw new NetError('limit', `the zone holds more than ${limit} records`);
    if (part.answers.length === 0) throw new NetError('refused', `${where(server)} sent an empty transfer`);
    yield records;
  }
  throw new NetError('cut', `${where(server)} ended the transfer early`);
}

/** What a server sends, as long as it is not too much and does not take too long. */
async function* bounded(client: DnsClient, server: ServerAddress, request: Message, options: TransferOptions): AsyncGenerator<Message, void> {
  const longest = options.longest ?? LONGEST;
  const { signal, told } = deadline(options.signal, longest, `${where(server)} took longer than ${Math.round(longest / 1000)} s for the transfer`);
  try {
    yield* client.stream(server, request, { ...options, signal, most: options.octets ?? OCTETS });
  } catch (error) {
    throw told(error);
  }
}

/** One version of a zone to the next (RFC 1995 §4). */
export interface ZoneStep {
  readonly from: number;
  readonly to: number;
  readonly deleted: readonly ResourceRecord[];
  readonly added: readonly ResourceRecord[];
}

export type ZoneChanges =
  /** The serial asked from is the server's own, or later. */
  | { readonly kind: 'current'; readonly serial: number }
  | { readonly kind: 'steps'; readonly serial: number; readonly steps: readonly ZoneStep[] }
  /** The server no longer has the steps, and sent the zone. */
  | { readonly kind: 'whole'; readonly serial: number; readonly records: readonly ResourceRecord[] };

/** What changed since a serial (RFC 1995); `soa` is the zone's SOA record of then. Throws a NetError. */
export async function transferChanges(
  client: DnsClient,
  server: ServerAddress,
  zone: Name,
  soa: ResourceRecord,
  options: TransferOptions = {},
): Promise<ZoneChanges> {
  const request = message({ questions: query(zone, TYPE_CODES.IXFR).questions, authorities: [soa] });
  const limit = options.limit ?? LIMIT;
  const records: ResourceRecord[] = [];
  let newest: ResourceRecord | undefined;
  // SOA records of the newest serial seen; the answer ends with one of them, which one depends on its form.
  let closing = 0;
  for await (const part of bounded(client, server, request, options)) {
    refuseErrors(part, server);
    for (const record of part.answers) {
      if (newest) refuseOutside(record, zone, server);
      else newest = firstSoa(record, zone, server);
      records.push(record);
      if (record.type === TYPE_CODES.SOA && equalBytes(record.data, newest.data)) closing += 1;
    }
    if (records.length > limit) throw new NetError('limit', `the changes hold more than ${limit} records`);
    if (!newest) throw new NetError('refused', `${where(server)} sent an empty transfer`);
    const { serial } = readSoa(newest.data);
    // A single SOA that is no later says that there is nothing newer (§2); a later one has its changes still to come.
    if (records.length === 1) {
      if (!serialAfter(serial, readSoa(soa.data).serial)) return { kind: 'current', serial };
      continue;
    }
    const incremental = records[1]!.type === TYPE_CODES.SOA && !equalBytes(records[1]!.data, newest.data);
    if (closing === (incremental ? 3 : 2)) {
      if (records.at(-1)!.type !== TYPE_CODES.SOA) throw new NetError('malformed', `${where(server)} sent records after the end of the changes`);
      return incremental ? { kind: 'steps', serial, steps: stepsIn(records, server) } : { kind: 'whole', serial, records: records.slice(0, -1) };
    }
  }
  throw new NetError('cut', `${where(server)} ended the transfer early`);
}

/** RFC 1995 §4: the newest SOA, then old SOA, what goes, new SOA, what comes, again and again, and the newest SOA. */
function stepsIn(records: readonly ResourceRecord[], server: ServerAddress): ZoneStep[] {
  const steps: ZoneStep[] = [];
  let at = 1;
  const end = records.length - 1;
  const run = (): ResourceRecord[] => {
    const from = ++at;
    while (at < end && records[at]!.type !== TYPE_CODES.SOA) at += 1;
    return records.slice(from, at);
  };
  while (at < end) {
    const from = readSoa(records[at]!.data).serial;
    const deleted = run();
    if (at >= end) throw new NetError('malformed', `${where(server)} sent changes that end in the middle`);
    const to = readSoa(records[at]!.data).serial;
    const added = run();
    const before = steps.at(-1);
    if (before && before.to !== from) throw new NetError('malformed', `${where(server)} sent changes that do not follow one another`);
    steps.push({ from, to, deleted, added });
  }
  if (steps.at(-1)?.to !== readSoa(records[0]!.data).serial)
    throw new NetError('malformed', `${where(server)} sent changes that do not lead to its own serial`);
  return steps;
}

function refuseErrors(part: Message, server: ServerAddress): void {
  if (part.rcode !== RCODE.NOERROR) throw new NetError('refused', `${where(server)} refused the transfer: ${rcodeName(part.rcode)}`, part.rcode);
}

function firstSoa(record: ResourceRecord, zone: Name, server: ServerAddress): ResourceRecord {
  if (record.type === TYPE_CODES.SOA && record.owner.equals(zone)) return record;
  throw new NetError('malformed', `${where(server)} did not begin the transfer with the SOA`);
}

function refuseOutside(record: ResourceRecord, zone: Name, server: ServerAddress): void {
  if (!record.owner.isAtOrBelow(zone)) throw new NetError('malformed', `${where(server)} sent ${record.owner.toString()}, which is outside the zone`);
}
