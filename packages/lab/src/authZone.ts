import {
  CLASS_ANY,
  CLASS_IN,
  CLASS_NONE,
  Message,
  Name,
  RCODE,
  RRset,
  ResourceRecord,
  TYPE_CODES,
  groupRecords,
  namesIn,
  readSoa,
  recordsOf,
  rrsetKey,
  sameData,
} from '@wanderon/core';

export interface Found {
  readonly rcode: number;
  readonly authoritative: boolean;
  readonly answers: readonly ResourceRecord[];
  readonly authorities: readonly ResourceRecord[];
  readonly additionals: readonly ResourceRecord[];
}

/** One zone as an authoritative server holds it: answers of RFC 1034 §4.3.2 and RFC 4592, changes of RFC 2136 §3. */
export class AuthZone {
  private sets = new Map<string, RRset>();
  private nodes = new Map<string, Set<number>>();
  private ancestors = new Set<string>();

  constructor(
    readonly origin: Name,
    records: Iterable<ResourceRecord>,
  ) {
    for (const set of groupRecords(records)) this.sets.set(rrsetKey(set.owner, set.type), set);
    if (!this.get(origin, TYPE_CODES.SOA)) throw new RangeError(`${origin.toString()} has no SOA`);
    this.index();
  }

  get(owner: Name, type: number): RRset | undefined {
    return this.sets.get(rrsetKey(owner, type));
  }

  get soa(): RRset {
    return this.get(this.origin, TYPE_CODES.SOA)!;
  }

  get serial(): number {
    return readSoa(this.soa.data[0]!).serial;
  }

  all(): RRset[] {
    return [...this.sets.values()];
  }

  /** In the order of a transfer: the SOA first and last (RFC 5936 §2.2). */
  transfer(): ResourceRecord[] {
    const soa = recordsOf(this.soa);
    return [
      ...soa,
      ...this.all()
        .filter((set) => set !== this.soa)
        .flatMap(recordsOf),
      ...soa,
    ];
  }

  copy(): AuthZone {
    return new AuthZone(this.origin, this.all().flatMap(recordsOf));
  }

  /** Replaces a set, or removes it where `data` is empty, and moves the serial on. */
  put(owner: Name, type: number, ttl: number, data: readonly Uint8Array[]): void {
    if (data.length === 0) this.sets.delete(rrsetKey(owner, type));
    else this.sets.set(rrsetKey(owner, type), { owner, type, ttl, data });
    this.bump();
  }

  lookUp(name: Name, type: number): Found {
    const answers: ResourceRecord[] = [];
    let target = name;
    for (let hops = 0; hops < 9; hops++) {
      const cut = this.cutAbove(target, type);
      if (cut) return { rcode: 0, authoritative: answers.length > 0, answers, authorities: recordsOf(cut), additionals: this.addressesFor(cut) };
      const node = this.nodeFor(target);
      if (!node) return { rcode: answers.length > 0 ? 0 : RCODE.NXDOMAIN, authoritative: true, answers, authorities: this.denial(), additionals: [] };
      const set = this.get(node, type);
      if (set) {
        answers.push(...recordsOf({ ...set, owner: target }));
        const apexNs = this.get(this.origin, TYPE_CODES.NS);
        const authorities = apexNs && !(type === TYPE_CODES.NS && target.equals(this.origin)) ? recordsOf(apexNs) : [];
        return {
          rcode: 0,
          authoritative: true,
          answers,
          authorities,
          additionals: type === TYPE_CODES.NS || type === TYPE_CODES.MX ? this.addressesFor(set) : [],
        };
      }
      const alias = this.get(node, TYPE_CODES.CNAME);
      if (!alias) return { rcode: 0, authoritative: true, answers, authorities: this.denial(), additionals: [] };
      answers.push(...recordsOf({ ...alias, owner: target }));
      const next = namesIn(alias.type, alias.data[0]!)[0]!;
      if (!next.isAtOrBelow(this.origin)) return { rcode: 0, authoritative: true, answers, authorities: [], additionals: [] };
      target = next;
    }
    return { rcode: RCODE.SERVFAIL, authoritative: true, answers: [], authorities: [], additionals: [] };
  }

  /** RFC 2136 §3.2 to §3.4: all prerequisites hold and all changes happen, or none does. Gives the response code and whether anything changed. */
  update(message: Message): { rcode: number; changed: boolean } {
    const failed = this.prerequisites(message.answers);
    if (failed !== RCODE.NOERROR) return { rcode: failed, changed: false };
    for (const record of message.authorities) {
      if (!record.owner.isAtOrBelow(this.origin)) return { rcode: RCODE.NOTZONE, changed: false };
      const meta = record.type >= 128 && record.type <= 255 && record.type !== TYPE_CODES.ANY;
      if (meta || (record.type === TYPE_CODES.ANY && record.cls !== CLASS_ANY)) return { rcode: RCODE.FORMERR, changed: false };
    }
    let changed = false;
    for (const record of message.authorities) changed = this.change(record) || changed;
    if (changed) this.bump();
    return { rcode: RCODE.NOERROR, changed };
  }

  private prerequisites(records: readonly ResourceRecord[]): number {
    const dependent = new Map<string, ResourceRecord[]>();
    for (const record of records) {
      const there = this.nodes.has(record.owner.key);
      const set = this.get(record.owner, record.type);
      if (record.cls === CLASS_ANY && record.type === TYPE_CODES.ANY && !there) return RCODE.NXDOMAIN;
      if (record.cls === CLASS_ANY && record.type !== TYPE_CODES.ANY && !set) return RCODE.NXRRSET;
      if (record.cls === CLASS_NONE && record.type === TYPE_CODES.ANY && there) return RCODE.YXDOMAIN;
      if (record.cls === CLASS_NONE && record.type !== TYPE_CODES.ANY && set) return RCODE.YXRRSET;
      if (record.cls === CLASS_IN) {
        const key = rrsetKey(record.owner, record.type);
        dependent.set(key, [...(dependent.get(key) ?? []), record]);
      }
    }
    for (const group of dependent.values()) {
      const set = this.get(group[0]!.owner, group[0]!.type);
      if (
        !set ||
        !sameData(
          set.type,
          set.data,
          group.map((record) => record.data),
        )
      )
        return RCODE.NXRRSET;
    }
    return RCODE.NOERROR;
  }

  private change(record: ResourceRecord): boolean {
    const atApex = record.owner.equals(this.origin);
    const key = rrsetKey(record.owner, record.type);
    const set = this.sets.get(key);
    const own = record.type === TYPE_CODES.SOA || (record.type === TYPE_CODES.NS && atApex);
    if (record.cls === CLASS_ANY) {
      if (record.type === TYPE_CODES.ANY) {
        const doomed = this.all().filter((one) => one.owner.equals(record.owner) && !(atApex && (one.type === TYPE_CODES.SOA || one.type === TYPE_CODES.NS)));
        for (const one of doomed) this.sets.delete(rrsetKey(one.owner, one.type));
        return doomed.length > 0;
      }
      return !(own && atApex) && this.sets.delete(key);
    }
    if (record.cls === CLASS_NONE) {
      if (!set || record.type === TYPE_CODES.SOA) return false;
      const left = set.data.filter((data) => !sameData(record.type, [data], [record.data]));
      if (left.length === set.data.length || (left.length === 0 && own)) return false;
      if (left.length === 0) this.sets.delete(key);
      else this.sets.set(key, { ...set, data: left });
      return true;
    }
    if (record.type === TYPE_CODES.SOA) return false;
    const others = this.all().some((one) => one.owner.equals(record.owner) && one.type !== TYPE_CODES.CNAME);
    if (record.type === TYPE_CODES.CNAME ? others : this.get(record.owner, TYPE_CODES.CNAME)) return false;
    const before = set?.data ?? [];
    const known = before.some((data) => sameData(record.type, [data], [record.data]));
    if (known && set!.ttl === record.ttl) return false;
    const data = record.type === TYPE_CODES.CNAME ? [record.data] : known ? before : [...before, record.data];
    this.sets.set(key, { owner: record.owner, type: record.type, ttl: record.ttl, data });
    return true;
  }

  private bump(): void {
    const data = this.soa.data[0]!.slice();
    const view = new DataView(data.buffer);
    view.setUint32(data.length - 20, (this.serial + 1) >>> 0);
    this.sets.set(rrsetKey(this.origin, TYPE_CODES.SOA), { ...this.soa, data: [data] });
    this.index();
  }

  private index(): void {
    this.nodes = new Map();
    this.ancestors = new Set();
    for (const set of this.sets.values()) {
      const types = this.nodes.get(set.owner.key);
      if (types) types.add(set.type);
      else this.nodes.set(set.owner.key, new Set([set.type]));
      for (let above = set.owner; above.isBelow(this.origin); above = above.parent) this.ancestors.add(above.parent.key);
    }
  }

  private cutAbove(name: Name, type: number): RRset | undefined {
    const below = name.labelCount - this.origin.labelCount;
    for (let depth = 1; depth <= below; depth++) {
      const at = Name.fromLabels(name.labels.slice(below - depth));
      const ns = this.get(at, TYPE_CODES.NS);
      if (ns && !(type === TYPE_CODES.DS && at.equals(name))) return ns;
    }
    return undefined;
  }

  /** The owner whose data answers for a name: itself, or the wildcard of its closest encloser (RFC 4592 §3.3.1). */
  private nodeFor(name: Name): Name | undefined {
    if (this.nodes.has(name.key) || this.ancestors.has(name.key)) return name;
    let encloser = name.parent;
    while (!this.nodes.has(encloser.key) && !this.ancestors.has(encloser.key)) encloser = encloser.parent;
    const wildcard = encloser.child('*');
    return this.nodes.has(wildcard.key) ? wildcard : undefined;
  }

  private denial(): ResourceRecord[] {
    const ttl = Math.min(this.soa.ttl, readSoa(this.soa.data[0]!).minimum);
    return recordsOf({ ...this.soa, ttl });
  }

  private addressesFor(set: RRset): ResourceRecord[] {
    return set.data
      .flatMap((data) => namesIn(set.type, data))
      .flatMap((target) => [this.get(target, TYPE_CODES.A), this.get(target, TYPE_CODES.AAAA)])
      .flatMap((one) => (one ? recordsOf(one) : []));
  }
}
