import { toBase32Hex, fromBase32Hex } from '../dns/base32';
import { ByteReader, asciiText, fromHex, toHex } from '../dns/bytes';
import { Name } from '../dns/name';
import { ResourceRecord } from '../dns/record';
import { readTypeBits } from '../dns/typeBits';
import { TYPE_CODES } from '../dns/typeNames';

/** SHA-1 of some octets: cryptography is the caller's. */
export type Sha1 = (data: Uint8Array) => Uint8Array;

export interface Nsec3Params {
  readonly iterations: number;
  readonly salt: Uint8Array;
}

/** The hash of a name (RFC 5155 §5), 20 octets. */
export function nsec3Hash(sha1: Sha1, name: Name, { iterations, salt }: Nsec3Params): Uint8Array {
  const salted = (octets: Uint8Array): Uint8Array => {
    const all = new Uint8Array(octets.length + salt.length);
    all.set(octets);
    all.set(salt, octets.length);
    return sha1(all);
  };
  let hash = salted(name.lower.wire);
  for (let round = 0; round < iterations; round++) hash = salted(hash);
  return hash;
}

interface Link {
  readonly next: string;
  readonly types: readonly number[];
  readonly optOut: boolean;
}

/** Iterations above which nobody should be made to hash (RFC 9276 §3.2). */
const MOST_ITERATIONS = 150;
/** Owners that are collected. */
const LIMIT = 20_000;
/** First hex digits of a hash in which owner and next agree where a denial was made for one question: no real zone is that dense. */
const MADE_UP_DIGITS = 20;

/**
 * The hashed owners of a zone, collected from denials (RFC 5155 §7.2): which hashes exist, with which types, and whether
 * the ring of them is closed. Names are put to hashes by hashing names that may be there.
 */
export class Nsec3Chain {
  private readonly links = new Map<string, Link>();
  private readonly named = new Set<string>();
  private readonly matched = new Map<string, Name>();
  /** Led to, and not seen. */
  private readonly loose = new Set<string>();
  private readonly toAsk: Name[] = [];
  private hashes: string[] = [];
  private seen: Nsec3Params | undefined;
  private trouble: string | undefined;

  constructor(
    readonly zone: Name,
    private readonly sha1: Sha1,
  ) {}

  get params(): Nsec3Params | undefined {
    return this.seen;
  }

  /** Why it cannot be collected, in words. */
  get problem(): string | undefined {
    return this.trouble;
  }

  get size(): number {
    return this.links.size;
  }

  /** Unsigned delegations may stand between the hashes of it (RFC 5155 §6). */
  get optOut(): boolean {
    return [...this.links.values()].some((link) => link.optOut);
  }

  /** Every hash leads to a known one, all round and in one ring. */
  get closed(): boolean {
    const [first] = this.links.keys();
    if (first === undefined || this.loose.size > 0) return false;
    let at = first;
    for (let count = 1; count <= this.links.size; count++) {
      const link = this.links.get(at);
      if (!link) return false;
      at = link.next;
      if (at === first) return count === this.links.size;
    }
    return false;
  }

  /** Takes the NSEC3 records out of an answer; gives how many were new. */
  take(records: readonly ResourceRecord[]): number {
    let fresh = 0;
    for (const record of records) {
      if (record.type !== TYPE_CODES.NSEC3 || !record.owner.isBelow(this.zone) || !record.owner.parent.equals(this.zone)) continue;
      const octets = fromBase32Hex(asciiText(record.owner.labels[0]!).toUpperCase());
      const reader = new ByteReader(record.data);
      const algorithm = reader.u8();
      const flags = reader.u8();
      const params = { iterations: reader.u16(), salt: reader.bytes(reader.u8()) };
      const next = toHex(reader.bytes(reader.u8()));
      if (algorithm !== 1 || octets?.length !== 20 || next.length !== 40) continue;
      if (params.iterations > MOST_ITERATIONS) {
        this.trouble = `Its names are hashed ${params.iterations} times over, which nobody should be made to do (RFC 9276).`;
        return fresh;
      }
      // A zone between two sets of parameters has two rings; the first one seen is followed.
      this.seen ??= params;
      if (this.seen.iterations !== params.iterations || toHex(this.seen.salt) !== toHex(params.salt)) continue;
      const hash = toHex(octets);
      if (this.links.has(hash)) continue;
      if (hash !== next && hash.slice(0, MADE_UP_DIGITS) === next.slice(0, MADE_UP_DIGITS)) {
        this.trouble = 'The server makes up denials for each question (RFC 4470, RFC 9824): its hashes cannot be collected.';
        return fresh;
      }
      if (this.links.size >= LIMIT) {
        this.trouble = `The zone has more than ${LIMIT} hashed names.`;
        return fresh;
      }
      this.loose.delete(hash);
      if (!this.links.has(next) && next !== hash) this.loose.add(next);
      this.links.set(hash, { next, types: readTypeBits(reader), optOut: (flags & 1) === 1 });
      this.insert(hash);
      fresh += 1;
    }
    return fresh;
  }

  /** True where it is known what a name's hash is or lies between: asking for it tells nothing new. */
  covers(name: Name): boolean {
    if (!this.seen || this.hashes.length === 0) return false;
    const hash = toHex(nsec3Hash(this.sha1, name, this.seen));
    const below = this.hashes[this.indexAfter(hash) - 1] ?? this.hashes.at(-1)!;
    const link = this.links.get(below)!;
    if (below === hash) return true;
    // The last one leads round to the first.
    return below < link.next ? below < hash && hash < link.next : hash > below || hash < link.next;
  }

  /** Puts a name to its hash; gives the types that stand there, or undefined where no such hash exists. Each name once. */
  match(name: Name): readonly number[] | undefined {
    if (!this.seen || this.named.has(name.key)) return undefined;
    this.named.add(name.key);
    const hash = toHex(nsec3Hash(this.sha1, name, this.seen));
    const link = this.links.get(hash);
    if (!link) {
      if (this.loose.has(hash)) this.toAsk.push(name);
      return undefined;
    }
    this.matched.set(hash, name);
    return link.types;
  }

  /**
   * Names that were put to a hash that another one leads to and that was not seen itself: gaps too small to be hit by chance.
   * Asking for one gives its record. They can be matched again afterwards.
   */
  takeToAsk(): Name[] {
    const names = this.toAsk.splice(0);
    for (const name of names) this.named.delete(name.key);
    return names;
  }

  /** Hashes that no name was put to, as owners, with the types that stand there. */
  unmatched(): { readonly owner: Name; readonly types: readonly number[] }[] {
    return this.hashes
      .filter((hash) => !this.matched.has(hash))
      .map((hash) => ({ owner: this.zone.child(toBase32Hex(fromHex(hash)).toLowerCase()), types: this.links.get(hash)!.types }));
  }

  private insert(hash: string): void {
    this.hashes.splice(this.indexAfter(hash), 0, hash);
  }

  /** How many of the sorted hashes are not above one. */
  private indexAfter(hash: string): number {
    let low = 0;
    let high = this.hashes.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.hashes[middle]! <= hash) low = middle + 1;
      else high = middle;
    }
    return low;
  }
}
