import { Name } from '../dns/name';
import { printRdata } from '../dns/rdata';
import { RRset, recordsOf } from '../dns/record';
import { TYPE_CODES, typeMnemonic } from '../dns/typeNames';
import { printZoneFile } from '../dns/zoneFile';

/** A record set with where it comes from, as it leaves Wanderon. */
export interface ExportedSet {
  readonly set: RRset;
  readonly evidence: string;
  readonly purpose: string;
}

/** The zone as a file that servers load, the SOA first; what is not known for sure is said in comments above. */
export function exportZoneFile(zone: Name, sets: readonly ExportedSet[], remarks: readonly string[]): string {
  const soa = sets.filter(({ set }) => set.type === TYPE_CODES.SOA);
  const rest = sets.filter(({ set }) => set.type !== TYPE_CODES.SOA);
  const comments = remarks.map((remark) => `; ${remark.replace(/[\r\n]+/g, ' ')}\n`).join('');
  return `; ${zone.toString()}\n${comments}${printZoneFile([...soa, ...rest].flatMap(({ set }) => recordsOf(set)))}`;
}

/** The heading of `exportRows`. */
export const EXPORT_HEADING = ['name', 'type', 'TTL', 'value', 'purpose', 'evidence'] as const;

/** An inventory as a table, one record a row. */
export function exportRows(sets: readonly ExportedSet[]): string[][] {
  return sets.flatMap(({ set, evidence, purpose }) =>
    set.data.map((data) => [set.owner.toString(), typeMnemonic(set.type), String(set.ttl), printRdata(set.type, data), purpose, evidence]),
  );
}
