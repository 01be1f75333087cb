import { RRsetText } from '../dns/record';
import { rebuildsZone } from '../move/account';
import { LegPlan, SetKey, setKey } from '../move/plan';
import { STARTING_TTL } from '../rebuild/propose';
import { isHostsOwn, Ruling } from '../rebuild/ruling';
import { DnsHabits, USUAL_HABITS, beginsWith, lockedSet } from './dnsHabits';
import { Fronting } from './fronting';
import { KnownStyle } from './entryStyle';
import { SheetRow, SheetSet, sheetOf } from './sheet';

/** A row of a ledger, as a sheet asks for it. */
type Row = Pick<Ruling, 'owner' | 'type' | 'ruling' | 'reason'> & {
  readonly found?: Ruling['found'] | null;
  readonly planned?: Ruling['planned'] | null;
  readonly fronting?: Fronting | null;
};

/** What servers of the host were seen to answer otherwise than planned; of it no more than this is asked here. */
interface Otherwise {
  readonly servers: readonly {
    readonly differs: readonly { readonly owner: string; readonly type: string; readonly ttl: number; readonly data: readonly string[] }[];
    /** Its apex NS set, where that is not the one which is wanted there. */
    readonly apex?: { readonly ttl: number; readonly data: readonly string[] } | null;
  }[];
}

/** What is known of the panel that a sheet is for. `entry` null: nothing of how it wants values. */
export interface SheetPanel {
  readonly entry: KnownStyle | null;
  readonly habits?: DnsHabits;
  /** What it was seen to show, as somebody pasted it. */
  readonly shown?: readonly RRsetText[] | undefined;
}

/**
 * The rows of a leg's sheet: from what its panel was seen to show, else in place from what was found, at a new host from what a zone
 * begins with there, back at the old host from what its servers answer. TTLs are low until finished everywhere; locked rows are left out. `zone`
 * absolute with final dot.
 */
export function legSheet(
  leg: Pick<LegPlan, 'kind' | 'account'> &
    Partial<Pick<LegPlan, 'newNameservers'>> & { readonly isBack: boolean; readonly rulings: readonly Row[]; readonly served: Otherwise | null },
  zone: string,
  { entry, habits = USUAL_HABITS, shown }: SheetPanel,
): SheetRow[] {
  const inPlace = !rebuildsZone(leg);
  const sets = leg.isBack && !inPlace && !shown ? backSets(leg, zone) : sheetSets(leg, zone, shown ?? (inPlace ? undefined : beginsWith(habits.begins, zone)));
  const locked = new Set(habits.locks.map((row) => lockedSet(row, zone)));
  return sheetOf(
    entry,
    zone,
    sets.filter((set) => !locked.has(setKey(set.owner, set.type))),
  );
}

/** `there` undefined: as the survey found it. What a new zone holds beside the plan goes; in place it is other people's. */
function sheetSets(
  { rulings, ...leg }: Pick<LegPlan, 'kind' | 'account'> & { readonly rulings: readonly Row[] },
  zone: string,
  there: readonly RRsetText[] | undefined,
): SheetSet[] {
  const inPlace = !rebuildsZone(leg);
  const rest = there && new Map(there.map((set): [SetKey, RRsetText] => [setKey(set.owner, set.type), set]));
  const hosts = new Set([setKey(zone, 'SOA'), setKey(zone, 'NS'), ...rulings.filter(isHostsOwn).map((row) => setKey(row.owner, row.type))]);
  const rows = rulings.filter((row) => !isHostsOwn(row) && (!inPlace || row.ruling !== 'carry'));
  const low = (set: Row['planned']) => (set ? { ...set, ttl: Math.min(set.ttl, STARTING_TTL) } : undefined);
  const planned = rows.map((row): SheetSet => {
    const key = setKey(row.owner, row.type);
    const now = rest ? rest.get(key) : inPlace ? (row.found ?? undefined) : undefined;
    rest?.delete(key);
    const front = row.fronting ? (row.fronting === 'on' ? 'on' : 'off') : undefined;
    return { owner: row.owner, type: row.type, there: now, planned: low(row.planned), front };
  });
  const extra = inPlace || !rest ? [] : [...rest].filter(([key]) => !hosts.has(key)).map(([, set]) => set);
  return [...planned, ...extra.map((set): SheetSet => ({ owner: set.owner, type: set.type, there: set, planned: undefined }))];
}

/** Nothing but what is otherwise there now, the zone's own NS set included: the old zone still stands, and may have been turned. */
function backSets(
  { rulings, served, newNameservers = [] }: Partial<Pick<LegPlan, 'newNameservers'>> & { readonly rulings: readonly Row[]; readonly served: Otherwise | null },
  zone: string,
): SheetSet[] {
  const planned = new Map(rulings.filter((row) => !isHostsOwn(row)).map((row) => [setKey(row.owner, row.type), row.planned ?? undefined]));
  const sets = new Map<string, SheetSet>();
  const put = (there: RRsetText, back: RRsetText | undefined): void => {
    const key = setKey(there.owner, there.type);
    if (!sets.has(key)) sets.set(key, { owner: there.owner, type: there.type, there: there.data.length > 0 ? there : undefined, planned: back });
  };
  for (const { differs, apex } of served?.servers ?? []) {
    if (apex && newNameservers.length > 0) {
      const own = { owner: zone, type: 'NS', ttl: apex.ttl };
      put({ ...own, data: [...apex.data] }, { ...own, data: [...newNameservers] });
    }
    for (const there of differs) {
      const key = setKey(there.owner, there.type);
      if (planned.has(key)) put({ ...there, data: [...there.data] }, planned.get(key));
    }
  }
  return [...sets.values()];
}
