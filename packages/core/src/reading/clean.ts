import { htmlLines, isHtml } from './htmlLines';
import { Line } from './lines';
import { typeWord } from './typeWord';
import { INVISIBLE, WIDE_BLANKS } from './unseen';

/** Lines that are read: twenty thousand records of eight fields each, and the gaps between them. */
const MOST_LINES = 200_000;
/** Characters of a line: the longest data of a record with every octet escaped, and its quotes. */
const LONGEST_LINE = 300_000;

/** The rule below the head of a table that was drawn with signs. */
const RULE = /^[\s|+:=_\u2500-\u257f-]{3,}$/;

export interface Cleaned {
  readonly lines: readonly Line[];
  /** The same before list bullets, numbers and marks were taken away, for what means something by them; empty of HTML. */
  readonly plain: string;
  readonly leftOut: number;
}

/**
 * A text in lines, without what copying adds: unseen characters, marks of quoted mails, fences, list bullets and numbers of lines. Of
 * HTML its rows and blocks. Markup is taken apart and never run.
 *
 *     cleanLines('> - `www` A 192.0.2.1').lines[0]  // { line: 1, text: 'www A 192.0.2.1', quote: 1 }
 */
export function cleanLines(text: string): Cleaned {
  const seen = text.replace(INVISIBLE, '').replace(WIDE_BLANKS, ' ');
  if (isHtml(seen)) {
    const all = htmlLines(seen);
    return { lines: all.slice(0, MOST_LINES), plain: '', leftOut: Math.max(0, all.length - MOST_LINES) };
  }
  const all = seen.split(/\r\n|[\n\r\u2028\u2029]/);
  if (all.at(-1) === '') all.pop();
  const whole = all.slice(0, MOST_LINES).map((one, index) => unquoted(one, index + 1));
  joinAnswers(whole);
  const raw = whole.map((one) => (one.text.length > LONGEST_LINE ? { ...one, text: one.text.slice(0, LONGEST_LINE) } : one));
  return {
    lines: withoutBullets(withoutNumbers(withoutSpeakers(raw))).map(unmarked),
    plain: whole.map(({ text: one }) => one).join('\n'),
    leftOut: Math.max(0, all.length - MOST_LINES),
  };
}

/** Lines below a name within which its text follows. */
const TEXT_WITHIN = 4;

/** A program that asks says a text below its name, with a gap between them: they are one line. Parts of the text follow each other. */
function joinAnswers(lines: Line[]): void {
  for (let at = 0; at < lines.length; at++) {
    if (!/^\S+\s+text\s*=\s*$/.test(lines[at]!.text)) continue;
    for (let next = at + 1; next < lines.length && next <= at + TEXT_WITHIN; next++) {
      const text = lines[next]!.text.trim();
      if (text === '') continue;
      if (!/^"/.test(text)) break;
      lines[at] = { ...lines[at]!, text: `${lines[at]!.text.trim()} ${text}` };
      lines[next] = { ...lines[next]!, text: '' };
    }
  }
}

/** `> > text` → text, twice quoted. */
function unquoted(raw: string, line: number): Line {
  const mark = /^(?:\s?>)+ ?/.exec(raw)?.[0];
  if (mark === undefined) return { line, text: raw, quote: 0 };
  return { line, text: raw.slice(mark.length), quote: mark.split('>').length - 1 };
}

/** Who says what and when in front of the lines of a chat: `[10:42] Support: www A 192.0.2.1`. */
function withoutSpeakers(lines: readonly Line[]): readonly Line[] {
  const spoken = lines.filter(({ text }) => SPEAKER.test(text));
  if (spoken.length < 2 || spoken.length * 2 < lines.filter(({ text }) => text.trim() !== '').length) return lines;
  return lines.map((one) => ({ ...one, text: one.text.replace(SPEAKER, '') }));
}

const SPEAKER = /^\s?\[?\d{1,2}:\d{2}(?::\d{2})?(?: ?[ap]m)?\]?,?\s{1,3}(?:[\p{L}][\p{L} .'-]{0,30}:\s)?/iu;

/** Numbers of lines, where nearly every line begins with the next one. */
function withoutNumbers(lines: readonly Line[]): readonly Line[] {
  const numbered = /^\s*(\d{1,5})(?:[.:)|]|\s)\s*(?=\S)/;
  const full = lines.filter(({ text }) => text.trim() !== '');
  if (full.length < 3) return lines;
  let before: number | undefined;
  let follow = 0;
  for (const { text } of full) {
    const number = Number(numbered.exec(text)?.[1] ?? Number.NaN);
    if (before !== undefined && number === before + 1) follow += 1;
    before = number;
  }
  if (follow < (full.length - 1) * 0.9) return lines;
  return lines.map((one) => ({ ...one, text: one.text.replace(numbered, '') }));
}

/** Marks and numbers of lists. A star or a dash may be the name of a record as well: they go where all lines to the end of a block have them. */
function withoutBullets(lines: readonly Line[]): readonly Line[] {
  const clean = [...lines];
  for (let from = 0; from < lines.length; from++) {
    if (lines[from]!.text.trim() === '') continue;
    let to = from;
    while (to + 1 < lines.length && lines[to + 1]!.text.trim() !== '' && lines[to + 1]!.quote === lines[from]!.quote) to += 1;
    const block = lines.slice(from, to + 1);
    const list = block.findIndex((_, index) => index >= block.length - 1 || block.slice(index, index + 2).every(({ text }) => isListed(text)));
    const isList = list < block.length - 1 && block.slice(list).every(({ text }) => isListed(text));
    for (const [index, one] of block.entries()) {
      const mark = BULLET.exec(one.text)?.[0] ?? (isList && index >= list ? /^\s*\S\s+/.exec(one.text)![0] : undefined);
      if (mark !== undefined) clean[from + index] = { ...one, text: one.text.slice(mark.length) };
    }
    from = to;
  }
  return clean;
}

/** A mark before what is neither a type, nor a class, nor a TTL: these follow the name of a record. */
function isListed(text: string): boolean {
  const word = AMBIGUOUS.exec(text)?.[1];
  return word !== undefined && typeWord(word) === undefined && !/^(?:IN|\d+[smhdw]?)$/i.test(word);
}

const BULLET = /^\s*(?:[•·‣▪◦–—]|\d{1,2}[.)])\s+(?=\S)/;
const AMBIGUOUS = /^\s*[-*]\s+(?!\|)(\S+)/;

function unmarked(one: Line): Line {
  if (RULE.test(one.text) || /^\s*(?:```|~~~)/.test(one.text)) return { ...one, text: /[|+]/.test(one.text) && !/`/.test(one.text) ? RULED : '' };
  let { text } = one;
  text = text.replace(/`+([^`]+)`+/g, '$1').replace(/\*\*(\S(?:[^*]*\S)?)\*\*/g, '$1');
  return text === one.text ? one : { ...one, text };
}

/** Stands for a rule that was drawn between rows of a table: it parts nothing. */
export const RULED = '\u0000';
