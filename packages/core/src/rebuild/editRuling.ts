import { WireError } from '../dns/bytes';
import { Name, NameError } from '../dns/name';
import { rrsetToText, RRsetText } from '../dns/record';
import { parseRdata, rdataProblem } from '../dns/rdata';
import { TextError } from '../dns/token';
import { parseTtl } from '../dns/ttl';
import { typeCode } from '../dns/typeNames';

export type EditResult =
  | { readonly ok: true; readonly set: RRsetText }
  | { readonly ok: false; readonly field: 'owner' | 'type' | 'ttl' | 'data'; readonly problem: string };

/**
 * Reads what a person typed into a row of the ledger: the owner relative to the zone or absolute, one line of data a record.
 * The same function answers while typing and when the row is saved.
 */
export function readRow(zone: Name, row: { owner: string; type: string; ttl: string; data: string }): EditResult {
  let owner: Name;
  try {
    owner = Name.parse(row.owner.trim() || '@', zone);
  } catch (error) {
    if (error instanceof NameError) return { ok: false, field: 'owner', problem: `The name cannot be read: ${error.message}.` };
    throw error;
  }
  if (!owner.isAtOrBelow(zone)) return { ok: false, field: 'owner', problem: `${owner.toString()} is not in ${zone.toString()}` };
  const type = typeCode(row.type.trim());
  if (type === undefined) return { ok: false, field: 'type', problem: `"${row.type}" is not a record type.` };
  const ttl = parseTtl(row.ttl.trim());
  if (ttl === undefined || ttl > 0x7fff_ffff) return { ok: false, field: 'ttl', problem: 'The TTL must be a number of seconds, or like 1h30m.' };
  const lines = row.data
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');
  if (lines.length === 0) return { ok: false, field: 'data', problem: 'The value is empty.' };
  const data: Uint8Array[] = [];
  for (const [index, line] of lines.entries()) {
    try {
      const octets = parseRdata(type, line, zone);
      const problem = rdataProblem(type, octets);
      if (problem !== undefined) return { ok: false, field: 'data', problem: `Line ${index + 1}: ${problem}.` };
      data.push(octets);
    } catch (error) {
      if (error instanceof TextError) return { ok: false, field: 'data', problem: `Line ${index + 1}, column ${error.column}: ${error.message}.` };
      if (error instanceof WireError) return { ok: false, field: 'data', problem: `Line ${index + 1}: ${error.message}.` };
      throw error;
    }
  }
  return { ok: true, set: rrsetToText({ owner, type, ttl, data }) };
}
