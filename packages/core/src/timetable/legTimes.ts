import { delegationTimes } from './delegationTimes';
import { repointTimes } from './repointTimes';
import { LegTimes, TimesInput } from './times';

/**
 * Every time of a leg, from what was seen and, for what has not happened yet, from what is planned (docs/calculations.md).
 * Pure; works a few thousand sets through in some milliseconds.
 */
export function legTimes(input: TimesInput): LegTimes {
  return input.plan.kind === 'repoint' ? repointTimes(input) : delegationTimes(input);
}
