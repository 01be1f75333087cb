import { ValueSlip } from '../slip';
import { inSentence } from '../typedValue';

/** Characters below which a beginning is no sign of a cut. */
const SHORTEST = 10;

/** A long value of which the panel or the clipboard took only a part. */
export const cut: ValueSlip = ({ is, was, type }) => {
  if (is === '' || is.length >= was.length) return undefined;
  const [here, there] = [is.toLowerCase(), was.toLowerCase()];
  const isText = type === 'TXT' || type === 'SPF';
  if (!isText) {
    // Of a name the first labels are a part that somebody types.
    if (there.startsWith(`${here}.`)) return { code: 'cut', cost: 1.1, text: `${is} is not the whole name: it is ${inSentence(was)}.` };
    return is.length >= SHORTEST && (type === 'TLSA' || type === 'SSHFP' || type === 'CAA') && there.startsWith(here)
      ? { code: 'cut', cost: 1.1, text: `It ends after ${is.length} of ${was.length} characters: it is ${inSentence(was)}.` }
      : undefined;
  }
  if (is.length < SHORTEST) return undefined;
  const parts = was.length > 255 ? ' Paste it whole, or in parts of at most 255 characters.' : '';
  if (was.startsWith(is.trimEnd()))
    return { code: 'text cut', cost: 1.1, text: `The text ends after ${is.length} of ${was.length} characters: it is ${inSentence(was)}.${parts}` };
  if (was.endsWith(is.trimStart()))
    return { code: 'text cut', cost: 1.1, text: `The first ${was.length - is.length} characters of the text are missing: it is ${inSentence(was)}.${parts}` };
  return undefined;
};
