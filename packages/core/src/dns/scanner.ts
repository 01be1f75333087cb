import { TextError, Words, columnAt } from './token';

const [OTHER, SPACE, NEWLINE, RETURN, COMMENT, OPEN, CLOSE, QUOTE, BACKSLASH, NUL] = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9];
const KIND = new Uint8Array(256).fill(OTHER);
for (const [octet, kind] of [
  [32, SPACE],
  [9, SPACE],
  [10, NEWLINE],
  [13, RETURN],
  [59, COMMENT],
  [40, OPEN],
  [41, CLOSE],
  [34, QUOTE],
  [92, BACKSLASH],
  [0, NUL],
] as const)
  KIND[octet] = kind;

/** The most octets that one entry may take, comments included: what is never closed must not eat a whole file. */
const ENTRY_LIMIT = 8 * 1024 * 1024;

/**
 * Splits a zone file into entries (RFC 1035 §5.1): parentheses join lines, `;` begins a comment, quotes keep white space.
 * Takes the file in pieces of any size. As servers do, it takes a carriage return for the end of a line.
 */
export class Scanner {
  private source: Uint8Array = new Uint8Array(0);
  private at = 0;
  private line = 1;
  private lineStart = 0;
  private begun = false;
  /** What is left of a line with an error in it is passed over. */
  private skipping = false;

  feed(piece: Uint8Array): void {
    const left = this.source.length - this.at;
    if (left === 0) {
      this.lineStart -= this.source.length;
      this.source = piece;
    } else {
      const joined = new Uint8Array(left + piece.length);
      joined.set(this.source.subarray(this.at));
      joined.set(piece, left);
      this.lineStart -= this.at;
      this.source = joined;
    }
    this.at = 0;
  }

  /**
   * Reads the next entry that has words into `words`. `more`: its end has not come yet; feed and call again. With `last`
   * there is no more to come. Throws a TextError where words cannot be told apart; what follows can still be read.
   */
  next(words: Words, last: boolean): 'entry' | 'more' | 'end' {
    if (!this.begun) {
      if (this.source.length < 3 && !last) return 'more';
      if (this.source[0] === 0xef && this.source[1] === 0xbb && this.source[2] === 0xbf) this.at = this.lineStart = 3;
      this.begun = true;
    }
    if (this.skipping && !this.skipLine(last)) return last ? 'end' : 'more';
    const { source } = this;
    const size = source.length;
    let { at, line, lineStart } = this;
    // Where to come back to: the last line that began outside of parentheses.
    let backAt = at;
    let backLine = line;
    let backStart = lineStart;
    let depth = 0;
    let openLine = 0;
    let openColumn = 0;
    let fresh = true;
    words.clear();
    for (;;) {
      if (at >= size) {
        if (!last) {
          if (at - backAt > ENTRY_LIMIT) this.broken(at, line, lineStart, words, 'the entry is too long', backLine, 1);
          return this.rewind(backAt, backLine, backStart, words);
        }
        this.at = at;
        this.line = line;
        this.lineStart = lineStart;
        if (depth > 0) throw new TextError('a parenthesis is never closed', openLine, openColumn);
        if (words.left === 0) return 'end';
        markEnd(words, source, at, line, lineStart);
        return 'entry';
      }
      const octet = source[at]!;
      const kind = KIND[octet]!;
      if (fresh && kind !== NEWLINE && kind !== RETURN) {
        words.sameOwner = kind === SPACE;
        fresh = false;
      }
      switch (kind) {
        case SPACE:
          at += 1;
          break;
        case RETURN:
        case NEWLINE: {
          if (kind === RETURN) {
            if (at + 1 >= size && !last) return this.rewind(backAt, backLine, backStart, words);
            if (depth > 0 || source[at + 1] === 10) {
              at += 1;
              break;
            }
          }
          const whole = depth === 0 && words.left > 0;
          if (whole) markEnd(words, source, at, line, lineStart);
          at += 1;
          if (kind === NEWLINE) {
            line += 1;
            lineStart = at;
          }
          if (depth > 0) {
            if (at - backAt > ENTRY_LIMIT) this.broken(at, line, lineStart, words, 'the entry is too long', backLine, 1);
            break;
          }
          if (whole) {
            this.at = at;
            this.line = line;
            this.lineStart = lineStart;
            return 'entry';
          }
          fresh = true;
          words.sameOwner = false;
          backAt = at;
          backLine = line;
          backStart = lineStart;
          break;
        }
        case COMMENT:
          while (at < size && source[at] !== 10 && source[at] !== 13) at += 1;
          break;
        case OPEN:
          if (depth === 0) {
            openLine = line;
            openColumn = columnAt(source, lineStart, at);
          }
          depth += 1;
          at += 1;
          break;
        case CLOSE:
          if (depth === 0) this.broken(at, line, lineStart, words, 'a parenthesis is closed that was never opened', line, columnAt(source, lineStart, at));
          depth -= 1;
          at += 1;
          break;
        case NUL:
          this.broken(at, line, lineStart, words, 'an octet 0 stands here', line, columnAt(source, lineStart, at));
          break;
        case QUOTE: {
          const wordLine = line;
          const wordStart = lineStart;
          const from = ++at;
          for (; at < size && source[at] !== 34; at++) {
            if (source[at] === 92) at += 1;
            else if (source[at] === 10) break;
            // A backslash keeps the end of a line inside the string.
            if (source[at] === 10) {
              line += 1;
              lineStart = at + 1;
            }
          }
          if (at >= size && !last) return this.rewind(backAt, backLine, backStart, words);
          if (source[at] !== 34) {
            at = Math.min(at, size);
            this.broken(at, line, lineStart, words, 'a quoted string is not closed on its line', wordLine, columnAt(source, wordStart, from - 1));
          }
          words.add(source, from, at, true, wordLine, wordStart);
          at += 1;
          break;
        }
        default: {
          const from = at;
          for (;;) {
            const inner = at < size ? KIND[source[at]!]! : NEWLINE;
            if (inner === OTHER) at += 1;
            else if (inner === BACKSLASH) {
              const escaped = at + 1 < size ? source[at + 1]! : 10;
              at += escaped === 10 || escaped === 13 ? 1 : 2;
            } else break;
          }
          if (at >= size && !last) return this.rewind(backAt, backLine, backStart, words);
          words.add(source, from, at, false, line, lineStart);
        }
      }
    }
  }

  private rewind(at: number, line: number, lineStart: number, words: Words): 'more' {
    this.at = at;
    this.line = line;
    this.lineStart = lineStart;
    words.clear();
    return 'more';
  }

  private broken(at: number, line: number, lineStart: number, words: Words, message: string, errorLine: number, column: number): never {
    this.rewind(at, line, lineStart, words);
    this.skipping = true;
    throw new TextError(message, errorLine, column);
  }

  /** Moves behind the end of the line; false where it has not come yet. */
  private skipLine(last: boolean): boolean {
    const end = this.source.indexOf(10, this.at);
    if (end < 0) {
      this.at = this.source.length;
      return last && (this.skipping = false);
    }
    this.at = end + 1;
    this.line += 1;
    this.lineStart = end + 1;
    this.skipping = false;
    return true;
  }
}

function markEnd(words: Words, source: Uint8Array, at: number, line: number, lineStart: number): void {
  const end = words.endToken;
  end.source = source;
  end.start = end.end = at;
  end.line = line;
  end.lineStart = lineStart;
}
