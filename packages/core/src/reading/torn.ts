import { Find, Unread } from './find';
import { labelOf } from './labels';
import { typeWord } from './typeWord';

/** Lines of one record among which one that was not read is looked for. */
const MOST_TORN = 40;

/** Whether a line that was not read stands within what was found, or right below it, and may belong to it. */
export function isTorn(find: Find, unread: ReadonlyMap<number, Unread>, texts: ReadonlyMap<number, string>): boolean {
  // Programs say themselves where a record ends.
  if (find.form === 'json' || find.form === 'yaml') return false;
  for (let line = find.line + 1; line <= Math.min(find.lastLine, find.line + MOST_TORN); line++) if (unread.has(line)) return true;
  const above = unread.get(find.line - 1);
  if (
    above &&
    find.kind !== 'nameserver' &&
    find.form !== 'zone file' &&
    !isNoPart(above.text, find) &&
    !isRowBeside(above.text, texts.get(find.line)) &&
    beginsRecord(above.text)
  )
    return true;
  const below = unread.get(find.lastLine + 1);
  // A row of its own, whatever is wrong with it, and a comment are nobody's rest.
  if (!below || below.problem !== undefined || isNoPart(below.text, find)) return false;
  const parts = partsIn(below.text);
  return goesOn(below.text, find) || (parts > 1 && parts < partsIn(texts.get(find.lastLine) ?? ''));
}

/** A row of the same table, with a type and as many cells. */
function isRowBeside(text: string, own: string | undefined): boolean {
  const mark = ['\t', '|', ';'].find((one) => own?.includes(one));
  if (own === undefined || mark === undefined) return false;
  const cells = text.split(mark);
  const count = cells.length;
  if (!cells.some((cell) => typeWord(cell.trim()) === cell.trim() && cell.trim() !== '')) return false;
  return count > 2 && count === own.split(mark).length && text.trim().startsWith(mark) === own.trim().startsWith(mark);
}

/** A comment, or a line of brackets or a rule alone; a text without quotes may go on with any of them. */
function isNoPart(text: string, { type }: Find): boolean {
  return type !== 'TXT' && (/^(?:[;#]|\/\/)/.test(text) || /^[{}()[\]]+[;,]?$|^[-=_]{3,}$/.test(text));
}

/** How many cells a line of a table has, by the marks between them. */
function partsIn(text: string): number {
  return text.split(/[\t|;]/).length;
}

/** Whether an unread line may be the beginning of the record below it: it has names, numbers or values, and is no sentence and no heading. */
function beginsRecord(text: string): boolean {
  const words = text.split(/\s+/);
  if (words.filter((word) => /^\p{L}\p{Ll}{2,}$/u.test(word)).length >= 3 && !words.some((word) => typeWord(word) === word)) return false;
  // A field of its own.
  if (/^[^:]{1,40}:\s+\S/.test(text) && labelOf(text.slice(0, text.indexOf(':'))) !== undefined) return false;
  // Cells that stand apart are no sentence, whatever the last of them ends with.
  if (/[\t|]|;\S/.test(text)) return true;
  if (/[:.!?{]$/.test(text)) return false;
  return text.includes('\t') || words.some((word) => /^\d+$|[^\s.]\.[^\s.]|[=@";|]/.test(word));
}

/** Whether an unread line may be the rest of the value above it: it looks like no sentence, or what is above is a text without quotes. */
function goesOn(text: string, { kind, type }: Find): boolean {
  // Below a whole name of a server only the rest of a name could stand.
  if (kind === 'nameserver') return /^[a-z0-9.-]+$/.test(text);
  // A heading or a field of its own.
  if (text.endsWith(':') || /^[^:]{1,40}:\s/.test(text)) return false;
  const words = text.split(/\s+/);
  if (words.length <= 3) return true;
  return type === 'TXT' && !/^\p{Lu}\p{Ll}+(?:\s+\p{L}+){3,}/u.test(text);
}
