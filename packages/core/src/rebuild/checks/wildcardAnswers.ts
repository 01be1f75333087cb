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
    // Who asked for the address of an alias is answered with an address.
    const asked = ruling.type === 'CNAME' ? (['A', 'AAAA', 'CNAME'] as const) : [ruling.type];
    const from = asked
      .map((type) => plannedZone(input).ask(Name.parse(ruling.owner), typeCode(type)!))
      .find((answer) => answer.from?.toString().startsWith('*.') && answer.answers.length > 0)?.from;
    if (!from) return [];
    return [remark(ruling, 'look', 'wildcard-answers', `Once it is dropped, ${from.toString()} answers for it.`)];
  });
};
