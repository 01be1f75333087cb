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
 * How many letters have to be put in, left out, changed, or exchanged with their neighbour (optimal string alignment); Infinity where it is more
 * than two. Only what lies within two places of each other is compared, so that the time grows with the length of the shorter.
 *
 *     distance('oldqauy', 'oldquay')  // 1
 */
export function distance(a: string, b: string): number {
  if (Math.abs(a.length - b.length) > MOST) return Infinity;
  let before: number[] = [];
  let last = Array.from({ length: Math.min(b.length, MOST) + 1 }, (_, index) => index);
  for (let i = 1; i <= a.length; i++) {
    const row: number[] = [];
    for (let j = Math.max(0, i - MOST); j <= Math.min(b.length, i + MOST); j++) {
      if (j === 0) {
        row[0] = i;
        continue;
      }
      let least = Math.min((last[j] ?? Infinity) + 1, (row[j - 1] ?? Infinity) + 1, (last[j - 1] ?? Infinity) + (a[i - 1] === b[j - 1] ? 0 : 1));
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) least = Math.min(least, (before[j - 2] ?? Infinity) + 1);
      row[j] = least;
    }
    before = last;
    last = row;
  }
  const least = last[b.length] ?? Infinity;
  return least <= MOST ? least : Infinity;
}
