/** One word of a zone file. `text` keeps its escapes; what they mean depends on the field that reads them. */
export interface Token {
  readonly text: string;
  readonly quoted: boolean;
  readonly line: number;
  readonly column: number;
}

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

/** The words of one entry, taken one after the other. */
export class TokenReader {
  private next = 0;
  constructor(
    private readonly tokens: readonly Token[],
    private readonly end: { line: number; column: number } = { line: 1, column: 1 },
  ) {}

  get left(): number {
    return this.tokens.length - this.next;
  }

  peek(): Token | undefined {
    return this.tokens[this.next];
  }

  take(expected: string): Token {
    const token = this.tokens[this.next];
    if (token === undefined) throw new TextError(`${expected} is missing`, this.end.line, this.end.column);
    this.next += 1;
    return token;
  }

  /** Everything that is left, joined: hexadecimal and base64 fields may be broken by white space. */
  takeJoined(expected: string): Token {
    const first = this.take(expected);
    let text = first.text;
    while (this.left > 0) text += this.take(expected).text;
    return { ...first, text };
  }
}

export function fail(token: Token, message: string): never {
  throw new TextError(message, token.line, token.column);
}

/** Splits text into entries (RFC 1035 §5.1): parentheses join lines, `;` begins a comment, quotes keep white space. */
export interface Entry {
  readonly tokens: readonly Token[];
  /** True if the first line began with white space: the owner of the entry before is meant. */
  readonly sameOwner: boolean;
  readonly end: { readonly line: number; readonly column: number };
}

export function* entries(text: string): Generator<Entry, void> {
  let line = 1;
  let lineStart = 0;
  let depth = 0;
  let open: { line: number; column: number } | undefined;
  let tokens: Token[] = [];
  let sameOwner = false;
  let at = text.charCodeAt(0) === 0xfeff ? 1 : 0;
  let fresh = true;
  const column = (): number => at - lineStart + 1;
  while (at <= text.length) {
    const character = text[at];
    if (character === undefined || character === '\n') {
      if (depth === 0 || character === undefined) {
        if (depth > 0 && open) throw new TextError('a parenthesis is never closed', open.line, open.column);
        if (tokens.length > 0) yield { tokens, sameOwner, end: { line, column: column() } };
        tokens = [];
        fresh = true;
      }
      at += 1;
      line += 1;
      lineStart = at;
      continue;
    }
    if (fresh) {
      sameOwner = character === ' ' || character === '\t';
      fresh = false;
    }
    if (character === ' ' || character === '\t' || character === '\r') at += 1;
    else if (character === ';') while (at < text.length && text[at] !== '\n') at += 1;
    else if (character === '(') {
      if (depth === 0) open = { line, column: column() };
      depth += 1;
      at += 1;
    } else if (character === ')') {
      if (depth === 0) throw new TextError('a parenthesis is closed that was never opened', line, column());
      depth -= 1;
      at += 1;
    } else if (character === '"') {
      const from = at + 1;
      const place = { line, column: column() };
      at += 1;
      while (at < text.length && text[at] !== '"' && text[at] !== '\n') at += text[at] === '\\' ? 2 : 1;
      if (text[at] !== '"') throw new TextError('a quoted string is not closed on its line', place.line, place.column);
      tokens.push({ text: text.slice(from, at), quoted: true, ...place });
      at += 1;
    } else {
      const from = at;
      const place = { line, column: column() };
      while (at < text.length && !/[\s;()"]/.test(text[at]!)) at += text[at] === '\\' ? 2 : 1;
      at = Math.min(at, text.length);
      tokens.push({ text: text.slice(from, at), quoted: false, ...place });
    }
  }
}
