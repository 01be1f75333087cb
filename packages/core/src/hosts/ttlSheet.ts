import { RRsetText } from '../dns/record';
import { LegPlan, keyOfRow } from '../move/plan';
import { rebuildsZone } from '../move/account';
import { STARTING_TTL } from '../rebuild/propose';
import { Ruling, isChanging, isHostsOwn } from '../rebuild/ruling';
import { DnsHabits, USUAL_HABITS, lockedSet } from './dnsHabits';
import { enter, panelTtl } from './enter';
import { styleOf } from './entryStyle';
import { SheetPanel } from './legSheet';
import { SheetRow } from './sheet';

/** A row of a ledger, as a sheet of TTLs asks for it. */
type Row = Pick<Ruling, 'owner' | 'type' | 'ruling' | 'reason'> & { readonly found?: Ruling['found'] | null; readonly planned?: Ruling['planned'] | null };
type Plan = Pick<LegPlan, 'kind' | 'account'> & { readonly rulings: readonly Row[] };

/**
 * What a person sets before the cutover in the panel that is live: the TTLs of what changes, and of the zone's own NS set where the delegation
 * does, each down to `to` seconds or what the panel has nearest to it. `zone` absolute with final dot.
 */
export function lowerSheet(plan: Plan, zone: string, panel: SheetPanel, to: number): SheetRow[] {
  const isOwnSet = ({ owner, type }: Row): boolean => plan.kind === 'delegation' && type === 'NS' && owner.toLowerCase() === zone.toLowerCase();
  const lowered = plan.rulings.filter((row) => isChanging(row) || isOwnSet(row));
  return ttlRows(
    lowered.flatMap(({ found }) => (found ? [{ set: found, ttl: Math.min(found.ttl, to) }] : [])),
    zone,
    panel,
    (before, after) => after < before,
  );
}

/** What a person sets once everything is finished, in the panel where it was typed: the lasting TTLs of what was typed low. */
export function raiseSheet(plan: Plan, zone: string, panel: SheetPanel): SheetRow[] {
  const typed = plan.rulings.filter((row) => !isHostsOwn(row) && (rebuildsZone(plan) || row.ruling !== 'carry'));
  return ttlRows(
    typed.flatMap(({ planned }) => {
      const low = planned && (panelTtl(styleOf(panel.entry), Math.min(planned.ttl, STARTING_TTL)) ?? planned.ttl);
      return low === null || low === undefined ? [] : [{ set: { ...planned!, ttl: low }, ttl: planned!.ttl }];
    }),
    zone,
    panel,
    (before, after) => after > before,
  );
}

interface TtlChange {
  readonly set: RRsetText;
  readonly ttl: number;
}

/**
 * A row a record: panels ask for the TTL of each by itself. Where none can be given, or the nearest that can be chosen is on the wrong side of what
 * stands there, nothing is to be done.
 */
function ttlRows(
  changes: readonly TtlChange[],
  zone: string,
  { entry, habits = USUAL_HABITS }: SheetPanel,
  isRight: (before: number, after: number) => boolean,
): SheetRow[] {
  const style = styleOf(entry);
  const locked = lockedSets(habits, zone);
  return changes.flatMap(({ set, ttl }) => {
    const after = panelTtl(style, ttl);
    if (locked.has(keyOfRow(set)) || after === undefined || !isRight(set.ttl, after)) return [];
    return enter(style, zone, set).map((plain): SheetRow => {
      const id = `${set.owner.toLowerCase()}/${set.type}/${plain.priority ?? ''} ${plain.value}`;
      return { id, act: 'edit', before: { ...plain, ttl: set.ttl.toString() }, entry: { ...plain, ttl: after.toString() } };
    });
  });
}

function lockedSets(habits: DnsHabits, zone: string): ReadonlySet<string> {
  return new Set<string>(habits.locks.map((row) => lockedSet(row, zone)));
}
