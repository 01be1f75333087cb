import { Name } from '../dns/name';
import { RRset, groupRecords, ResourceRecord } from '../dns/record';
import { parseRdata } from '../dns/rdata';
import { TYPE_CODES, typeCode } from '../dns/typeNames';
import { Find } from './find';

/**
 * The record sets of finds that were taken, without the SOA record of the domain, which is the host's own. What has no value of a type that
 * servers know is in `takenNames`. `ttl`: seconds for a record that came without.
 */
export function takenSets(finds: readonly Find[], zone: Name, ttl: number): RRset[] {
  return groupRecords(finds.flatMap((find) => recordOf(find, zone, ttl) ?? []));
}

/** Names of the domain of which the text has no whole record, each once: for the survey to ask for. */
export function takenNames(finds: readonly Find[], zone: Name): Name[] {
  const names = finds.flatMap((find) => {
    if (find.kind !== 'name' && (find.kind !== 'record' || find.type === 'SOA' || recordOf(find, zone, 0))) return [];
    const name = Name.tryParse(find.owner, zone);
    return name?.isAtOrBelow(zone) ? [name] : [];
  });
  return [...new Map(names.map((name) => [name.key, name])).values()];
}

function recordOf({ kind, owner, type, data, ttl }: Find, zone: Name, without: number): ResourceRecord | undefined {
  const code = kind === 'record' && data !== '' ? typeCode(type) : undefined;
  const name = Name.tryParse(owner, zone);
  if (code === undefined || name === undefined || !name.isAtOrBelow(zone)) return undefined;
  if (code === TYPE_CODES.SOA && name.equals(zone)) return undefined;
  return { owner: name, type: code, cls: 1, ttl: ttl ?? without, data: parseRdata(code, data, zone) };
}
