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

const HEADING = ['name', 'type', 'TTL', 'value', 'purpose', 'evidence'] as const;

/** One record a line (RFC 4180). Cells that a spreadsheet would take for a formula begin with an apostrophe. */
export function exportCsv(sets: readonly ExportedSet[]): string {
  const rows = sets.flatMap(({ set, evidence, purpose }) =>
    set.data.map((data) => [set.owner.toString(), typeMnemonic(set.type), String(set.ttl), printRdata(set.type, data), purpose, evidence]),
  );
  return tableCsv(HEADING, rows);
}

/** A table as CSV (RFC 4180), its cells safe to open in a spreadsheet. */
export function tableCsv(heading: readonly string[], rows: readonly (readonly string[])[]): string {
  return [heading, ...rows].map((row) => `${row.map(cell).join(',')}\r\n`).join('');
}

function cell(text: string): string {
  const safe = /^[=+\-@\t\r]/.test(text) ? `'${text}` : text;
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}
