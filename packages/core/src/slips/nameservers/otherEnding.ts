import { endsOtherwise } from '../names';
import { NameSlip } from './slip';

/** The ending of a name was typed as another one: `ns1.quillmere.test`, `ns1.quillmere.example.test`. */
export const otherEnding: NameSlip = ({ typed, wanted }) => {
  const ending = endsOtherwise(typed, wanted);
  return ending && { code: 'ending', cost: 1, text: `${typed} ends in .${ending.is}${ending.was && `, and not in .${ending.was}`}: it is ${wanted}.` };
};
