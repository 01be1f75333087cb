import { lacksNames } from '../named';
import { LineRule, line } from './line';

/** Nothing can be changed to, and nothing was read back, while nobody knows where. */
export const nameservers: LineRule = (leg) =>
  lacksNames(leg.plan)
    ? line(leg, 'named', false, `Which nameservers ${leg.plan.newHost!.name} gave this domain is not known.`, { evidence: 'nobody has said it' })
    : undefined;
