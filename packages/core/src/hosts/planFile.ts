import { Name } from '../dns/name';
import { recordsOf, rrsetToText } from '../dns/record';
import { printZoneFile } from '../dns/zoneFile';
import { keyOfRow } from '../move/plan';
import { plannedSets } from '../rebuild/propose';
import { Ruling, isHostsOwn } from '../rebuild/ruling';
import { lockedSet } from './dnsHabits';
import { panelTtl } from './enter';
import { styleOf } from './entryStyle';
import { SheetPanel } from './legSheet';

/**
 * The planned zone as a file that a DNS host reads (RFC 1035 §5): without what is the host's own and what its panel locks, with TTLs that
 * can be chosen there. `starting`: TTLs low until the move is finished everywhere; `settled`: as they are to be in the end.
 */
export function planFile(
  zone: Name,
  rulings: readonly Ruling[],
  { entry, habits }: Pick<SheetPanel, 'entry' | 'habits'>,
  phase: 'starting' | 'settled' = 'starting',
): string {
  const locked = new Set((habits?.locks ?? []).map((row) => lockedSet(row, zone.toString())));
  const ours = rulings.filter((row) => !isHostsOwn(row) && !locked.has(keyOfRow(row)));
  const sets = plannedSets(ours, phase).map((set) => ({ ...set, ttl: panelTtl(styleOf(entry), set.ttl) ?? set.ttl }));
  const own = sets.filter((set) => !(rrsetToText(set).type === 'NS' && set.owner.equals(zone)));
  return `; ${zone.toString()} as it is planned\n$ORIGIN ${zone.toString()}\n${printZoneFile(own.flatMap(recordsOf))}`;
}
