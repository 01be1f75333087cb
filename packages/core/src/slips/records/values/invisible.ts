import { INVISIBLE, WIDE_BLANKS } from '../../../reading/unseen';
import { ValueSlip } from '../slip';
import { inSentence } from '../typedValue';

/** Characters that nobody sees came along when it was copied from a page. */
export const invisible: ValueSlip = ({ is, was }) => {
  const clean = is.replace(INVISIBLE, '').replace(WIDE_BLANKS, ' ');
  if (clean === is) return undefined;
  if (clean !== was && clean.trim() !== was && clean.replace(/ /g, '') !== was.replace(/ /g, '')) return undefined;
  return {
    code: 'invisible',
    cost: 1,
    text: `There are characters in it that nobody sees, copied from a page: type ${inSentence(was)} by hand, or paste it as plain text.`,
  };
};
