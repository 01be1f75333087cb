import { Instant, Leg, Name, capital } from '@wanderon/core';
import { Database } from '../db/database';
import { LoadedLeg } from '../moves/legLoader';
import { MoveRow } from '../moves/move.rows';
import { Sighted } from '../moves/observation.store';

/** What a look or an act is given. `loaded` is as it stood when it began. */
export interface WorkContext {
  readonly move: MoveRow;
  readonly loaded: LoadedLeg;
  readonly leg: Leg;
  readonly zone: Name;
  /** Seconds to the next look, as planned. */
  readonly every: number;
  /** Looks at every authority to which resolvers are led and commits what it saw, at once; given to acts. */
  readonly witness?: (() => Promise<void>) | undefined;
}

/** Words for the trail. */
export interface Note {
  readonly kind: string;
  readonly text: string;
}

/** What is written together once a look or an act is over. */
export interface Outcome {
  readonly sights: readonly Sighted[];
  /** When it began; `ended`, where it took a while: what it found new may be so since then only. */
  readonly at: Instant;
  readonly ended?: Instant;
  /** Anything else, in the same transaction; what it finds new is told. */
  readonly also?: (transaction: Database) => Promise<readonly Note[]>;
  readonly notes?: readonly Note[];
  /** When to look again, where the look itself says so. */
  readonly next?: Instant;
}

/** How an act came out. `foreign`: what stands at the new host and is not ours, where that is in the way. */
export interface ActResult {
  readonly outcome: 'done' | 'trying' | 'stopped';
  readonly problem: string | null;
  /** Sets whose TTL the server does not let be changed. */
  readonly kept?: readonly string[];
  readonly foreign?: readonly { readonly key: string; readonly data: readonly string[] }[];
}

export function sentence(text: string): string {
  return `${capital(text)}${/[.!?]$/.test(text) ? '' : '.'}`;
}
