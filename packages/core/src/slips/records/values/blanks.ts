import { ValueSlip } from '../slip';
import { inSentence } from '../typedValue';

/** Blanks or line breaks more, or fewer, than there should be. */
export const blanks: ValueSlip = ({ is, was, type }) => {
  if (is === was || is.replace(/\s+/g, '') !== was.replace(/\s+/g, '') || type === 'A' || type === 'AAAA') return undefined;
  const count = (text: string): number => text.match(/\s/g)?.length ?? 0;
  const [here, there] = [count(is), count(was)];
  if (here < there) return { code: 'blanks lost', cost: 1, text: `Blanks of it are lost: it is ${inSentence(was)}.` };
  if (here > there)
    return {
      code: 'text with blanks',
      cost: 1,
      text: `A blank or a line break stands inside it that is none of it, as from a page that wrapped it: it is ${inSentence(was)}.`,
    };
  return { code: 'blanks moved', cost: 1, text: `Its blanks stand in other places: it is ${inSentence(was)}.` };
};
