import { ValueSlip } from '../slip';
import { inSentence } from '../typedValue';

/** Words that may be missing in a text, or be too many, and it is still taken for the same. */
const MOST = 2;

/** A word of a text is missing, or one is too many: an `include` of an SPF record, a tag of a policy. */
export const textWords: ValueSlip = ({ is, was, type }) => {
  if (type !== 'TXT' && type !== 'SPF') return undefined;
  const [here, there] = [is.split(/\s+/), was.split(/\s+/)];
  const missing = rest(there, here);
  const more = rest(here, there);
  const same = there.length - missing.length;
  if (missing.length > MOST || more.length > MOST || same < 2) return undefined;
  // With one word for another it is another text.
  if (missing.length > 0 === more.length > 0) return undefined;
  const what = missing.length > 0 ? `lacks “${inSentence(missing.join(' '))}”` : `has “${inSentence(more.join(' '))}”, which is not planned`;
  return { code: 'words', cost: 2.1, text: `The text ${what}: it is ${inSentence(was)}.` };
};

/** Words of `a` that `b` has not, each as often as it stands there. */
function rest(a: readonly string[], b: readonly string[]): string[] {
  const left = [...b];
  return a.filter((word) => {
    const at = left.indexOf(word);
    if (at < 0) return true;
    left.splice(at, 1);
    return false;
  });
}
