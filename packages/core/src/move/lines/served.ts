import { isServed, readBack, readBackWords } from '../rules/served';
import { LineRule, line } from './line';

export const serves: LineRule = (leg) => {
  if (leg.plan.kind === 'repoint') return undefined;
  const all = readBack(leg).filter((one) => !leg.said.aside.has(one.address));
  const lacking = all.filter((one) => !isServed(one));
  const at = all.map((one) => one.at).filter((one) => one !== null);
  const holds = all.length > 0 && lacking.length === 0;
  return line(leg, 'served', holds, holds ? 'Every server of the new DNS host serves the plan.' : 'The new DNS host does not serve the plan.', {
    evidence: holds ? `${all.length} servers asked for every planned set` : readBackWords(leg, lacking) || 'it was not asked yet',
    seenAt: at.length > 0 ? Math.min(...at) : null,
  });
};
