import { printRdata } from '../dns/rdata';
import { RRset, rrsetKey, sameData } from '../dns/record';
import { Name } from '../dns/name';
import { TYPE_CODES, typeMnemonic } from '../dns/typeNames';
import { Hint } from './explored';

/**
 * Where what a person has in hand says otherwise than what is served: a set that is not served is a hint, and so is one
 * with other data. The apex SOA and NS are the host's own and are not compared.
 */
export function againstGiven(zone: Name, served: readonly RRset[], given: readonly RRset[]): Hint[] {
  const byKey = new Map(served.map((set) => [rrsetKey(set.owner, set.type), set]));
  return given.flatMap((set): Hint[] => {
    if (set.owner.equals(zone) && (set.type === TYPE_CODES.SOA || set.type === TYPE_CODES.NS)) return [];
    const there = byKey.get(rrsetKey(set.owner, set.type));
    const type = typeMnemonic(set.type);
    if (!there) return [{ name: set.owner, text: `${type} ${shown(set)} is in what you have in hand, and is not served` }];
    if (sameData(set.type, set.data, there.data)) return [];
    return [{ name: set.owner, text: `${type} is ${shown(set)} in what you have in hand, and ${shown(there)} as served` }];
  });
}

function shown(set: RRset): string {
  const text = set.data.map((data) => printRdata(set.type, data)).join(', ');
  return text.length > 120 ? `${text.slice(0, 117)}…` : text;
}
