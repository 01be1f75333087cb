import { Name } from '../../dns/name';
import { typeCode } from '../../dns/typeNames';
import { isHostsOwn } from '../ruling';
import { Check, remark } from './check';
import { plannedZone } from './plannedZone';

/** A name that is dropped and that a wildcard answers from then on (RFC 4592 §2.2): it does not go, it leads elsewhere. */
export const wildcardAnswers: Check = (input) => {
  if (!input.rulings.some((row) => row.planned && row.owner.startsWith('*.'))) return [];
  return input.rulings.flatMap((ruling) => {
    if (ruling.planned || isHostsOwn(ruling) || !['A', 'AAAA', 'CNAME', 'MX', 'TXT'].includes(ruling.type)) return [];
    const { from, answers } = plannedZone(input).ask(Name.parse(ruling.owner), typeCode(ruling.type)!);
    if (!from?.toString().startsWith('*.') || answers.length === 0) return [];
    return [remark(ruling, 'look', 'wildcard-answers', `Once it is dropped, ${from.toString()} answers for it.`)];
  });
};
