import { Instant } from '../../timetable/instant';
import { Leg } from '../leg';
import { Decision } from '../said';
import { Way } from '../rules/rule';

/** One statement that holds or does not, with its evidence and its age. */
export interface Line {
  readonly key: string;
  readonly text: string;
  readonly holds: boolean;
  /** What was seen that says so; null where the text says it. */
  readonly evidence: string | null;
  /** When that was seen last; null where nothing was looked at. */
  readonly seenAt: Instant | null;
  /** From when on it will hold by itself, where that is known. */
  readonly holdsAt: Instant | null;
  /** A person may let it pass, with a reason. */
  readonly waivable: boolean;
  readonly waived: Decision | undefined;
  readonly ways: readonly Way[];
}

export type LineRule = (leg: Leg) => Line | undefined;

export function line(leg: Leg, key: string, holds: boolean, text: string, more: Partial<Line> = {}): Line {
  const waived = leg.said.waived.get(key);
  return { key, text, holds, evidence: null, seenAt: null, holdsAt: null, waivable: false, waived, ways: [], ...more };
}

/** Holds, or was let pass where that may be. */
export function passes(one: Line): boolean {
  return one.holds || (one.waivable && one.waived !== undefined);
}
