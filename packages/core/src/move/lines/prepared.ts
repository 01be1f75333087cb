import { isTakeover } from '../account';
import { isDone, stepOf } from '../steps';
import { LineRule, line } from './line';

/** The zone is ready in the other account: nothing answers from there before it takes over, so that a person's word is all there is. */
export const prepared: LineRule = (leg) => {
  if (!isTakeover(leg.plan) || leg.times.ts !== undefined) return undefined;
  const ready = isDone(leg, 'push');
  return line(leg, 'prepared', ready, ready ? 'The zone is ready in the other account.' : 'Nobody has said yet that the zone is ready in the other account.', {
    ways: ready ? [] : (stepOf(leg, 'push')?.standing.ways ?? []),
  });
};
