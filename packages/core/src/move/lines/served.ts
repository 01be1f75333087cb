import { capital } from '../../survey/words';
import { BRIDGE, UNANSWERED, isLate, unansweredWords } from '../lateHost';
import { isServed, readBack, readBackWords } from '../rules/served';
import { stepOf } from '../steps';
import { LineRule, line } from './line';

export const serves: LineRule = (leg) => {
  if (leg.plan.kind === 'repoint') return undefined;
  if (isLate(leg.plan) && leg.times.ts === undefined)
    return line(leg, 'served', false, unansweredWords(leg), { evidence: BRIDGE, waivable: true, about: [UNANSWERED] });
  const all = readBack(leg).filter((one) => !leg.said.aside.has(one.address));
  const lacking = all.filter((one) => !isServed(one));
  const at = all.map((one) => one.at).filter((one) => one !== null);
  const holds = all.length > 0 && lacking.length === 0;
  const host = leg.plan.isBack ? (leg.plan.newHost?.name ?? 'the host that it goes back to') : 'the new DNS host';
  return line(leg, 'served', holds, holds ? `Every server of ${host} serves the plan.` : `${capital(host)} does not serve the plan.`, {
    evidence: holds ? `${all.length} servers asked for every planned set` : readBackWords(leg, lacking) || 'it was not asked yet',
    seenAt: at.length > 0 ? Math.min(...at) : null,
    ways: holds ? [] : (stepOf(leg, 'served')?.standing.ways ?? []),
  });
};
