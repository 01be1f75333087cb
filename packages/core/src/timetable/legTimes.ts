import { absentHorizon, addressHorizon, delegationHorizon, eff, loweredHorizon } from './horizons';
import { Derived, Instant, latest } from './instant';

/** One record set that the leg changes. TTLs in seconds; `T` absent: new at this move. */
export interface ChangingSet {
  readonly owner: string;
  readonly type: string;
  readonly T: number | undefined;
  readonly L: number;
}

/** What is known of a delegation leg; an absent instant has not been seen yet. */
export interface LegKnowledge {
  readonly now: Instant;
  readonly P: number;
  readonly C: number;
  readonly loweredC: number;
  readonly N: number;
  readonly floor: number;
  readonly tl: Instant | undefined;
  readonly t0: Instant | undefined;
  readonly te: Instant | undefined;
  /** When the switch is meant to be, while t0 is not known. */
  readonly plannedSwitch: Instant | undefined;
  readonly turns: boolean;
  readonly changing: readonly ChangingSet[];
}

export interface LegTimes {
  /** Before this, a cache may hold an answer with its old TTL past what the plan says. */
  readonly earliestSwitch: Derived;
  /** True once tl was seen; before that the time is what it would be if all TTLs were lowered now. */
  readonly certain: boolean;
  /** H, from t0 or, before it, from the planned switch. */
  readonly delegation: Derived;
  readonly sets: readonly { readonly owner: string; readonly type: string; readonly horizon: Derived }[];
  /** The last of all: settled not before this. */
  readonly last: Derived;
  readonly switchSeen: boolean;
}

/** The times of one delegation leg, worked out from what has been seen so far and what is planned for the rest. */
export function legTimes(known: LegKnowledge): LegTimes {
  const tl = known.tl ?? known.now;
  const found = known.changing.filter((set): set is ChangingSet & { T: number } => set.T !== undefined);
  const waits = [
    ...found.map((set) => loweredHorizon({ tl, T: set.T, floor: known.floor, what: `${set.owner} ${set.type}` })),
    loweredHorizon({ tl, T: known.C, floor: known.floor, what: 'the apex NS set' }),
  ];
  const earliestSwitch = latest(waits)!;
  const t0 = known.t0 ?? Math.max(known.plannedSwitch ?? 0, earliestSwitch.at, known.now);
  const te = known.te ?? (known.turns ? Math.max(t0, known.now) : undefined);
  const delegation = delegationHorizon({ t0, P: known.P, C: known.loweredC, te, floor: known.floor });
  const sets = known.changing.map((set) => ({
    owner: set.owner,
    type: set.type,
    horizon:
      set.T === undefined
        ? absentHorizon({ H: delegation.at, N: known.N, floor: known.floor, what: `${set.owner} ${set.type}` })
        : addressHorizon({ tl, T: set.T, L: set.L, H: delegation.at, floor: known.floor, what: `${set.owner} ${set.type}` }),
  }));
  return {
    earliestSwitch,
    certain: known.tl !== undefined,
    delegation,
    sets,
    last: latest([delegation, ...sets.map((set) => set.horizon)])!,
    switchSeen: known.t0 !== undefined,
  };
}

/** Until when caches may hold what the new host served, if its records are set back at `tb` (DESIGN: backing out, first way). */
export function backOutByRecords(tb: Instant, newTtl: number, newNegative: number, floor: number): Instant {
  return tb + eff(Math.max(newTtl, newNegative), floor);
}
