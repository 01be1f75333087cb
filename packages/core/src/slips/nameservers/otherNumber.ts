import { withoutNumbers } from '../names';
import { NameSlip } from './slip';

/** A name of a numbered series with another number: `ns4` for `ns3`. */
export const otherNumber: NameSlip = ({ typed, wanted }) =>
  withoutNumbers(wanted) === withoutNumbers(typed) && withoutNumbers(wanted) !== wanted.toLowerCase()
    ? { code: 'number', cost: 1 + distanceOfNumbers(typed, wanted), text: `${typed} has another ${what(typed, wanted)}: it is ${wanted}.` }
    : undefined;

/** Of a series by letters the letter differs, and no digit. */
const what = (a: string, b: string): string => (a.replace(/\D/g, '') === b.replace(/\D/g, '') ? 'letter' : 'number');

/** Numbers that look alike are taken for each other rather than ones that do not: less than one. */
function distanceOfNumbers(a: string, b: string): number {
  const numbers = (name: string): readonly string[] => name.match(/\d+/g) ?? [];
  const others = numbers(b);
  return 0.1 * numbers(a).filter((number, at) => number !== others[at]).length;
}
