import { Instant } from '../../timetable/instant';
import { fingerprint } from '../fingerprint';
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
  /** A person may let it pass, with a reason: it passes for as long as no other fact than those that were let pass is in its way. */
  readonly waivable: boolean;
  /** What is in its way, fact by fact. */
  readonly about: readonly string[];
  readonly waived: Decision | undefined;
  readonly ways: readonly Way[];
}

/** What a decision to let a line pass holds. */
export interface Waiver {
  readonly reason: string;
  /** What was in the way of the line then. */
  readonly about: readonly string[];
}

/** What is in the way of a line, as one word: another one wherever any fact is another. */
export function factsOf({ about }: Pick<Line, 'about'>): string {
  return fingerprint(JSON.stringify(about));
}

/** In the way of a line that could not be looked at. */
export const UNSEEN = 'it was not seen';

export type LineRule = (leg: Leg) => Line | undefined;

export function line(leg: Leg, key: string, holds: boolean, text: string, more: Partial<Line> = {}): Line {
  const waived = leg.said.waived.get(key);
  return { key, text, holds, evidence: null, seenAt: null, holdsAt: null, waivable: false, about: [], waived, ways: [], ...more };
}

/** Holds, or was let pass where that may be. */
export function passes(one: Line): boolean {
  return one.holds || (one.waivable && isLetPass(one));
}

/** A drift that was let pass says nothing of the one that came after it. */
function isLetPass({ waived, about }: Line): boolean {
  const covered = (waived?.value as Waiver | undefined)?.about ?? [];
  return about.length > 0 && about.every((fact) => covered.includes(fact));
}
