import { compareBytes, equalBytes, toHex } from './bytes';
import { Name } from './name';
import { NameMap } from './nameMap';
import { canonicalRdata } from './rdata';
import { ResourceRecord } from './record';
import { TYPE_CODES } from './typeNames';
import { ZoneFile } from './zoneFile';

/** One owner name of a zone. Its records stand in the zone's list from `start` to before `end`. */
export interface ZoneNode {
  readonly owner: Name;
  readonly start: number;
  readonly end: number;
}

export interface Repetition {
  /** Where the record stands in the zone file's list. */
  readonly index: number;
  readonly kind: 'repeated' | 'ttl-differs';
  /** The TTL that counts. */
  readonly ttl: number;
}

/**
 * What a server would serve of a zone file, in canonical order (RFC 4034 §6): out-of-zone data and repetitions left out,
 * one TTL a set. Lists instead of objects, so that a million records fit.
 */
export class ZoneContents {
  readonly records: ResourceRecord[] = [];
  /** Where each record stands in the zone file's list. */
  readonly indexes: number[] = [];
  readonly nodes: ZoneNode[] = [];
  readonly outside: number[] = [];
  readonly repetitions: Repetition[] = [];
  private readonly byName: NameMap<number>;
  /** Where in `nodes` each owner of `byName` stands. */
  private readonly places: number[] = [];
  private between: NameMap<true> | undefined;
  /** Owners of NS sets below the apex, and of DNAMEs: what is under them is not served. */
  private readonly cuts = new NameMap<ResourceRecord>();
  private cutAtApex: ResourceRecord | undefined;

  constructor(
    private readonly file: ZoneFile,
    readonly origin: Name,
  ) {
    this.byName = new NameMap(file.records.length / 2);
    const { firsts, next } = this.chain();
    const owners = this.byName.names();
    const indexes: number[] = [];
    for (const owner of canonicalOrder(owners)) {
      const start = this.records.length;
      const first = firsts[owner]!;
      if (next[first]! < 0) this.put(first, file.records[first]!);
      else {
        indexes.length = 0;
        for (let index = first; index >= 0; index = next[index]!) indexes.push(index);
        this.putTidied(indexes);
      }
      this.places[owner] = this.nodes.length;
      this.nodes.push({ owner: owners[owner]!, start, end: this.records.length });
      for (let i = start; i < this.records.length; i++) this.note(this.records[i]!);
    }
  }

  /** Strings the records of each owner together: its first, and for each record the one after it, or -1. */
  private chain(): { firsts: number[]; next: Int32Array } {
    const { records } = this.file;
    const next = new Int32Array(records.length).fill(-1);
    const firsts: number[] = [];
    const lasts: number[] = [];
    let owner = -1;
    let before: Name | undefined;
    for (let index = 0; index < records.length; index++) {
      const name = records[index]!.owner;
      if (before !== name) {
        if (!name.isAtOrBelow(this.origin)) {
          this.outside.push(index);
          continue;
        }
        before = name;
        owner = this.byName.getOr(name, () => firsts.length);
      }
      if (owner === firsts.length) firsts.push(index);
      else next[lasts[owner]!] = index;
      lasts[owner] = index;
    }
    return { firsts, next };
  }

  private put(index: number, record: ResourceRecord): void {
    this.records.push(record);
    this.indexes.push(index);
  }

  private note(record: ResourceRecord): void {
    if (record.type !== TYPE_CODES.NS && record.type !== TYPE_CODES.DNAME) return;
    if (record.owner.equals(this.origin)) {
      if (record.type === TYPE_CODES.DNAME) this.cutAtApex = record;
    } else if (!this.cuts.has(record.owner)) this.cuts.set(record.owner, record);
  }

  /** A node's records in order, without repetitions, each set with the TTL of its first record. */
  private putTidied(indexes: readonly number[]): void {
    const all = indexes.map((index) => {
      const record = this.file.records[index]!;
      return { index, record, set: setOf(record), canonical: undefined as Uint8Array | undefined };
    });
    all.sort((a, b) => a.set - b.set || a.index - b.index);
    for (let from = 0; from < all.length;) {
      let to = from + 1;
      while (to < all.length && all[to]!.set === all[from]!.set) to += 1;
      if (to - from === 1) this.put(all[from]!.index, all[from]!.record);
      else this.putSet(all.slice(from, to));
      from = to;
    }
  }

  private putSet(members: { index: number; record: ResourceRecord; canonical: Uint8Array | undefined }[]): void {
    const { ttl, owner } = members[0]!.record;
    const seen = members.length > 12 ? new Map<string, number>() : undefined;
    const kept: { index: number; record: ResourceRecord; canonical: Uint8Array }[] = [];
    for (const { index, record } of members) {
      const canonical = canonicalRdata(record.type, record.data);
      if (record.ttl !== ttl) this.repetitions.push({ index, kind: 'ttl-differs', ttl });
      const key = seen && toHex(canonical);
      // TTL and spelling of a set are those of its first record.
      const one = { index, record: record.ttl === ttl && record.owner === owner ? record : { ...record, ttl, owner }, canonical };
      const at = key === undefined ? kept.findIndex((other) => equalBytes(other.canonical, canonical)) : (seen!.get(key) ?? -1);
      if (at < 0) {
        seen?.set(key!, kept.length);
        kept.push(one);
      } else {
        // Of two that differ in letter case only, servers keep the later.
        this.repetitions.push({ index, kind: 'repeated', ttl });
        kept[at] = one;
      }
    }
    kept.sort((a, b) => compareBytes(a.canonical, b.canonical));
    for (const one of kept) this.put(one.index, one.record);
  }

  node(owner: Name): ZoneNode | undefined {
    const found = this.byName.get(owner);
    return found === undefined ? undefined : this.nodes[this.places[found]!];
  }

  at(owner: Name, type: number): ResourceRecord[] {
    const node = this.node(owner);
    return node ? this.records.slice(node.start, node.end).filter((record) => record.type === type) : [];
  }

  has(owner: Name, type: number): boolean {
    const node = this.node(owner);
    if (node) for (let i = node.start; i < node.end; i++) if (this.records[i]!.type === type) return true;
    return false;
  }

  /** True for owners and for names between them and the apex, empty ones included (RFC 4592 §2.2.2). */
  exists(name: Name): boolean {
    if (!this.between) {
      this.between = new NameMap();
      for (const { owner } of this.nodes)
        for (let above = owner.parent; above.isAtOrBelow(this.origin) && !this.between.has(above); above = above.parent) this.between.set(above, true);
    }
    return this.between.has(name) || this.byName.has(name);
  }

  /** The delegation or DNAME that hides a name; undefined where it is served. */
  hiddenBy(owner: Name): ResourceRecord | undefined {
    const least = this.origin.size;
    if (owner.size <= least) return undefined;
    // Names right below the apex, which most are, need no look.
    for (let length = owner.size - owner.firstSize, above = owner; length > least && this.cuts.size > 0;) {
      above = above.parent;
      const cut = this.cuts.get(above);
      if (cut) return cut;
      length -= above.firstSize;
    }
    return this.cutAtApex;
  }
}

/** What makes a set, in the order of types: the type, and for signatures the type they cover as well (RFC 4034 §3). */
function setOf(record: ResourceRecord): number {
  const covers = record.type === TYPE_CODES.RRSIG || record.type === TYPE_CODES.SIG;
  return record.type * 0x1_0000 + (covers ? (record.data[0]! << 8) | record.data[1]! : 0);
}

/** The numbers of names in canonical order. Files are often sorted already; finding that out costs little. */
function canonicalOrder(names: readonly Name[]): Uint32Array {
  const keys: string[] = [];
  let inOrder = true;
  for (const name of names) {
    const key = name.sortKey;
    if (inOrder && keys.length > 0 && keys[keys.length - 1]! >= key) inOrder = false;
    keys.push(key);
  }
  const order = Uint32Array.from(names, (_, i) => i);
  return inOrder ? order : order.sort((a, b) => (keys[a]! < keys[b]! ? -1 : 1));
}
