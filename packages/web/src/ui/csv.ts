import { stringify } from 'csv-stringify/browser/esm/sync';

/** A table as CSV (RFC 4180); what a spreadsheet would take for a formula begins with an apostrophe. */
export function csv(heading: readonly string[], rows: readonly (readonly string[])[]): string {
  return stringify([heading, ...rows] as string[][], { record_delimiter: 'windows', escape_formulas: true, quoted_match: /[\r\n]/ });
}
