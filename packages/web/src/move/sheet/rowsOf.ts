import { Host, RulingView } from '@wanderon/contract';
import { STARTING_TTL, SheetRow, USUAL_STYLE, isHostsOwn, sheetOf } from '@wanderon/core';
import { OpenLeg } from '../movePlace';

/** The rows of a leg's sheet: in place from what was found, at a new host from an empty zone. TTLs are low until settled. */
export function rowsOf(leg: OpenLeg, domain: string, host: Host | undefined): SheetRow[] {
  const inPlace = leg.kind === 'repoint';
  const rows = leg.rulings.filter((row) => !isHostsOwn(row) && (!inPlace || row.ruling !== 'carry'));
  const low = (set: RulingView['planned']) => (set ? { ...set, ttl: Math.min(set.ttl, STARTING_TTL) } : undefined);
  return sheetOf(
    host?.entry ?? USUAL_STYLE,
    `${domain}.`,
    rows.map((row) => ({ owner: row.owner, type: row.type, there: inPlace ? (row.found ?? undefined) : undefined, planned: low(row.planned) })),
  );
}
