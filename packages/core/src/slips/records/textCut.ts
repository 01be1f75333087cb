import { RecordSlip, without } from './slip';
import { joined, strings } from './text';

/** A long text that the panel cut off, or that was split with a blank where its parts join. */
export const textCut: RecordSlip = ({ type, planned, served }) => {
  if (type !== 'TXT' && type !== 'SPF') return undefined;
  for (const there of without(served, planned))
    for (const wanted of without(planned, served)) {
      const [is, was] = [joined(there), joined(wanted)];
      if (is === was) return { code: 'text split', text: 'The text is split otherwise; readers join its parts, so that it means the same.' };
      if (is.length >= SHORTEST && was.startsWith(is))
        return { code: 'text cut', text: `The text ends after ${is.length} of ${was.length} characters: paste it whole, or in parts of at most 255.` };
      if (strings(there).length > 0 && is !== was && is.replace(/\s+/g, '') === was.replace(/\s+/g, ''))
        return { code: 'text with blanks', text: 'A blank or a line break stands inside the text: it was pasted from a page that wrapped it.' };
    }
  return undefined;
};

/** Characters below which a beginning is no sign of a cut. */
const SHORTEST = 10;
