import { Name } from '../dns/name';
import { Ruling } from './ruling';
import { Fix, FixedRow, fixedTo, rowAt } from './fix';

/** Names for mail alone, the usual ones first. */
const LABELS = ['mail', 'mx', 'mail-old', 'smtp', 'mail-in', 'mx-old'];

/** A name in the zone at which nothing stands, for mail alone; undefined where all the usual ones are taken. */
export function freeMailName(zone: Name, rulings: readonly Ruling[]): string | undefined {
  const taken = new Set(rulings.map((row) => row.owner.toLowerCase()));
  return LABELS.map((label) => zone.child(label).toString()).find((name) => !taken.has(name.toLowerCase()));
}

/**
 * Mail is delivered at `from`, whose addresses move with the website: mail gets a name of its own that keeps the old addresses, and `mx`, the
 * name whose mail it is, leads there (RFC 5321 §5.1). Undefined where the old addresses are not known, or no name is free.
 */
export function ownMailName(zone: Name, rulings: readonly Ruling[], mx: string, from: string): Fix | undefined {
  const name = freeMailName(zone, rulings);
  const addresses = (['A', 'AAAA'] as const).flatMap((type): FixedRow[] => {
    const found = rowAt(rulings, from, type)?.found;
    return found && name ? [fixedTo(rulings, name, type, found.data, found.ttl)] : [];
  });
  if (name === undefined || addresses.length === 0) return undefined;
  const before = rowAt(rulings, mx, 'MX')?.planned?.data ?? [];
  const led = before.length === 0 ? [`10 ${name}`] : before.map((data) => (target(data) === from.toLowerCase() ? data.replace(/\S+$/, name) : data));
  return {
    text: `Give mail a name of its own, ${name.replace(/\.$/, '')}, that keeps the old address.`,
    rows: [...addresses, fixedTo(rulings, mx, 'MX', led)],
  };
}

function target(data: string): string {
  return data.replace(/^\d+ /, '').toLowerCase();
}
