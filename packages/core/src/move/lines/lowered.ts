import { stepOf } from '../steps';
import { LineRule, line } from './line';

export const lowered: LineRule = (leg) => {
  const { tl } = leg.times;
  const step = stepOf(leg, 'lowered');
  const at = leg.seen.looked['old'] ?? null;
  if (tl.all) return line(leg, 'lowered', true, 'Every old authority was seen to serve the lowered TTLs.', { seenAt: at });
  return line(leg, 'lowered', false, 'The TTLs are not seen lowered at every old authority.', {
    seenAt: at,
    evidence: step?.standing.text ?? null,
    ways: step?.standing.ways ?? [],
  });
};
