import { Find, Form, Subject, Unread } from './find';
import { isAddressWord, isHostWord } from './hostWord';
import { Line } from './lines';
import { readOwner } from './owner';

/** Forms that read a part of a line; of the others each part of a line is accounted for, or asked about. */
const LOOSE: ReadonlySet<Form> = new Set(['sentence', 'fields', 'list']);
/** A term of SPF that names something, and a proof of ownership. */
const TERM = /^(?:include|redirect|ip4|ip6)[:=].|^[\w-]{1,60}-verification=./i;
const BETWEEN_WORDS = /[\s,;()<>"'“”„]+/;
/** Values that are told of one line, and characters of each and of the line. */
const TOLD = 3;
const MOST_SHOWN = 300;

/**
 * Lines of which something was read and something else was not, each with what that is: what somebody pasted vanishes nowhere.
 *
 *     // SPF: add include:spf.post.example, and point www to 203.0.113.80  // of which the address was read
 *     // { line: 1, text: 'SPF: add …', problem: 'Not read in it: include:spf.post.example.' }
 */
export function partlyRead(lines: readonly Line[], finds: readonly Find[], subject: Subject): Unread[] {
  const byLine = new Map<number, Find[]>();
  for (const find of finds) {
    if (!LOOSE.has(find.form)) continue;
    for (let line = find.line; line <= find.lastLine; line++) {
      const here = byLine.get(line);
      if (here) here.push(find);
      else byLine.set(line, [find]);
    }
  }
  return lines.flatMap(({ line, text }): Unread[] => {
    const here = byLine.get(line);
    if (!here) return [];
    const read = here.flatMap(({ owner, data, others }) => [owner, data, ...others.flatMap((one) => [one.owner, one.data])]);
    const known = new Set(read.flatMap((one) => one.split(BETWEEN_WORDS)).map(folded));
    const hasServers = here.some(({ kind }) => kind === 'nameserver');
    const left = text.split(BETWEEN_WORDS).flatMap((word) => {
      const value = word.replace(/[.:]$/, '');
      return isValue(value) && !isKnown(value, known, hasServers, subject) ? [value] : [];
    });
    if (left.length === 0) return [];
    const shown = left
      .slice(0, TOLD)
      .map((value) => value.slice(0, MOST_SHOWN))
      .join(', ');
    const more = left.length > TOLD ? ` and ${left.length - TOLD} more` : '';
    return [{ line, text: text.trim().slice(0, MOST_SHOWN), problem: `Not read in it: ${shown}${more}.` }];
  });
}

/** What a line is pasted for: addresses, names of hosts, terms and proofs. Links and mail addresses are none. */
function isValue(word: string): boolean {
  return isAddressWord(word) || isHostWord(word) || TERM.test(word);
}

/** The value is in what was read of its line, is a name that the line is about, or stands beside a nameserver as its address. */
function isKnown(value: string, known: ReadonlySet<string>, hasServers: boolean, subject: Subject): boolean {
  const text = folded(value);
  if (known.has(text)) return true;
  if (hasServers && isAddressWord(text)) return true;
  const owner = readOwner(text, subject);
  if (owner?.is !== 'ours') return false;
  return owner.owner === '@' || known.has(folded(owner.owner));
}

function folded(text: string): string {
  return text.toLowerCase().replace(/\.$/, '');
}
