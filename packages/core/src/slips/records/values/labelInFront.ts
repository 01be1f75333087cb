import { inFront } from '../../names';
import { ValueSlip } from '../slip';
import { hasTarget } from '../typedValue';

/** More stands in front of the name: `www.edge.host.example`. */
export const labelInFront: ValueSlip = ({ is, was, type }) => {
  const front = hasTarget(type) ? inFront(is, was) : undefined;
  return front === undefined ? undefined : { code: 'in front', cost: 1, text: `${is} has “${front}” in front of the name: it is ${was}.` };
};
