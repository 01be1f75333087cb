import { SetKey, LegPlan } from '../move/plan';
import { Said } from '../move/said';
import { Seen } from '../move/seen';
import { Derived, Instant, SeenBetween } from './instant';
import { Unlowered } from './lowering';
import { Since, Watched } from './since';
import { Wanted } from './wanted';

/** What is assumed of the world beyond what is seen; seconds. */
export interface Assumptions {
  /** f: a cache keeps anything for so long at the least. */
  readonly floor: number;
  /** a: instances of anycast parent servers that nobody sees follow within this time; those of DNS hosts. */
  readonly parentAllowance: number;
  readonly hostAllowance: number;
}

export interface TimesInput {
  readonly plan: LegPlan;
  readonly seen: Pick<Seen, 'parent' | 'zones'>;
  readonly said: Said;
  readonly assumed: Assumptions;
  readonly now: Instant;
  /** The old zone's NS set is, or will be, turned by somebody: a decision, or what was done. */
  readonly turns: boolean;
  /** Sets whose TTL cannot be lowered where they are: L = T, as found. */
  readonly kept?: ReadonlySet<SetKey>;
  /** When the records of a repoint leg were changed, by our own act or by somebody's word. */
  readonly changedAt?: Instant | undefined;
  /** What the plan would answer, where that was worked out already. */
  readonly wanted?: Wanted;
}

export interface LegTimes {
  /** Every old authority seen to serve the lowered TTLs; the servers that do not. */
  readonly tl: Since;
  readonly unlowered: readonly Unlowered[];
  /**
   * Every server that tells of the change seen to tell the new: of the parent the new set, in a repoint leg every authority the new
   * values; a included. The servers that do not.
   */
  readonly t0: SeenBetween | undefined;
  readonly lacking: readonly Watched<unknown>[];
  /** The earliest moment at which some of them may have told the new; undefined before. */
  readonly ts: Instant | undefined;
  /** Every old authority seen to have turned. */
  readonly te: Since;
  /** Every parent server seen without a DS; and from when on keys validated through one have run out. */
  readonly td: SeenBetween | undefined;
  readonly signedUntil: Derived | undefined;
  /** The switch is safe from here on, as far as TTLs go: (a) of the gate. */
  readonly earliestSwitch: Derived;
  /** False while some TTL is not seen lowered: the time is what it would be if all were lowered as decided. */
  readonly certain: boolean;
  /** The largest TTL of an answer that outlasts what it was to be lowered to, in seconds: taken as it is, it is waited for no more. 0: none does. */
  readonly outlasting: number;
  /** H and X: nobody is led to a server outside the new set any more. X may be unbounded. In a repoint leg nobody was: both are t0. */
  readonly delegation: Derived;
  readonly extended: Derived;
  /** Of each set in scope that changes, and of each that is answered otherwise than planned by a server that caches are led to. */
  readonly sets: readonly { readonly key: SetKey; readonly horizon: Derived }[];
  /** Settled not before this. */
  readonly last: Derived;
  readonly switchSeen: boolean;
}
