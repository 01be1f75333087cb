import { inPrefix, parsePrefix } from '../dns/prefix';
import { GroupedRow } from './ledgerGroups';

/**
 * Says of a row whether it is like what was typed: every word has to be in its name, type or values; a range or an address finds what
 * leads there.
 *
 *     ledgerFilter('mx')             // the type, and names with it
 *     ledgerFilter('203.0.113.0/24') // addresses in that range, also within an SPF record
 */
export function ledgerFilter(text: string): (row: GroupedRow) => boolean {
  const words = text.trim().toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return () => true;
  const tests = words.map((word) => {
    const prefix = parsePrefix(word);
    if (!prefix) return (all: string): boolean => all.includes(word);
    return (all: string): boolean => addressesIn(all).some((address) => inPrefix(prefix, address));
  });
  return (row) => {
    const all = textOf(row);
    return tests.every((test) => test(all));
  };
}

/** What is looked in, made once for each row: somebody types, and thousands are looked through at each key. */
const texts = new WeakMap<GroupedRow, string>();

function textOf(row: GroupedRow): string {
  let text = texts.get(row);
  if (text === undefined) {
    text = [row.owner, row.type, ...(row.found?.data ?? []), ...(row.planned?.data ?? [])].join(' ').toLowerCase();
    texts.set(row, text);
  }
  return text;
}

function addressesIn(text: string): string[] {
  return text.match(/(?:\d{1,3}\.){3}\d{1,3}|[0-9a-f]{0,4}(?::[0-9a-f]{0,4}){2,7}/g) ?? [];
}
