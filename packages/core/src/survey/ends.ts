import { Name } from '../dns/name';
import { NameMap } from '../dns/nameMap';
import { namesIn, printRdata } from '../dns/rdata';
import { RRset } from '../dns/record';
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

/** What each record of a set ends at; inside the zone along its own records, outside as it was asked. Empty for sets that lead nowhere. */
export function endsOf(set: RRset, sets: readonly RRset[], outside: readonly End[]): End[] {
  return followedBy(set)
    .filter((target) => !target.isRoot)
    .map((target) => ({ target, addresses: addressesFor(target, sets, outside) }));
}

/** Addresses of a name by a zone's own records, along aliases, and by what was asked for outside of it; empty where none is known. */
export function addressesFor(target: Name, sets: readonly RRset[], outside: readonly End[]): readonly string[] {
  let at = target;
  for (let hop = 0; hop < HOPS; hop++) {
    const known = outside.find((end) => end.target.equals(at));
    if (known) return known.addresses;
    const here = sets.filter((set) => set.owner.equals(at));
    const alias = here.find((set) => set.type === TYPE_CODES.CNAME);
    if (!alias)
      return here
        .filter((set) => set.type === TYPE_CODES.A || set.type === TYPE_CODES.AAAA)
        .flatMap((set) => set.data.map((data) => printRdata(set.type, data)));
    at = namesIn(alias.type, alias.data[0]!)[0] ?? at;
  }
  return [];
}

function followedBy(set: RRset): Name[] {
  return FOLLOWED.has(set.type) ? set.data.flatMap((data) => namesIn(set.type, data)) : [];
}
