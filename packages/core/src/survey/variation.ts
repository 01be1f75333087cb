import { inPrefix, Prefix } from '../dns/prefix';
import { printRdata } from '../dns/rdata';
import { RRset, sameData } from '../dns/record';
import { TYPE_CODES } from '../dns/typeNames';
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
  /** Why what is answered is not what is stored, in words. */
  readonly fronted: string | undefined;
}

/**
 * Holds looks at one set against each other and against the inventory. `stored`: the set is what the host stores, from a
 * transfer; then an answer that differs from it is made by the host.
 */
export function judgeSamples(set: RRset, stored: boolean, samples: readonly Sample[], fronts: readonly FrontRange[]): Variation {
  return { varying: varying(set, samples), fronted: fronted(set, stored, samples, fronts) };
}

/** Types that a host may answer from its own edge, or by looking up what an alias leads to. */
export const MAY_BE_MADE: ReadonlySet<number> = new Set([TYPE_CODES.A, TYPE_CODES.AAAA, TYPE_CODES.CNAME, TYPE_CODES.HTTPS]);

function varying(set: RRset, samples: readonly Sample[]): string | undefined {
  const byServer = new Map<string, Sample[]>();
  for (const sample of samples) byServer.set(sample.address, [...(byServer.get(sample.address) ?? []), sample]);
  for (const all of byServer.values())
    if (all.some((one) => !alike(set.type, one.seen, all[0]!.seen)))
      return `${at(all[0]!)} answers with other data from one question to the next: ${different(set.type, all)}`;
  const first = [...byServer.values()].map((all) => all[0]!);
  const other = first.find((one) => !alike(set.type, one.seen, first[0]!.seen));
  return other && `servers differ: ${at(first[0]!)} answers ${shown(set.type, first[0]!.seen)}, ${at(other)} ${shown(set.type, other.seen)}`;
}

function fronted(set: RRset, stored: boolean, samples: readonly Sample[], fronts: readonly FrontRange[]): string | undefined {
  if (!MAY_BE_MADE.has(set.type)) return undefined;
  const answers = samples.flatMap((sample) => (sample.seen ? [sample.seen] : []));
  for (const data of [...answers, ...(stored ? [] : [set])].flatMap((one) => one.data)) {
    const front = fronts.find(({ prefix }) => inPrefix(prefix, data));
    if (front) return `${printRdata(set.type, data)} is an address of ${front.host}'s own front`;
  }
  if (stored) {
    const made = samples.find((sample) => !alike(set.type, sample.seen, set));
    return made && `${at(made)} answers ${shown(set.type, made.seen)}, which is not what it stores`;
  }
  // An authority's TTL is always the same one; a TTL that runs down comes from an answer that the host itself looked up.
  for (const sample of samples) {
    const same = samples.filter((one) => one.address === sample.address && one.seen && sample.seen);
    const ttls = [...new Set(same.map((one) => one.seen!.ttl))];
    if (ttls.length > 1) return `its TTL at ${at(sample)} went from ${ttls[0]} to ${ttls[1]} s between two questions: the host looks the value up elsewhere`;
  }
  return undefined;
}

function alike(type: number, a: Pick<RRset, 'data'> | undefined, b: Pick<RRset, 'data'> | undefined): boolean {
  return a === b || (a !== undefined && b !== undefined && sameData(type, a.data, b.data));
}

function different(type: number, samples: readonly Sample[]): string {
  return [...new Set(samples.map((sample) => shown(type, sample.seen)))].slice(0, 3).join(', then ');
}

function shown(type: number, seen: Sample['seen']): string {
  return seen
    ? seen.data
        .slice(0, 3)
        .map((data) => printRdata(type, data))
        .join(' and ')
    : 'nothing';
}

function at({ server, address }: Sample): string {
  return `${plain(server)} (${address})`;
}
