import { ByteReader, ByteWriter, WireError, utf8 } from './bytes';

/** Raised when text is not a domain name; the message says what is wrong with it, without the name itself. */
export class NameError extends Error {
  override readonly name = 'NameError';
}

const DOT = 46;
const BACKSLASH = 92;
/** Octets that print with a backslash in a zone file: " $ ( ) . ; @ \ */
const ESCAPED = new Set([34, 36, 40, 41, 46, 59, 64, 92]);

/**
 * A domain name: labels of any octets, at most 63 each and 255 in all on the wire (RFC 1035 §3.1).
 * Compares without regard to ASCII case (RFC 4343), keeps the case it was given.
 */
export class Name {
  static readonly root = new Name([]);
  private cachedKey: string | undefined;
  private cachedText: string | undefined;

  private constructor(readonly labels: readonly Uint8Array[]) {}

  static fromLabels(labels: readonly Uint8Array[]): Name {
    let length = 1;
    for (const label of labels) {
      if (label.length === 0) throw new NameError('a label is empty');
      if (label.length > 63) throw new NameError('a label is longer than 63 octets');
      length += label.length + 1;
    }
    if (length > 255) throw new NameError('the name is longer than 255 octets');
    return new Name(labels);
  }

  /**
   * Reads presentation form: `\.` and `\DDD` escapes, `@` for the origin, no final dot = relative to `origin`.
   *
   *     Name.parse('www', Name.parse('zone.example.'))  // www.zone.example.
   */
  static parse(text: string, origin: Name = Name.root): Name {
    if (text === '@') return origin;
    if (text === '.') return Name.root;
    if (text === '') throw new NameError('the name is empty');
    const octets = utf8(text);
    const labels: Uint8Array[] = [];
    let label: number[] = [];
    let absolute = false;
    for (let i = 0; i < octets.length; i++) {
      const octet = octets[i]!;
      if (octet === DOT) {
        if (label.length === 0) throw new NameError('a label is empty');
        labels.push(Uint8Array.from(label));
        label = [];
        absolute = i === octets.length - 1;
      } else if (octet === BACKSLASH) {
        const read = unescape(octets, i);
        label.push(read.octet);
        i = read.last;
      } else label.push(octet);
    }
    if (label.length > 0) labels.push(Uint8Array.from(label));
    return Name.fromLabels(absolute ? labels : [...labels, ...origin.labels]);
  }

  /** Reads a name at `reader.at`, following compression pointers only backwards (RFC 1035 §4.1.4), so no loop is possible. */
  static read(reader: ByteReader): Name {
    const labels: Uint8Array[] = [];
    let length = 1;
    let at = reader.at;
    let resume = -1;
    let limit = at;
    for (;;) {
      if (at >= (resume < 0 ? reader.end : reader.data.length)) throw new WireError('a name runs past the end');
      const octet = reader.data[at]!;
      if (octet === 0) {
        at += 1;
        break;
      }
      if (octet >= 0xc0) {
        if (at + 1 >= reader.data.length) throw new WireError('a compression pointer is cut off');
        const target = ((octet & 0x3f) << 8) | reader.data[at + 1]!;
        if (resume < 0) resume = at + 2;
        if (target >= limit) throw new WireError('a compression pointer does not point backwards');
        limit = target;
        at = target;
        continue;
      }
      if (octet > 63) throw new WireError('a label type is unknown');
      if (at + 1 + octet > reader.data.length) throw new WireError('a label runs past the end');
      length += octet + 1;
      if (length > 255) throw new WireError('a name is longer than 255 octets');
      labels.push(reader.data.subarray(at + 1, at + 1 + octet));
      at += octet + 1;
    }
    const after = resume < 0 ? at : resume;
    if (after > reader.end) throw new WireError('a name runs past the end of its field');
    reader.at = after;
    return new Name(labels);
  }

  write(out: ByteWriter): void {
    for (const label of this.labels) {
      out.u8(label.length);
      out.bytes(label);
    }
    out.u8(0);
  }

  /** The same for two names that differ in ASCII case only; fit for a Map. */
  get key(): string {
    if (this.cachedKey === undefined) {
      let key = '';
      for (const label of this.labels) {
        key += String.fromCharCode(label.length);
        for (const octet of label) key += String.fromCharCode(lower(octet));
      }
      this.cachedKey = key;
    }
    return this.cachedKey;
  }

  /** Absolute presentation form, with the final dot. */
  toString(): string {
    this.cachedText ??= this.labels.length === 0 ? '.' : this.labels.map((label) => printLabel(label) + '.').join('');
    return this.cachedText;
  }

  /** As typed below `origin`: `@` for the origin itself, without it where below it, absolute elsewhere. */
  relativeTo(origin: Name): string {
    if (this.equals(origin)) return '@';
    if (!this.isBelow(origin)) return this.toString();
    return this.labels
      .slice(0, this.labels.length - origin.labels.length)
      .map(printLabel)
      .join('.');
  }

  equals(other: Name): boolean {
    return this.key === other.key;
  }

  /** True for `ancestor` itself and for every name under it. */
  isAtOrBelow(ancestor: Name): boolean {
    const skip = this.labels.length - ancestor.labels.length;
    return skip >= 0 && new Name(this.labels.slice(skip)).key === ancestor.key;
  }

  isBelow(ancestor: Name): boolean {
    return this.labels.length > ancestor.labels.length && this.isAtOrBelow(ancestor);
  }

  /** The name without its first label; the root's parent is the root. */
  get parent(): Name {
    return new Name(this.labels.slice(1));
  }

  child(label: string): Name {
    return Name.parse(label, this);
  }

  get isWildcard(): boolean {
    const first = this.labels[0];
    return first !== undefined && first.length === 1 && first[0] === 42;
  }

  /** All letters in lower case, as canonical form wants (RFC 4034 §6.2). */
  get lower(): Name {
    return new Name(this.labels.map((label) => label.map(lower)));
  }

  /** Canonical order (RFC 4034 §6.1): from the last label to the first, octet by octet in lower case. */
  compare(other: Name): number {
    for (let back = 1; ; back++) {
      const mine = this.labels[this.labels.length - back];
      const theirs = other.labels[other.labels.length - back];
      if (mine === undefined || theirs === undefined) return this.labels.length - other.labels.length;
      const shorter = Math.min(mine.length, theirs.length);
      for (let i = 0; i < shorter; i++) {
        const difference = lower(mine[i]!) - lower(theirs[i]!);
        if (difference !== 0) return difference;
      }
      if (mine.length !== theirs.length) return mine.length - theirs.length;
    }
  }
}

function lower(octet: number): number {
  return octet >= 65 && octet <= 90 ? octet + 32 : octet;
}

function printLabel(label: Uint8Array): string {
  let text = '';
  for (const octet of label) {
    if (ESCAPED.has(octet)) text += '\\' + String.fromCharCode(octet);
    else if (octet <= 32 || octet >= 127) text += '\\' + String(octet).padStart(3, '0');
    else text += String.fromCharCode(octet);
  }
  return text;
}

/** Reads `\X` or `\DDD` at `at` (the backslash); `last` is the index of the last octet used (RFC 1035 §5.1). */
export function unescape(octets: Uint8Array, at: number): { octet: number; last: number } {
  const next = octets[at + 1];
  if (next === undefined) throw new NameError('a backslash stands at the end');
  if (next < 48 || next > 57) return { octet: next, last: at + 1 };
  const digits = octets.subarray(at + 1, at + 4);
  if (digits.length < 3 || digits.some((digit) => digit < 48 || digit > 57)) throw new NameError('a \\DDD escape needs three digits');
  const value = (digits[0]! - 48) * 100 + (digits[1]! - 48) * 10 + (digits[2]! - 48);
  if (value > 255) throw new NameError('a \\DDD escape is over 255');
  return { octet: value, last: at + 3 };
}
