import { endsOtherwise } from '../../names';
import { ValueSlip } from '../slip';
import { hasTarget } from '../typedValue';

/** The ending of a target is another one: `edge.host.test`. */
export const otherEnding: ValueSlip = ({ is, was, type }) => {
  const ending = hasTarget(type) ? endsOtherwise(is, was) : undefined;
  return ending && { code: 'ending', cost: 1.2, text: `${is} ends in .${ending.is}: it is ${was}.` };
};
