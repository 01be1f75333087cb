import { acceptWay } from '../rules/acceptTtls';
import { LineRule, line } from './line';

/** (a) of the gate: no cache holds an old answer for longer than the plan says. */
export const runOut: LineRule = (leg) => {
  if (leg.plan.isBack) return undefined;
  const { certain, earliestSwitch, outlasting } = leg.times;
  const holds = certain && earliestSwitch.at <= leg.now;
  return line(leg, 'run out', holds, holds ? 'Every answer with an old TTL has run out.' : 'Answers with their old TTL may still be remembered.', {
    seenAt: leg.seen.looked['old'] ?? null,
    holdsAt: certain && !holds ? earliestSwitch.at : null,
    evidence: earliestSwitch.formula,
    ways: holds || outlasting === 0 ? [] : [acceptWay(outlasting)],
  });
};
