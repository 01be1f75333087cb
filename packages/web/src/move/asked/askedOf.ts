import { LegView, StepView } from '@wanderon/contract';
import { CLEAR, TASK } from '@wanderon/core';

/** The steps at the new hosts, before the cutover and after it, and what is open of the former, in words. */
export function askedOf(leg: LegView): { before: StepView[]; after: StepView[]; open: string[] } {
  const own = leg.steps.filter((step) => step.id.startsWith(TASK) || step.id.startsWith(CLEAR));
  const before = own.filter((step) => step.chapter !== 'watch');
  const line = leg.gate.lines.find((one) => one.key === 'asked');
  return { before, after: own.filter((step) => step.chapter === 'watch'), open: line && !line.passes && leg.seen.ts === null ? [...line.about] : [] };
}

/** The hosts that ask for something, with the verb: `Brackenfold DNS and Thornwick Web ask`. */
export function askers({ hosts }: NonNullable<LegView['asked']>, adverb = ''): string {
  return `${hosts.join(' and ')} ${adverb}${hosts.length === 1 ? 'asks' : 'ask'}`;
}
