import { createHash, randomBytes } from 'node:crypto';
import { setImmediate } from 'node:timers/promises';
import {
  Message,
  Name,
  Nsec3Chain,
  RRset,
  TYPE_CODES,
  groupRecords,
  likelyNames,
  namesIn,
  namesInText,
  query,
  readSoa,
  typeMnemonic,
  withAncestors,
} from '@wanderon/core';
import { DnsClient } from './client';
import { limited } from './limited';
import { NetError } from './netError';
import { SIGNED } from './signed';
import { ServerAddress } from './server';
import { SurveyOptions } from './survey';

export interface Nsec3Walked {
  /** The ring is closed and no delegation may be left out of it: what has no hash in it does not exist. */
  readonly complete: boolean;
  readonly optOut: boolean;
  /** Names put to hashes, with the types that stand there. */
  readonly names: readonly { readonly name: Name; readonly types: readonly number[] }[];
  /** Hashes that no name was put to, as owners. */
  readonly unmatched: readonly { readonly owner: Name; readonly types: readonly number[] }[];
  /** What was fetched of the names, where the ring is complete. */
  readonly sets: readonly RRset[];
  readonly serial: number | undefined;
  readonly problems: readonly string[];
  readonly asked: number;
}

const IN_FLIGHT = 16;
/** Labels that are hashed in search of one that lies in a gap, before the gaps are given up. */
const SEARCH = 400_000;
/** Rounds of questions that tell nothing new, after which a server is taken not to mean it. */
const IDLE = 4;
/** Names that are hashed to put names to hashes. */
const TRIES = 400_000;
/** Hashes between two breaths: others want the processor too. */
const BREATH = 2000;
/** What signing makes; a new signer makes its own. */
const MADE_BY_SIGNER: ReadonlySet<number> = new Set([TYPE_CODES.RRSIG, TYPE_CODES.NSEC3]);

const sha1 = (data: Uint8Array): Uint8Array => new Uint8Array(createHash('sha1').update(data).digest());

/**
 * Collects the ring of hashes of a zone signed with NSEC3, puts names to them, and fetches what stands there. `known`: names
 * to try first. Undefined where the zone gives no NSEC3 records. Throws a NetError only where cancelled.
 */
export async function walkNsec3(
  client: DnsClient,
  server: ServerAddress,
  zone: Name,
  known: readonly Name[],
  options: SurveyOptions = {},
): Promise<Nsec3Walked | undefined> {
  const chain = new Nsec3Chain(zone, sha1);
  let asked = 0;
  const put = async (name: Name, type: number, signed: boolean): Promise<Message | undefined> => {
    asked += 1;
    if (asked % 25 === 1) options.onProgress?.(asked, { name, type });
    try {
      const answer = await client.exchange(server, query(name, type, signed ? { edns: SIGNED } : undefined), options);
      return answer.rcode === 0 || answer.rcode === 3 ? answer : undefined;
    } catch (error) {
      if (error instanceof NetError && error.kind !== 'cancelled') return undefined;
      throw error;
    }
  };
  const serialNow = async (known?: Message): Promise<number | undefined> => {
    const soa = (known ?? (await put(zone, TYPE_CODES.SOA, false)))?.answers.find((record) => record.type === TYPE_CODES.SOA && record.owner.equals(zone));
    return soa && readSoa(soa.data).serial;
  };
  const deny = async (name: Name): Promise<void> => void chain.take((await put(name, TYPE_CODES.NSEC3, true))?.authorities ?? []);
  const serial = await serialNow(options.known?.({ name: zone, type: TYPE_CODES.SOA }));
  await deny(zone.child(label()));
  if (!chain.params && !chain.problem) return undefined;
  const telling = await collect(chain, deny, options);
  const problems = chain.problem === undefined ? [] : [chain.problem];
  const names: { name: Name; types: readonly number[] }[] = [];
  const sets: RRset[] = [];
  const missing: string[] = [];
  const fetch = async (found: typeof names): Promise<Name[]> => {
    const questions = found.flatMap(({ name, types }) => types.filter((type) => !MADE_BY_SIGNER.has(type)).map((type) => ({ name, type })));
    const led = await limited(questions, options.inFlight ?? IN_FLIGHT, async ({ name, type }) => {
      const answer = await put(name, type, false);
      const cut = type === TYPE_CODES.NS && !name.equals(zone);
      const got = groupRecords([
        ...[...(answer?.answers ?? []), ...(cut ? (answer?.authorities ?? []) : [])].filter((record) => record.owner.equals(name) && record.type === type),
        ...(answer?.additionals ?? []).filter((record) => cut && ADDRESSES.has(record.type) && record.owner.isAtOrBelow(name)),
      ]);
      if (got.length === 0) missing.push(`${name.toString()} has ${typeMnemonic(type)}, which was not given.`);
      sets.push(...got);
      return got.flatMap((set) => set.data.flatMap((data) => [...namesIn(set.type, data), ...namesInText(set.type, data)]));
    });
    return led.flat().filter((name) => name.isBelow(zone));
  };
  let tried = 0;
  const matchAll = async (candidates: Iterable<Name>): Promise<typeof names> => {
    const found: typeof names = [];
    const match = (name: Name): void => {
      const types = chain.match(name);
      if (types) found.push({ name, types });
    };
    const settle = async (): Promise<void> => {
      for (const name of chain.takeToAsk()) {
        // A type that no name has is denied with the record of the name itself.
        await deny(name);
        match(name);
      }
    };
    for (const name of candidates) {
      match(name);
      if (++tried % BREATH > 0) continue;
      if (options.signal?.aborted) throw new NetError('cancelled', 'cancelled');
      await settle();
      if ((chain.closed && chain.unmatched().length === 0) || tried > TRIES) break;
      await setImmediate();
    }
    await settle();
    names.push(...found);
    return found;
  };
  await matchAll([zone, ...known.flatMap((name) => [...withAncestors(zone, name)])]);
  if (telling) await matchAll(likelyNames(zone));
  const complete = chain.closed && !chain.optOut && chain.problem === undefined;
  if (complete) for (let fresh = [...names]; fresh.length > 0;) fresh = await matchAll((await fetch(fresh)).flatMap((name) => [...withAncestors(zone, name)]));
  const after = await serialNow();
  if (serial === undefined || after !== serial) problems.push(`The serial went from ${serial ?? 'none'} to ${after ?? 'none'} during the walk.`);
  if (!chain.closed && chain.problem === undefined) problems.push('Not every hash between two names could be seen.');
  if (chain.optOut) problems.push('The zone leaves delegations without signatures out of its hashes (RFC 5155 §6).');
  const records = sets.flatMap((set) => set.data.map((data) => ({ owner: set.owner, type: set.type, cls: 1, ttl: set.ttl, data })));
  return {
    complete,
    optOut: chain.optOut,
    names,
    unmatched: chain.unmatched(),
    sets: groupRecords(records),
    serial,
    problems: [...problems, ...missing],
    asked,
  };
}

const ADDRESSES: ReadonlySet<number> = new Set([TYPE_CODES.A, TYPE_CODES.AAAA]);

/** Asks for names that lie where nothing is known, until nothing is unknown, no such name is found, or the answers tell nothing new; then false. */
async function collect(chain: Nsec3Chain, deny: (name: Name) => Promise<void>, options: SurveyOptions): Promise<boolean> {
  const most = options.inFlight ?? IN_FLIGHT;
  let searched = 0;
  let idle = 0;
  while (!chain.closed && chain.problem === undefined && searched < SEARCH && idle < IDLE) {
    const before = chain.size;
    const gaps: Name[] = [];
    for (let tries = 0; tries < BREATH && gaps.length < most; tries++) {
      searched += 1;
      const name = chain.zone.child(label());
      if (!chain.covers(name)) gaps.push(name);
    }
    if (gaps.length > 0) searched = 0;
    else await setImmediate();
    if (options.signal?.aborted) throw new NetError('cancelled', 'cancelled');
    await Promise.all(gaps.map(deny));
    if (gaps.length > 0) idle = chain.size > before ? 0 : idle + 1;
  }
  return chain.problem === undefined && idle < IDLE;
}

function label(): string {
  return randomBytes(8).toString('hex');
}
