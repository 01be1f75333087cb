import { inFront } from '../names';
import { NameSlip } from './slip';

/** More was typed in front of a name: `dns.ns1.quillmere.example`. */
export const labelInFront: NameSlip = ({ typed, wanted }) => {
  const front = inFront(typed, wanted);
  return front === undefined ? undefined : { code: 'in front', cost: 1, text: `${typed} has “${front}” in front of the name: it is ${wanted}.` };
};
