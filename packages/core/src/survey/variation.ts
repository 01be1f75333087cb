import { inPrefix, Prefix } from '../dns/prefix';
import { printRdata } from '../dns/rdata';
import { RRset, sameData } from '../dns/record';
import { TYPE_CODES } from '../dns/typeNames';
import { Source, sourceWords } from './evidence';
import { plain } from './words';

/** One more look at a record set. */
export interface Sample {
  readonly server: string;
  readonly address: string;
  /** What was answered; undefined where the server says that there is no such set. */
  readonly seen: Pick<RRset, 'ttl' | 'data'> | undefined;
}

/** Addresses with which a DNS host is known to answer instead of what is stored. */
export interface FrontRange {
  readonly host: string;
  readonly prefix: Prefix;
}

export interface Variation {
  /** How answers differ, in words; undefined where they do not. */
  readonly varying: string | undefined;
  /** One server answers otherwise from one question to the next: a later difference there says little. */
  readonly restless: boolean;
  /** Why what is answered is not what is stored, in words. */
  readonly fronted: string | undefined;
}

/**
 * Holds looks at one set against each other and against the inventory. `expected`: what a server that holds the inventory
 * would answer; undefined where a cut or a DNAME hides the set. `stored`: the transfer that shows what the host stores; then
 * an answer that differs from it is made by the host, or stands in another view. `edited`: the zone was changed while it was looked at, so that
 * one look says nothing against another.
 */
export function judgeSamples(
  set: RRset,
  expected: Pick<RRset, 'data'> | undefined,
  stored: Source | undefined,
  samples: readonly Sample[],
  fronts: readonly FrontRange[],
  edited = false,
): Variation {
  const byServer = new Map<string, Sample[]>();
  for (const sample of samples) byServer.set(sample.address, [...(byServer.get(sample.address) ?? []), sample]);
  const turning = [...byServer.values()].find((all) => all.some((one) => !sameAnswer(set.type, one.seen, all[0]!.seen)));
  return {
    varying: turning
      ? `${at(turning[0]!)} answers with other data from one question to the next: ${different(set.type, turning)}`
      : disagreeing(
          set,
          expected,
          stored,
          [...byServer.values()].map((all) => all[0]!),
        ),
    restless: turning !== undefined,
    fronted: fronted(set, expected, stored, samples, fronts, edited),
  };
}

/** Types that a host may answer from its own edge, or by looking up what an alias leads to. */
export const MAY_BE_MADE: ReadonlySet<number> = new Set([TYPE_CODES.A, TYPE_CODES.AAAA, TYPE_CODES.CNAME, TYPE_CODES.HTTPS]);

/** One answer of each server, held against each other and against what was transferred. */
function disagreeing(set: RRset, expected: Pick<RRset, 'data'> | undefined, stored: Source | undefined, first: readonly Sample[]): string | undefined {
  const other = first.find((one) => !sameAnswer(set.type, one.seen, first[0]!.seen));
  if (other) return `servers differ: ${at(first[0]!)} answers ${shown(set.type, first[0]!.seen)}, ${at(other)} ${shown(set.type, other.seen)}`;
  // All answer alike, and not what was transferred.
  if (!stored || !first[0] || MAY_BE_MADE.has(set.type) || sameAnswer(set.type, first[0].seen, expected)) return undefined;
  return `${at(first[0])} answers ${shown(set.type, first[0].seen)}, and the ${sourceWords(stored)} holds ${shown(set.type, expected)}: a view of its own for the key, or an edit meanwhile`;
}

function fronted(
  set: RRset,
  expected: Pick<RRset, 'data'> | undefined,
  stored: Source | undefined,
  samples: readonly Sample[],
  fronts: readonly FrontRange[],
  edited: boolean,
): string | undefined {
  if (!MAY_BE_MADE.has(set.type)) return undefined;
  const answers = samples.flatMap((sample) => (sample.seen ? [sample.seen] : []));
  for (const data of [...answers, ...(stored ? [] : [set])].flatMap((one) => one.data)) {
    const front = fronts.find(({ prefix }) => inPrefix(prefix, data));
    if (front) return `${printRdata(set.type, data)} is an address of ${front.host}'s own front`;
  }
  if (edited) return undefined;
  if (stored) {
    // A server that is behind is not one that makes answers: what counts is the one that gave the transfer.
    const made = samples.find((sample) => sample.address === stored.address && !sameAnswer(set.type, sample.seen, expected));
    return (
      made && `${at(made)} answers ${shown(set.type, made.seen)}, which is not what its transfer holds: made by the host, or a view of its own for the key`
    );
  }
  // An authority's TTL is always the same one; a TTL that runs down comes from an answer that the host itself looked up.
  for (const sample of samples) {
    const same = samples.filter((one) => one.address === sample.address && one.seen && sample.seen);
    const ttls = [...new Set(same.map((one) => one.seen!.ttl))];
    if (ttls.length > 1) return `its TTL at ${at(sample)} went from ${ttls[0]} to ${ttls[1]} s between two questions: the host looks the value up elsewhere`;
  }
  return undefined;
}

/** Where a server answers otherwise than the others a question to which the inventory has nothing of its own; undefined where it does not. */
export function elsewhere(type: number, expected: Pick<RRset, 'data'> | undefined, samples: readonly Sample[]): string | undefined {
  const other = samples.find((sample) => !sameAnswer(type, sample.seen, expected));
  return other && `${at(other)} answers ${shown(type, other.seen)}`;
}

/** Two answers to one question; undefined: nothing was answered. */
export function sameAnswer(type: number, a: Pick<RRset, 'data'> | undefined, b: Pick<RRset, 'data'> | undefined): boolean {
  return a === b || (a !== undefined && b !== undefined && sameData(type, a.data, b.data));
}

function different(type: number, samples: readonly Sample[]): string {
  return [...new Set(samples.map((sample) => shown(type, sample.seen)))].slice(0, 3).join(', then ');
}

function shown(type: number, seen: Sample['seen'] | Pick<RRset, 'data'>): string {
  return seen
    ? seen.data
        .slice(0, 3)
        .map((data) => printRdata(type, data))
        .join(' and ')
    : 'nothing';
}

function at({ server, address }: Pick<Sample, 'server' | 'address'>): string {
  return `${plain(server)} (${address})`;
}
