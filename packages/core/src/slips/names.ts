/** What two names have to do with each other, whatever they are of: nameservers, targets of records. Without final dots. */

/** Letters that differ in one name that is still taken for the other; more would be guessing. */
const MOST = 2;

/** A name without its first label: `quillmere.example` of `ns1.quillmere.example`. */
export const domainOf = (name: string): string => name.slice(name.indexOf('.') + 1);

/**
 * The name with `#` for each number, and for each letter that stands alone in its first label: what names of a series have in common.
 *
 *     withoutNumbers('ns12.quillmere.example')  // 'ns#.quillmere.example'
 *     withoutNumbers('dns-b.quillmere.example') // 'dns-#.quillmere.example'
 */
export function withoutNumbers(name: string): string {
  const [first, ...others] = name.toLowerCase().replace(/\d+/g, '#').split('.');
  return [first!.replace(/(?<=^|[-_#])[a-z](?=$|[-_#])/g, '#'), ...others].join('.');
}

/**
 * What was typed in front of a name; undefined where it is not that name with more in front.
 *
 *     inFront('dns.ns1.quillmere.example', 'ns1.quillmere.example')  // 'dns'
 */
export function inFront(typed: string, wanted: string): string | undefined {
  return typed.toLowerCase().endsWith(`.${wanted.toLowerCase()}`) ? typed.slice(0, -wanted.length - 1) : undefined;
}

/**
 * The other ending of a name of which all else is right; undefined where more is wrong, or where its ending is misspelt.
 *
 *     endsOtherwise('ns1.quillmere.test', 'ns1.quillmere.example')          // { is: 'test', was: 'example' }
 *     endsOtherwise('ns1.quillmere.example.test', 'ns1.quillmere.example')  // { is: 'test', was: '' }
 */
export function endsOtherwise(typed: string, wanted: string): { readonly is: string; readonly was: string } | undefined {
  const [here, there] = [typed.toLowerCase().split('.'), wanted.toLowerCase().split('.')];
  let same = 0;
  while (same < Math.min(here.length, there.length) && here[same] === there[same]) same++;
  const [ending, right] = [here.slice(same), there.slice(same)];
  // The name of the host itself stands: what differs is behind it.
  if (same < 2 || ending.length < 1 || ending.length > 2 || right.length > 2 || ending.at(-1) === right.at(-1)) return undefined;
  const [is, was] = [ending.join('.'), right.join('.')];
  // A long ending with a letter or two wrong was misspelt.
  return is.length > 4 && distance(is, was) <= MOST ? undefined : { is, was };
}

/** True for the domain of a host, or its website, in the place of a name below it: `www.quillmere.example` for `ns1.quillmere.example`. */
export function isSiteOf(typed: string, wanted: string): boolean {
  const site = typed.toLowerCase().replace(/^www\./, '');
  return site.includes('.') && wanted.toLowerCase().endsWith(`.${site}`);
}

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
