import { Instant, Name, StepKind } from '@wanderon/core';
import { Clock } from '../clock/clock';
import { Config } from '../config';
import { HostStore } from '../hosts/host.store';
import { Leg, Move, RulingRow, StepRow } from '../moves/leg';
import { MoveStore } from '../moves/move.store';
import { Network } from '../network/network';
import { InHandStore } from '../survey/inHand.store';
import { SurveyStore } from '../survey/survey.store';
import { Surveyor } from '../survey/surveyor';
import { RunStore } from '../watch/run.store';
import { WebsiteLookStore } from '../watch/websiteLook.store';

/** What every step is given. `leg` and `steps` are as they stood when the step began. */
export interface StepContext {
  readonly move: Move;
  readonly leg: Leg;
  readonly zone: Name;
  readonly steps: readonly StepRow[];
  readonly rulings: readonly RulingRow[];
  readonly clock: Clock;
  readonly config: Config;
  readonly network: Network;
  readonly store: MoveStore;
  readonly surveys: SurveyStore;
  readonly inHand: InHandStore;
  readonly surveyor: Surveyor;
  readonly hosts: HostStore;
  readonly runs: RunStore;
  readonly websiteLooks: WebsiteLookStore;
  readonly note: (kind: string, text: string, more?: { before?: unknown; after?: unknown; person?: string | undefined }) => Promise<void>;
}

export type StepOutcome =
  | { readonly state: 'done' }
  /** Looked, not there yet: look again at `until`. */
  | { readonly state: 'wait'; readonly until: Instant; readonly problem?: string }
  /** A person has to do something first. */
  | { readonly state: 'failed'; readonly problem: string; readonly rcode?: number | undefined };

export type StepWork = (context: StepContext) => Promise<StepOutcome>;

export function stepOf(context: StepContext, kind: StepKind): StepRow {
  return context.steps.find((step) => step.kind === kind)!;
}
