import { asciiText, fromUtf8 } from './bytes';

/** Raised where a zone file or a record's text cannot be read; line and column count from 1. */
export class TextError extends Error {
  override readonly name = 'TextError';
  constructor(
    message: string,
    readonly line: number,
    readonly column: number,
  ) {
    super(message);
  }
}

/** One word of a zone file: octets of `source` from `start` to before `end`, escapes and all. Good until the next entry is read. */
export class Token {
  source: Uint8Array = NOTHING;
  start = 0;
  end = 0;
  quoted = false;
  line = 1;
  lineStart = 0;

  /** The word as text, for messages and mnemonics; its escapes stand. */
  get text(): string {
    for (let i = this.start; i < this.end; i++) if (this.source[i]! >= 0x80) return fromUtf8(this.source.subarray(this.start, this.end));
    return asciiText(this.source, this.start, this.end);
  }

  get length(): number {
    return this.end - this.start;
  }

  /** In characters, not octets. */
  get column(): number {
    return columnAt(this.source, this.lineStart, this.quoted ? this.start - 1 : this.start);
  }
}

const NOTHING = new Uint8Array(0);

export function columnAt(source: Uint8Array, lineStart: number, at: number): number {
  let column = 1;
  for (let i = Math.max(lineStart, 0); i < at; i++) if ((source[i]! & 0xc0) !== 0x80) column += 1;
  return column;
}

/** The words of one entry, taken one after the other. Used again for every entry. */
export class Words {
  /** True if the first line began with white space: the owner of the entry before is meant. */
  sameOwner = false;
  /** Where the entry ends, for what is missing there. */
  readonly endToken = new Token();
  private readonly tokens: Token[] = [];
  private count = 0;
  private next = 0;

  clear(): void {
    this.count = 0;
    this.next = 0;
    this.sameOwner = false;
  }

  add(source: Uint8Array, start: number, end: number, quoted: boolean, line: number, lineStart: number): void {
    let token = this.tokens[this.count];
    if (!token) this.tokens.push((token = new Token()));
    this.count += 1;
    token.source = source;
    token.start = start;
    token.end = end;
    token.quoted = quoted;
    token.line = line;
    token.lineStart = lineStart;
  }

  get left(): number {
    return this.count - this.next;
  }

  /** The next word, or the one `ahead` behind it. */
  peek(ahead = 0): Token | undefined {
    return this.next + ahead < this.count ? this.tokens[this.next + ahead] : undefined;
  }

  take(expected: string): Token {
    if (this.next >= this.count) throw new TextError(`${expected} is missing`, this.endToken.line, this.endToken.column);
    return this.tokens[this.next++]!;
  }

  /** A word without quotes, as all but character strings are written. */
  bare(expected: string): Token {
    const token = this.take(expected);
    if (token.quoted) fail(token, `${expected} stands without quotes`);
    return token;
  }

  /** Every word that is left, joined, without quotes: hexadecimal and base64 may be broken by white space. */
  joined(expected: string): { first: Token; octets: Uint8Array } {
    const first = this.bare(expected);
    if (this.next === this.count) return { first, octets: first.source.subarray(first.start, first.end) };
    const from = this.next - 1;
    let length = first.length;
    while (this.left > 0) length += this.bare(expected).length;
    const octets = new Uint8Array(length);
    let at = 0;
    for (let i = from; i < this.count; i++) {
      const token = this.tokens[i]!;
      octets.set(token.source.subarray(token.start, token.end), at);
      at += token.length;
    }
    return { first, octets };
  }

  /** Refuses words that are left. */
  end(after: string): void {
    const extra = this.peek();
    if (extra) fail(extra, `${extra.text} is more than ${after} takes`);
  }
}

export function fail(token: Token, message: string): never {
  throw new TextError(message, token.line, token.column);
}
