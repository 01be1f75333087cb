import { parseRdata } from '../dns/rdata';
import { equalBytes } from '../dns/bytes';
import { dsFits } from '../dns/dsFits';
import { unknownDs } from '../dns/dsKnown';
import { TYPE_CODES } from '../dns/typeNames';
import { isTakeover } from '../move/account';
import { LegPlan, keyOf } from '../move/plan';
import { Said } from '../move/said';
import { Seen, ServerSeen, ZoneSight } from '../move/seen';
import { eff } from './eff';
import { Derived, Instant, SeenBetween, instantTerm, secondsTerm } from './instant';
import { since } from './since';
import { Assumptions, LegTimes } from './times';

/** When a DS may be put in again, and what the parent's DS sets and the keys at the new servers are to each other. */
export interface DsAgain {
  /** Every server of the new host seen to serve keys, and answers and denials signed by them; undefined while one does not. */
  readonly tn: SeenBetween | undefined;
  /** Servers of it that serve none, by name. */
  readonly keyless: readonly string[];
  /** Servers of it that serve keys, and what they gave unsigned; undefined where that was not asked yet. */
  readonly bare: readonly { readonly server: string; readonly what: readonly string[] | undefined }[];
  /** Not before this; `at` Infinity: no bound is known for who is still led to the old servers. Undefined without `tn`. */
  readonly earliest: Derived | undefined;
  /** Servers of the parent whose DS set stands for no key that every new server serves, by tag, algorithm and digest (RFC 4034 §5.1). */
  readonly strange: readonly string[];
  /** What of the parent's DS resolvers in use do not know (`unknownDs`). */
  readonly unknown: string | undefined;
}

/**
 * A DS of the new keys is put in once nobody can be led to servers without them, nor remember anything of theirs, nor anything unsigned
 * from the new ones: max(X + eff(Z_old), tn + eff(Z_new), every R), Z the largest TTL of any answer seen there (RFC 6781 §4.1.2,
 * RFC 4035 §4.3, docs/calculations.md).
 */
export function dsAgain({
  plan,
  seen,
  said,
  times,
  assumed,
  now,
}: {
  readonly plan: LegPlan;
  readonly seen: Pick<Seen, 'parent' | 'zones'>;
  readonly said: Said;
  readonly times: LegTimes;
  readonly assumed: Assumptions;
  readonly now: Instant;
}): DsAgain {
  const apex = keyOf(plan.zone, TYPE_CODES.DNSKEY);
  const fresh = new Set(plan.newServers.map((one) => one.address));
  const asked = seen.zones.filter((one) => fresh.has(one.address) && !said.aside.has(one.address));
  // The same servers gave the keys of the account before: those say nothing.
  const from = isTakeover(plan) ? (times.t0?.firstNew ?? Infinity) : -Infinity;
  const keysAt = asked.map(({ server, address, sightings }) => ({
    server,
    address,
    sightings: sightings.flatMap((one) => {
      const keys = one.value.sets[apex]?.data;
      return keys && one.first >= from ? [{ ...one, value: { keys, unsigned: one.value.unsigned } }] : [];
    }),
  }));
  const latest = keysAt.map(({ server, sightings }) => ({ server, keys: sightings.at(-1)?.value.keys ?? [], unsigned: sightings.at(-1)?.value.unsigned }));
  const keyless = latest.filter(({ keys }) => keys.length === 0).map((one) => one.server);
  const bare = latest.flatMap(({ server, keys, unsigned }) => (keys.length > 0 && unsigned?.length !== 0 ? [{ server, what: unsigned }] : []));
  const lacks = keyless.length + bare.length;
  const gone = lacks === 0 ? since(keysAt, ({ keys, unsigned }) => keys.length > 0 && unsigned?.length === 0, now).all : undefined;
  const tn = gone && { lastOld: gone.lastOld, firstNew: gone.firstNew + assumed.hostAllowance };
  const shared = sharedKeys(latest.map(({ keys }) => keys));
  const fits = (ds: string): boolean => shared.some((key) => dsFits(plan.zone, parseRdata(TYPE_CODES.DS, ds), key) === true);
  const strange = seen.parent.flatMap(({ server, sightings }) => {
    const ds = sightings.at(-1)?.value.ds ?? [];
    // One that nobody knows is no DS to whoever does not (RFC 4035 §5.2).
    return ds.length > 0 && !ds.some(fits) && unknownDs(ds) === undefined ? [server] : [];
  });
  const unknown = unknownDs(seen.parent.flatMap(({ sightings }) => sightings.at(-1)?.value.ds ?? []));
  return { tn, keyless, bare, earliest: tn && earliestOf(tn, { plan, seen, times, assumed }, fresh), strange, unknown };
}

function earliestOf(
  tn: SeenBetween,
  { plan, seen, times, assumed }: Pick<Parameters<typeof dsAgain>[0], 'plan' | 'seen' | 'times' | 'assumed'>,
  fresh: ReadonlySet<string>,
): Derived {
  const found = plan.rulings.flatMap((row) => row.found?.ttl ?? []);
  const planned = plan.rulings.flatMap((row) => row.planned?.ttl ?? []);
  const old = Math.max(0, plan.keysTtl ?? 0, ...found, ...ttlsAt(seen.zones.filter((one) => !fresh.has(one.address))));
  const now = Math.max(0, ...planned, ...ttlsAt(seen.zones.filter((one) => fresh.has(one.address))));
  const left = times.extended.at + eff(old, assumed.floor);
  const signed = tn.firstNew + eff(now, assumed.floor);
  return {
    at: Math.max(left, signed, times.last.at),
    formula: 'max(X + eff(Z_old), tn + eff(Z_new), R)',
    terms: [
      instantTerm('X', 'nobody is led to the old servers any more', times.extended.at),
      secondsTerm('Z_old', 'the largest TTL of an answer of the old zone', old),
      instantTerm('tn', 'every new server seen to serve keys, and answers signed by them', tn.firstNew),
      secondsTerm('Z_new', 'the largest TTL of an answer of the new zone', now),
      instantTerm('R', 'the last old answer has run out', times.last.at),
      secondsTerm('f', 'floor a cache may apply', assumed.floor),
    ],
    follows: 'RFC 6781 §4.1.2, RFC 4035 §4.3',
  };
}

function ttlsAt(servers: readonly ServerSeen<ZoneSight>[]): number[] {
  return servers.flatMap(({ sightings }) => sightings.flatMap(({ value }) => Object.values(value.sets).map((one) => one.ttl)));
}

/** Data of each key that every one of the sets has. */
function sharedKeys(sets: readonly (readonly string[])[]): Uint8Array[] {
  const [first = [], ...others] = sets.map((keys) => keys.map((text) => parseRdata(TYPE_CODES.DNSKEY, text)));
  return first.filter((key) => others.every((keys) => keys.some((one) => equalBytes(one, key))));
}
