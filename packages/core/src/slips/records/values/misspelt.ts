import { distance, withoutNumbers } from '../../names';
import { ValueSlip } from '../slip';
import { inSentence } from '../typedValue';

/** Characters below which two values that differ in two are simply others. */
const SHORTEST = 7;
/** Characters above which a value is no name of a series: in a key a digit is a letter like others. */
const LONGEST = 80;

/** A letter or two exchanged, left out, doubled or hit beside. */
export const misspelt: ValueSlip = ({ is, was, type }) => {
  if (type === 'A' || type === 'AAAA' || was.length < SHORTEST) return undefined;
  const isText = type === 'TXT' || type === 'SPF';
  if (is.toLowerCase() === was.toLowerCase())
    return is === was ? undefined : { code: 'letter case', cost: 1, text: `Capitals and small letters are not as they should be: it is ${inSentence(was)}.` };
  const [here, there] = isText ? unlike(is, was) : unlike(is.toLowerCase(), was.toLowerCase());
  const far = distance(here, there);
  if (far > 2) return undefined;
  if (isText) {
    const [from, to] = unlike(is, was);
    const what = from === '' ? `“${to}” is missing in it` : to === '' ? `“${from}” is too much in it` : `“${from}” in it is to be “${to}”`;
    return { code: 'misspelt', cost: 0.8 + 0.6 * far, text: `The text is misspelt: ${what}. It is ${inSentence(was)}.` };
  }
  return { code: 'misspelt', cost: 0.8 + 0.6 * far, text: `${inSentence(is)} is misspelt: it is ${inSentence(was)}.` };
};

/** The name or text of a series with the number of another one. */
export const otherNumber: ValueSlip = ({ is, was, type }) =>
  type !== 'A' && type !== 'AAAA' && was.length <= LONGEST && withoutNumbers(is) === withoutNumbers(was) && is.toLowerCase() !== was.toLowerCase()
    ? { code: 'number', cost: 1, text: `${inSentence(is)} has another number than ${inSentence(was)}: it was copied, and the number not changed.` }
    : undefined;

/** What is left of two texts once their common beginning and end are off. */
function unlike(a: string, b: string): [string, string] {
  let front = 0;
  while (front < a.length && front < b.length && a[front] === b[front]) front++;
  let end = 0;
  while (end < a.length - front && end < b.length - front && a[a.length - 1 - end] === b[b.length - 1 - end]) end++;
  return [a.slice(front, a.length - end), b.slice(front, b.length - end)];
}
