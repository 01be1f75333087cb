import { drawn, readHtml } from '../survey/html';

/** One line of a page as it is read: what stands in its cells, and which line of the text it is. */
export interface PageLine {
  /** Counts from 1. */
  readonly line: number;
  readonly cells: readonly string[];
}

/** Characters, lines and cells that are read of what was pasted. */
export const PAGE_LIMIT = 200_000;
const LINES = 2_000;
const CELLS = 12;

/** Tags that begin a line of their own. */
const BLOCKS: ReadonlySet<string> = new Set('p div br li ul ol tr table h1 h2 h3 h4 h5 h6 section article header footer dt dl form pre blockquote'.split(' '));
const CELL_TAGS: ReadonlySet<string> = new Set(['td', 'th', 'dd']);

/** A page or a mail in lines and cells: of HTML its rows and blocks, of text its lines, parted by tabs, bars or wide gaps. Blank lines stay. */
export function pageLines(text: string): PageLine[] {
  const cut = text.slice(0, PAGE_LIMIT).replace(/\r\n?/g, '\n');
  const plain = /<(?:t[dhr]|table|p|div|br|li|ul|dl|dt|dd|html|body|h\d)[\s/>]/i.test(cut) ? htmlText(cut) : cut;
  return plain
    .split('\n')
    .slice(0, LINES)
    .map((raw, index) => ({ line: index + 1, cells: cellsOf(raw.slice(0, 4000)) }));
}

function cellsOf(raw: string): string[] {
  // The rule below the head of a table that was drawn with signs says nothing.
  if (/^[\s|+:=_-]*$/.test(raw)) return [];
  const bare = raw.replace(/^\s*(?:[-*•·>]\s+|\d{1,2}[.)]\s+)?/, '').trim();
  const parts = bare.includes('\t') ? bare.split('\t') : /\|.*\|/.test(bare) || bare.includes(' | ') ? bare.split('|') : bare.split(/ {2,}/);
  const cells = parts.map((cell) => cleaned(cell));
  while (cells[0] === '') cells.shift();
  while (cells.at(-1) === '') cells.pop();
  return cells.slice(0, CELLS);
}

/** Without the marks with which people set off a value in text, where both are there: a name may begin with an underscore or a star. */
function cleaned(cell: string): string {
  const text = drawn(cell);
  const marked = /^`+([^`]+)`+$/.exec(text) ?? /^\*\*([^*]+)\*\*$/.exec(text);
  return marked ? marked[1]!.trim() : text;
}

function htmlText(html: string): string {
  const pieces: string[] = [];
  readHtml(html, {
    open: (tag) => {
      if (BLOCKS.has(tag)) pieces.push('\n');
      else if (CELL_TAGS.has(tag)) pieces.push('\t');
    },
    close: (tag) => {
      // A term stands before its description, in one line.
      if (BLOCKS.has(tag) && tag !== 'br' && tag !== 'dt') pieces.push('\n');
    },
    // Breaks within text mean nothing in HTML.
    text: (piece) => pieces.push(piece.replace(/\s+/g, ' ')),
  });
  return pieces.join('').replace(/\n\s*\n\s*\n+/g, '\n\n');
}
