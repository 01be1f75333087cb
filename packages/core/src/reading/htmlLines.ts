import { Tokenizer } from 'htmlparser2';
import { Line } from './lines';

/** Tags that begin a line of their own. */
const BLOCKS: ReadonlySet<string> = new Set(
  'p div br li ul ol tr table tbody thead h1 h2 h3 h4 h5 h6 section article header footer dl dt form pre blockquote label fieldset nav main aside option hr'.split(
    ' ',
  ),
);
const CELLS: ReadonlySet<string> = new Set(['td', 'th', 'dd']);
/** Their text is not seen on the page, or is that of a button. */
const UNSEEN: ReadonlySet<string> = new Set(['script', 'style', 'button', 'svg', 'title', 'noscript', 'template']);

/** True for text that is markup: a name in angle brackets alone is none. */
export function isHtml(text: string): boolean {
  return /<(?:t[dhr]|table|p|div|br|li|ul|ol|dl|dt|dd|html|body|input|span|h\d|a|form|!doctype)(?:\s[^<>]*|\/)?>/i.test(text);
}

/**
 * A page in the lines that a reader sees: each row of a table with its cells, a term with what is said of it, a field with the value in
 * it. Linear in the length, however badly the markup is formed; nothing of it is run.
 */
export function htmlLines(html: string): Line[] {
  return new Drawing(html).lines();
}

class Drawing {
  private readonly drawn: Line[] = [];
  private cells: string[] = [];
  private cell = '';
  private isRow = false;
  /** Where the line that is being drawn began. */
  private begins = 1;
  /** Where the line ends that is being read. */
  private nextEnd: number;
  private line = 1;
  private hidden: string | undefined;
  private tag = '';
  private attribute = '';
  private value = '';
  private input: { value: string; type: string } | undefined;

  constructor(private readonly html: string) {
    this.nextEnd = endAfter(html, 0);
  }

  lines(): Line[] {
    const { html } = this;
    const tokenizer = new Tokenizer(
      { decodeEntities: true },
      {
        onopentagname: (start, end) => {
          this.moveTo(start);
          this.open(html.slice(start, end).toLowerCase());
        },
        onclosetag: (start, end) => {
          this.moveTo(start);
          this.close(html.slice(start, end).toLowerCase());
        },
        ontext: (start, end) => {
          this.text(html.slice(start, end));
          this.moveTo(end);
        },
        ontextentity: (code) => this.text(String.fromCodePoint(code)),
        oncdata: () => undefined,
        oncomment: () => undefined,
        ondeclaration: () => undefined,
        onprocessinginstruction: () => undefined,
        onattribname: (start, end) => {
          this.attribute = html.slice(start, end).toLowerCase();
          this.value = '';
        },
        onattribdata: (start, end) => {
          if (this.input && this.value.length < LONGEST_VALUE) this.value += html.slice(start, end);
        },
        onattribentity: (code) => {
          if (this.input) this.value += String.fromCodePoint(code);
        },
        onattribend: () => {
          if (this.input && this.attribute === 'value') this.input.value = this.value;
          if (this.input && this.attribute === 'type') this.input.type = this.value.toLowerCase();
        },
        onopentagend: () => this.opened(),
        onselfclosingtag: () => {
          this.opened();
          if (this.hidden === this.tag) this.hidden = undefined;
        },
        onend: () => undefined,
      },
    );
    tokenizer.write(html);
    tokenizer.end();
    this.end();
    return this.drawn;
  }

  /** Counts the lines of the source up to here. The next line end is looked for once: a page may be one line with thousands of tags. */
  private moveTo(offset: number): void {
    while (this.nextEnd < offset) {
      this.line += 1;
      this.nextEnd = endAfter(this.html, this.nextEnd + 1);
    }
  }

  private open(tag: string): void {
    this.tag = tag;
    this.input = tag === 'input' ? { value: '', type: 'text' } : undefined;
    if (this.hidden !== undefined) return;
    if (tag === 'pre') this.isSet = true;
    if (UNSEEN.has(tag)) this.hidden = tag;
    else if (tag === 'tr') {
      this.end();
      this.isRow = true;
    } else if (CELLS.has(tag)) {
      if (tag !== 'dd' && !this.isRow) this.isRow = true;
      this.endCell();
    } else if (WITHIN.has(tag) && /[\p{L}\p{N}:@*]$/u.test(this.cell)) {
      // `<span>Host</span><b>www</b>` is drawn apart by its style.
      if (this.isRow) this.text(' ');
      else this.endCell();
    } else if (BLOCKS.has(tag)) {
      // Blocks within a cell of a table are one cell.
      if (this.isRow && tag !== 'table') this.text(' ');
      else this.end();
    }
  }

  private opened(): void {
    const { input } = this;
    this.input = undefined;
    if (!input || this.hidden !== undefined || !/^(?:text|search|url|number|email|)$/.test(input.type)) return;
    if (!this.isRow) this.endCell();
    this.text(` ${input.value} `);
  }

  private close(tag: string): void {
    if (this.hidden !== undefined) {
      if (tag === this.hidden) this.hidden = undefined;
    } else if (tag === 'pre') {
      this.isSet = false;
      if (!this.isRow) this.end();
    } else if (tag === 'tr' || tag === 'table') {
      this.end();
      if (tag === 'table') this.blank();
      this.isRow = false;
    } else if (tag === 'dl' || tag === 'form' || tag === 'fieldset' || /^h\d$/.test(tag) || tag === 'p' || tag === 'ul' || tag === 'div' || tag === 'section') {
      if (this.isRow) return;
      this.end();
      if (tag !== 'div') this.blank();
    } else if (BLOCKS.has(tag) && !this.isRow && tag !== 'dt' && tag !== 'label') this.end();
  }

  private text(piece: string): void {
    if (this.hidden !== undefined) return;
    if (this.isSet && !this.isRow && piece.includes('\n')) {
      // Lines that are set as they stand.
      const [first, ...more] = piece.split('\n');
      this.text(first!);
      for (const one of more) {
        this.end();
        this.text(one);
      }
      return;
    }
    if (this.cell === '' && this.cells.length === 0) this.begins = this.line;
    this.cell += piece;
  }

  private endCell(): void {
    const text = this.cell.replace(/\s+/g, ' ').trim();
    this.cell = '';
    // What stands before the first cell of a row is between the cells.
    if (this.isRow ? this.cells.length > 0 || text !== '' || this.rowBegun : text !== '') this.cells.push(text);
    this.rowBegun = true;
  }

  private rowBegun = false;
  /** Within `pre`. */
  private isSet = false;

  private end(): void {
    this.endCell();
    this.rowBegun = false;
    const { cells } = this;
    this.cells = [];
    if (cells.every((cell) => cell === '')) return;
    this.drawn.push({ line: this.begins, text: cells.join('  '), quote: 0, ...(cells.length > 1 || this.isRow ? { cells } : {}) });
  }

  private blank(): void {
    if (this.drawn.length > 0 && this.drawn.at(-1)!.text !== '') this.drawn.push({ line: this.line, text: '', quote: 0 });
  }
}

/** Elements within a line. */
const WITHIN: ReadonlySet<string> = new Set(['span', 'b', 'strong', 'code', 'button', 'kbd', 'output', 'samp']);
/** Characters of a field: the longest data of a record, each octet escaped. */
const LONGEST_VALUE = 300_000;

/** The place of the first line end from `at` on; infinite where there is none. */
function endAfter(text: string, at: number): number {
  const found = text.indexOf('\n', at);
  return found < 0 ? Infinity : found;
}
