import { Name } from '../dns/name';
import { NameMap } from '../dns/nameMap';
import { namesIn, printRdata } from '../dns/rdata';
import { RRset } from '../dns/record';
import { isReverse } from '../dns/reverse';
import { TYPE_CODES } from '../dns/typeNames';

/** What a name that a record leads to ends at. */
export interface End {
  readonly target: Name;
  /** Addresses in the end; empty where there are none. */
  readonly addresses: readonly string[];
}

/** Types whose target is what counts: the record stays the same, and what it means changes with its target. */
const FOLLOWED: ReadonlySet<number> = new Set([TYPE_CODES.CNAME, TYPE_CODES.MX, TYPE_CODES.SRV, TYPE_CODES.DNAME, TYPE_CODES.HTTPS, TYPE_CODES.SVCB]);
const HOPS = 8;

/** Names outside the zone that its records lead to, and whose addresses have to be asked for. */
export function targetsOutside(zone: Name, sets: readonly RRset[]): readonly Name[] {
  const targets = new NameMap<true>();
  for (const set of sets) for (const target of followedBy(set)) if (!target.isAtOrBelow(zone) && !target.isRoot) targets.set(target, true);
  return targets.names();
}

/** Follows names along a zone's own records inside it, and to what was asked outside of it. */
export class Follower {
  private readonly aliases = new NameMap<Name>();
  private readonly addresses = new NameMap<string[]>();
  private readonly outside = new NameMap<readonly string[]>();
  private readonly existing = new NameMap<true>();

  constructor(sets: readonly RRset[], outside: readonly End[]) {
    for (const { target, addresses } of outside) this.outside.set(target, addresses);
    for (const set of sets) {
      for (let at: Name | undefined = set.owner; at && !this.existing.has(at); at = at.isRoot ? undefined : at.parent) this.existing.set(at, true);
      const target = set.type === TYPE_CODES.CNAME ? namesIn(set.type, set.data[0]!)[0] : undefined;
      if (target) this.aliases.set(set.owner, target);
      else if (set.type === TYPE_CODES.A || set.type === TYPE_CODES.AAAA)
        this.addresses.getOr(set.owner, () => []).push(...set.data.map((data) => printRdata(set.type, data)));
    }
  }

  /** What each record of a set ends at; empty for sets that lead nowhere. That there is no address says nothing of those that need none. */
  endsOf(set: RRset): End[] {
    const all = followedBy(set)
      .filter((target) => !target.isRoot)
      .map((target) => ({ target, addresses: this.addressesOf(target) }));
    return isForAddresses(set) ? all : all.filter(({ addresses }) => addresses.length > 0);
  }

  /** Addresses of a name; empty where none is known. */
  addressesOf(name: Name): readonly string[] {
    const last = this.lastOf(name);
    return this.outside.get(last) ?? this.addresses.get(this.sourceOf(last)) ?? [];
  }

  /** The name that the zone's aliases lead to in the end, in the zone or outside of it. */
  lastOf(name: Name): Name {
    let at = name;
    for (let hop = 0; hop < HOPS; hop++) {
      const alias = this.outside.has(at) ? undefined : this.aliases.get(this.sourceOf(at));
      if (!alias) return at;
      at = alias;
    }
    return at;
  }

  /** Whose records answer for a name: its own, or those of the wildcard below its closest encloser (RFC 4592 §3.3.1). */
  private sourceOf(name: Name): Name {
    if (this.existing.has(name)) return name;
    let encloser = name;
    while (!encloser.isRoot && !this.existing.has(encloser)) encloser = encloser.parent;
    return encloser.child('*');
  }
}

const UNDERSCORE = 95;

/**
 * Whether what a set leads to has to have an address. Not where an alias stands at a name for data alone, as of a key or a challenge (RFC 8552),
 * or at that of an address (RFC 2317); nor the top of a subtree that is elsewhere (RFC 6672).
 */
function isForAddresses({ owner, type }: RRset): boolean {
  if (type === TYPE_CODES.DNAME) return false;
  return type !== TYPE_CODES.CNAME || !(isReverse(owner) || owner.labels.some((label) => label[0] === UNDERSCORE));
}

function followedBy(set: RRset): Name[] {
  return FOLLOWED.has(set.type) ? set.data.flatMap((data) => namesIn(set.type, data)) : [];
}
