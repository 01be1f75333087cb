import { lowersTtls } from '../../timetable/lowering';
import { stepOf } from '../steps';
import { LineRule, line } from './line';

export const lowered: LineRule = (leg) => {
  if (!lowersTtls(leg.plan)) return undefined;
  const { tl } = leg.times;
  const step = stepOf(leg, 'lowered');
  const at = leg.seen.looked['old'] ?? null;
  const authority = leg.plan.kind === 'repoint' ? 'authority' : 'old authority';
  if (tl.all) return line(leg, 'lowered', true, `Every ${authority} was seen to serve the lowered TTLs.`, { seenAt: at });
  return line(leg, 'lowered', false, `The TTLs are not seen lowered at every ${authority}.`, {
    seenAt: at,
    evidence: step?.standing.text ?? null,
    ways: step?.standing.ways ?? [],
  });
};
