import fc from 'fast-check';
import { claimsOf, earlyClaims, lateSettled } from './claims';
import { World } from './world';

/** Worlds of a kind, by number; `quiet`: every state lasts a look, and every server answers each. */
export type MakeWorld = (number: number, quiet: boolean) => World;
/** How many worlds are tried, and from which seed. */
export interface Tried {
  readonly seed: number;
  readonly numRuns: number;
}

/**
 * Holds the claims of the real rules and folds against what caches can hold, in worlds that know nothing of the formulas, whatever the servers
 * do and whoever looks away. Gives how many came to an end, and how many gates opened. Throws an Error that describes the world in which a
 * claim came early.
 */
export function neverEarly(make: MakeWorld, tried: Tried): { readonly settled: number; readonly opened: number } {
  let [settled, opened] = [0, 0];
  fc.assert(
    fc.property(fc.nat(), (number) => {
      const world = make(number, false);
      const found = earlyClaims(world, claimsOf());
      settled += found.settled;
      opened += found.opened;
      if (found.early.length > 0) throw new Error(`${found.early[0]}\n${world.describe}`);
    }),
    tried,
  );
  return { settled, opened };
}

/** The same in quiet worlds, where what is settled is to be said within one look of the slowest server. Gives how many came to an end. */
export function notLate(make: MakeWorld, tried: Tried): number {
  let settled = 0;
  fc.assert(
    fc.property(fc.nat(), (number) => {
      const world = make(number, true);
      const late = lateSettled(world, claimsOf());
      if (late !== undefined && late.problem !== undefined) throw new Error(`${late.problem}\n${world.describe}`);
      if (late) settled += 1;
    }),
    tried,
  );
  return settled;
}
