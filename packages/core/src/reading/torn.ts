import { Find, Unread } from './find';
import { typeWord } from './typeWord';

/** Lines of one record among which one that was not read is looked for. */
const MOST_TORN = 40;

/** Whether a line that was not read stands within what was found, or right below it, and may belong to it. */
export function isTorn(find: Find, unread: ReadonlyMap<number, Unread>, texts: ReadonlyMap<number, string>): boolean {
  // Programs say themselves where a record ends.
  if (find.form === 'json' || find.form === 'yaml') return false;
  for (let line = find.line + 1; line <= Math.min(find.lastLine, find.line + MOST_TORN); line++) if (unread.has(line)) return true;
  const above = unread.get(find.line - 1);
  if (above && find.form !== 'zone file' && beginsRecord(above.text)) return true;
  const below = unread.get(find.lastLine + 1);
  // A row of its own, whatever is wrong with it, is nobody's rest.
  if (!below || below.problem !== undefined) return false;
  const parts = partsIn(below.text);
  return goesOn(below.text, find) || (parts > 1 && parts < partsIn(texts.get(find.lastLine) ?? ''));
}

/** How many cells a line of a table has, by the marks between them. */
function partsIn(text: string): number {
  return text.split(/[\t|;]/).length;
}

/** Whether an unread line may be the beginning of the record below it: it has names, numbers or values, and is no sentence and no heading. */
function beginsRecord(text: string): boolean {
  const words = text.split(/\s+/);
  if (words.filter((word) => /^\p{L}\p{Ll}{2,}$/u.test(word)).length >= 3 && !words.some((word) => typeWord(word) === word)) return false;
  return !/[:.!?]$/.test(text) && words.some((word) => /^\d+$|[^\s.]\.[^\s.]|[=@"]/.test(word));
}

/** Whether an unread line may be the rest of the value above it: it looks like no sentence, or what is above is a text without quotes. */
function goesOn(text: string, { type }: Find): boolean {
  // A heading or a field of its own.
  if (text.endsWith(':') || /^[^:]{1,40}:\s/.test(text)) return false;
  const words = text.split(/\s+/);
  if (words.length <= 3) return true;
  return type === 'TXT' && !/^\p{Lu}\p{Ll}+(?:\s+\p{L}+){3,}/u.test(text);
}
