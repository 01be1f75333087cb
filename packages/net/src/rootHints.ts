import { Name, TYPE_CODES, namesIn, parseZoneFile, printRdata } from '@wanderon/core';
import { NameServer } from './walk';

/** Reads a root hints file (a zone file with NS and addresses, as Debian's dns-root-data ships). Throws an Error with line and column. */
export function parseRootHints(text: string): NameServer[] {
  const { records, findings } = parseZoneFile(text, Name.root);
  const first = findings[0];
  if (first) throw new Error(`the root hints cannot be read: line ${first.line}, column ${first.column}: ${first.message}`);
  const names = records.filter((record) => record.type === TYPE_CODES.NS && record.owner.isRoot).flatMap((record) => namesIn(record.type, record.data));
  return names.map((name) => ({
    name: name.toString(),
    addresses: records
      .filter((record) => (record.type === TYPE_CODES.A || record.type === TYPE_CODES.AAAA) && record.owner.equals(name))
      .map((record) => printRdata(record.type, record.data)),
  }));
}
