import { duration } from '../../survey/duration';
import { lowersTtls } from '../../timetable/lowering';
import { stepOf } from '../steps';
import { LineRule, line } from './line';

export const lowered: LineRule = (leg) => {
  if (!lowersTtls(leg.plan)) return undefined;
  const { tl } = leg.times;
  const step = stepOf(leg, 'lowered');
  const at = leg.seen.looked['old'] ?? null;
  const nameserver = leg.plan.kind === 'repoint' ? 'nameserver' : 'old nameserver';
  const accepted = leg.said.acceptedTtl;
  if (tl.all && accepted !== undefined)
    return line(leg, 'lowered', true, `A person accepts that old answers may be remembered for up to ${duration(accepted)} after the switch.`, { seenAt: at });
  if (tl.all) return line(leg, 'lowered', true, `Every ${nameserver} gives the lowered TTLs.`, { seenAt: at });
  return line(leg, 'lowered', false, `The TTLs are not seen lowered at every ${nameserver}.`, {
    seenAt: at,
    evidence: step?.standing.text ?? null,
    ways: step?.standing.ways ?? [],
  });
};
