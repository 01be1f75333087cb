import { plain } from '../../survey/words';
import { NameSlip, domainOf } from './slip';

/** Slips of the finger in one name that are still taken for it; more would be guessing. */
const MOST = 2;

/** A name that differs from the wanted one by a letter or two: left out, doubled, changed, or two of them exchanged. */
export const misspelt: NameSlip = ({ typed, wanted, context }) => {
  const far = distance(typed.toLowerCase(), wanted.toLowerCase());
  if (far > MOST) return undefined;
  const elsewhere = !context.wanted.some((name) => domainOf(plain(name)).toLowerCase() === domainOf(typed).toLowerCase());
  const danger = elsewhere && typed.includes('.') ? ` As it stands it leads into ${domainOf(typed)}, which is not the host’s.` : '';
  return { code: 'misspelt', cost: 0.5 + 0.7 * far, text: `${typed} is misspelt: it is ${wanted}.${danger}` };
};

/**
 * How many letters have to be put in, left out, changed, or exchanged with their neighbour (optimal string alignment).
 *
 *     distance('oldqauy', 'oldquay')  // 1
 */
export function distance(a: string, b: string): number {
  // A name has at most 253 letters; what is much longer or shorter is another one.
  if (Math.abs(a.length - b.length) > MOST) return Infinity;
  let before: number[] = [];
  let last = Array.from({ length: b.length + 1 }, (_, index) => index);
  for (let i = 1; i <= a.length; i++) {
    const row = [i];
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1];
      let least = Math.min(last[j]! + 1, row[j - 1]! + 1, last[j - 1]! + (same ? 0 : 1));
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) least = Math.min(least, before[j - 2]! + 1);
      row.push(least);
    }
    before = last;
    last = row;
  }
  return last[b.length]!;
}
