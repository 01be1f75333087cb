import { ByteReader, ByteWriter, WireError, asciiText, storage, utf8 } from './bytes';

/** Raised when text is not a domain name; the message says what is wrong with it, without the name itself. */
export class NameError extends Error {
  override readonly name = 'NameError';
}

const DOT = 46;
const BACKSLASH = 92;
const AT = 64;

/** ASCII letters in lower case, every other octet itself (RFC 4343 §2.1). */
const LOWER = Uint8Array.from({ length: 256 }, (_, octet) => (octet >= 65 && octet <= 90 ? octet + 32 : octet));
/** How an octet of a label prints: 0 as itself, 1 behind a backslash (" $ ( ) . ; @ \), 2 as \DDD. */
const PRINTED = Uint8Array.from({ length: 256 }, (_, octet) => (octet <= 32 || octet >= 127 ? 2 : [34, 36, 40, 41, 46, 59, 64, 92].includes(octet) ? 1 : 0));

/**
 * A domain name: labels of any octets, at most 63 each and 255 in all on the wire (RFC 1035 §3.1).
 * Compares without regard to ASCII case (RFC 4343), keeps the case it was given. Held as it stands on the wire.
 */
export class Name {
  static readonly root = new Name(Uint8Array.of(0), 0, 1);
  private cachedKey: string | undefined;
  private cachedText: string | undefined;
  private cachedLabels: readonly Uint8Array[] | undefined;
  private cachedHash: number | undefined;
  private cachedOrder: string | undefined;

  private cachedWire: Uint8Array | undefined;

  private constructor(
    /** Holds the name's wire form from `start` on; many names share one, since an array of its own costs more than the name. */
    private readonly source: Uint8Array,
    private readonly start: number,
    /** Octets on the wire without compression, the 0 at the end included. */
    readonly size: number,
  ) {}

  /** Length and octets of every label, and the 0 that ends it; without compression. */
  get wire(): Uint8Array {
    return (this.cachedWire ??= new Uint8Array(this.source.buffer, this.source.byteOffset + this.start, this.size));
  }

  /** What a writer holds, as a name. */
  private static from(out: ByteWriter): Name {
    if (out.length === 1) return Name.root;
    const at = out.store();
    return new Name(storage(), at, out.length);
  }

  static fromLabels(labels: readonly Uint8Array[]): Name {
    const out = new ByteWriter();
    for (const label of labels) {
      if (label.length === 0) throw new NameError('a label is empty');
      if (label.length > 63) throw new NameError('a label is longer than 63 octets');
      out.u8(label.length);
      out.bytes(label);
    }
    out.u8(0);
    if (out.length > 255) throw new NameError('the name is longer than 255 octets');
    return Name.from(out);
  }

  /**
   * Reads presentation form: `\.` and `\DDD` escapes, `@` for the origin, no final dot = relative to `origin`.
   *
   *     Name.parse('www', Name.parse('zone.example.'))  // www.zone.example.
   */
  static parse(text: string, origin: Name = Name.root): Name {
    const octets = utf8(text);
    return Name.parseOctets(octets, 0, octets.length, origin);
  }

  /** As `parse`; undefined for what is no name. */
  static tryParse(text: string, origin: Name = Name.root): Name | undefined {
    try {
      return Name.parse(text, origin);
    } catch (error) {
      if (error instanceof NameError) return undefined;
      throw error;
    }
  }

  /** As `parse`, from octets of presentation form from `start` to before `end`. */
  static parseOctets(text: Uint8Array, start: number, end: number, origin: Name): Name {
    if (end - start === 1) {
      if (text[start] === AT) return origin;
      if (text[start] === DOT) return Name.root;
    }
    SCRATCH.cut(0);
    writeParsed(text, start, end, origin, SCRATCH);
    return Name.from(SCRATCH);
  }

  /** Reads a name at `reader.at`, following compression pointers only backwards (RFC 1035 §4.1.4), so no loop is possible. */
  static read(reader: ByteReader): Name {
    const begin = reader.at;
    const known = readBefore(reader);
    if (known) return known;
    SCRATCH.cut(0);
    decompress(reader, SCRATCH);
    const name = Name.from(SCRATCH);
    const first = reader.data[begin]!;
    // A name that is one pointer is remembered where it points to, which is where the next such pointer will look.
    if (first >= 0xc0) reader.names?.set(((first & 0x3f) << 8) | reader.data[begin + 1]!, name);
    else if (begin < 0x4000) reader.names?.set(begin, name);
    return name;
  }

  write(out: ByteWriter): void {
    out.slice(this.source, this.start, this.start + this.size);
  }

  get labels(): readonly Uint8Array[] {
    if (!this.cachedLabels) {
      const labels: Uint8Array[] = [];
      for (let at = 0; this.wire[at] !== 0; at += this.wire[at]! + 1) labels.push(this.wire.subarray(at + 1, at + 1 + this.wire[at]!));
      this.cachedLabels = labels;
    }
    return this.cachedLabels;
  }

  get isRoot(): boolean {
    return this.size === 1;
  }

  get labelCount(): number {
    let count = 0;
    for (let at = 0; this.wire[at] !== 0; at += this.wire[at]! + 1) count += 1;
    return count;
  }

  /** The same for two names that differ in ASCII case only; fit for a Map. */
  get key(): string {
    if (this.cachedKey === undefined) {
      // Length octets are below 64 and so no letters: the wire can be lowered as it is.
      const lowered = new Uint8Array(this.size - 1);
      for (let i = 0; i < lowered.length; i++) lowered[i] = LOWER[this.source[this.start + i]!]!;
      this.cachedKey = asciiText(lowered);
    }
    return this.cachedKey;
  }

  /** A text for each name; compared by code units they stand in canonical order (RFC 4034 §6.1), as by `compare`. Made once for each. */
  get order(): string {
    if (this.cachedOrder === undefined) {
      // A label ends before any octet, so that a shorter one comes first: octets are counted from 1.
      const text = this.labels.map((label) => String.fromCharCode(...Array.from(label, (octet) => LOWER[octet]! + 1)));
      this.cachedOrder = text.reverse().join('\0');
    }
    return this.cachedOrder;
  }

  /** A 32-bit number that is the same for names that are equal. */
  get hash(): number {
    if (this.cachedHash === undefined) {
      let hash = 0x811c9dc5;
      const end = this.start + this.size;
      for (let i = this.start; i < end; i++) hash = Math.imul(hash ^ LOWER[this.source[i]!]!, 0x01000193);
      this.cachedHash = (hash ^ (hash >>> 15)) >>> 0;
    }
    return this.cachedHash;
  }

  /**
   * Text that sorts by its code units as the names sort in canonical order (RFC 4034 §6.1): labels from the last to the
   * first in lower case, octets moved up by one so that 0 can end a label before anything longer.
   */
  get sortKey(): string {
    const { source, start } = this;
    let count = 0;
    for (let at = start; source[at] !== 0; at += source[at]! + 1) STARTS[count++] = at - start;
    const units = UNITS[this.size - 1]!;
    let to = 0;
    for (let i = count - 1; i >= 0; i--) {
      const at = start + STARTS[i]!;
      for (let k = at + 1; k <= at + source[at]!; k++) units[to++] = LOWER[source[k]!]! + 1;
      units[to++] = 0;
    }
    return String.fromCharCode.apply(undefined, units as unknown as number[]);
  }

  /** Absolute presentation form, with the final dot. */
  toString(): string {
    if (this.cachedText === undefined) {
      SCRATCH.cut(0);
      this.print(SCRATCH);
      this.cachedText = SCRATCH.text();
    }
    return this.cachedText;
  }

  /** Writes absolute presentation form. */
  print(out: ByteWriter): void {
    printWire(this.source, this.start, this.start + this.size, out);
  }

  /** As typed below `origin`: `@` for the origin itself, without it where below it, absolute elsewhere. */
  relativeTo(origin: Name): string {
    if (this.equals(origin)) return '@';
    if (!this.isBelow(origin)) return this.toString();
    SCRATCH.cut(0);
    printWire(this.source, this.start, this.start + this.size - origin.size, SCRATCH);
    return SCRATCH.text().slice(0, -1);
  }

  equals(other: Name): boolean {
    return this === other || (this.size === other.size && this.endsIn(other));
  }

  /** True if the last octets are those of `other`, letter case aside. */
  private endsIn(other: Name): boolean {
    const mine = this.source;
    const theirs = other.source;
    const from = this.start + this.size - other.size;
    for (let i = 0; i < other.size; i++) {
      const [left, right] = [mine[from + i]!, theirs[other.start + i]!];
      if (left !== right && LOWER[left] !== LOWER[right]) return false;
    }
    return true;
  }

  /** True if a label begins so many octets behind the first. */
  private beginsLabelAt(offset: number): boolean {
    const wanted = this.start + offset;
    let at = this.start;
    while (at < wanted) at += this.source[at]! + 1;
    return at === wanted;
  }

  /** True for `ancestor` itself and for every name under it. */
  isAtOrBelow(ancestor: Name): boolean {
    const skip = this.size - ancestor.size;
    return skip >= 0 && this.beginsLabelAt(skip) && this.endsIn(ancestor);
  }

  /** True for a name below `origin` that holds its labels once more before them: `www.zone.example.zone.example.` */
  holdsTwice(origin: Name): boolean {
    const labels = origin.size - 1;
    const skip = this.size - 1 - 2 * labels;
    if (labels === 0 || skip < 0 || !this.beginsLabelAt(skip)) return false;
    for (let i = 0; i < labels; i++) if (LOWER[this.source[this.start + skip + i]!] !== LOWER[origin.source[origin.start + i]!]) return false;
    return this.isAtOrBelow(origin);
  }

  isBelow(ancestor: Name): boolean {
    return this.size > ancestor.size && this.isAtOrBelow(ancestor);
  }

  /** Octets on the wire of the first label and its length; 1 for the root. */
  get firstSize(): number {
    return this.source[this.start]! + 1;
  }

  /** The name without its first label; the root's parent is the root. */
  get parent(): Name {
    return this.isRoot ? this : new Name(this.source, this.start + this.firstSize, this.size - this.firstSize);
  }

  child(label: string): Name {
    return Name.parse(label, this);
  }

  get isWildcard(): boolean {
    return this.source[this.start] === 1 && this.source[this.start + 1] === 42;
  }

  /** All letters in lower case, as canonical form wants (RFC 4034 §6.2). */
  get lower(): Name {
    return new Name(
      this.wire.map((octet) => LOWER[octet]!),
      0,
      this.size,
    );
  }

  /** Canonical order (RFC 4034 §6.1): from the last label to the first, octet by octet in lower case. */
  compare(other: Name): number {
    const mine = this.labels;
    const theirs = other.labels;
    for (let back = 1; ; back++) {
      const left = mine[mine.length - back];
      const right = theirs[theirs.length - back];
      if (left === undefined || right === undefined) return mine.length - theirs.length;
      const shorter = Math.min(left.length, right.length);
      for (let i = 0; i < shorter; i++) {
        const difference = LOWER[left[i]!]! - LOWER[right[i]!]!;
        if (difference !== 0) return difference;
      }
      if (left.length !== right.length) return left.length - right.length;
    }
  }
}

/** For sort keys: where labels begin, and room for every length of a name. */
const STARTS = new Uint8Array(128);
const UNITS = Array.from({ length: 255 }, (_, length) => new Uint16Array(length));

/** For names being put together; nothing that is called while one is written uses it. */
const SCRATCH = new ByteWriter(512);

/** Most names of a message are one pointer to a name that was read before: that name, and `reader` behind the pointer. */
function readBefore(reader: ByteReader): Name | undefined {
  const { data, at } = reader;
  if (!reader.names || at + 1 >= reader.end || data[at]! < 0xc0) return undefined;
  const target = ((data[at]! & 0x3f) << 8) | data[at + 1]!;
  const name = target < at ? reader.names.get(target) : undefined;
  if (name) reader.at = at + 2;
  return name;
}

/** Writes a name that stands in a message, without compression. Throws a WireError. */
export function expandName(reader: ByteReader, out: ByteWriter): void {
  const known = readBefore(reader);
  if (known) known.write(out);
  else decompress(reader, out);
}

function decompress(reader: ByteReader, out: ByteWriter): void {
  const { data } = reader;
  let { at } = reader;
  let from = at;
  let length = 1;
  let resume = -1;
  let limit = at;
  let bound = reader.end;
  for (;;) {
    if (at >= bound) throw new WireError('a name runs past the end');
    const octet = data[at]!;
    if (octet === 0) {
      at += 1;
      out.slice(data, from, at);
      break;
    }
    if (octet >= 0xc0) {
      if (at + 1 >= data.length) throw new WireError('a compression pointer is cut off');
      out.slice(data, from, at);
      const target = ((octet & 0x3f) << 8) | data[at + 1]!;
      if (resume < 0) resume = at + 2;
      if (target >= limit) throw new WireError('a compression pointer does not point backwards');
      limit = from = at = target;
      bound = data.length;
      continue;
    }
    if (octet > 63) throw new WireError('a label type is unknown');
    length += octet + 1;
    if (length > 255) throw new WireError('a name is longer than 255 octets');
    at += octet + 1;
  }
  const after = resume < 0 ? at : resume;
  if (after > reader.end) throw new WireError('a name runs past the end of its field');
  reader.at = after;
}

/**
 * Writes the wire form of a name in presentation form. Throws a NameError and then leaves `out` as it was.
 * Appends `origin` where there is no final dot.
 */
export function writeParsed(text: Uint8Array, start: number, end: number, origin: Name, out: ByteWriter): void {
  const from = out.length;
  const problem = parseInto(text, start, end, origin, out);
  if (problem === undefined) return;
  out.cut(from);
  throw new NameError(problem);
}

function parseInto(text: Uint8Array, start: number, end: number, origin: Name, out: ByteWriter): string | undefined {
  if (end === start) return 'the name is empty';
  if (end - start === 1 && text[start] === AT) return void origin.write(out);
  if (end - start === 1 && text[start] === DOT) return void out.u8(0);
  const from = out.length;
  let lengthAt = from;
  out.u8(0);
  for (let i = start; i < end; i++) {
    const octet = text[i]!;
    if (octet === DOT) {
      const length = out.length - lengthAt - 1;
      if (length === 0) return 'a label is empty';
      if (length > 63) return 'a label is longer than 63 octets';
      out.patchU8(lengthAt, length);
      lengthAt = out.length;
      out.u8(0);
    } else if (octet === BACKSLASH) {
      if (text[i + 1] === 91 && out.length === lengthAt + 1) return 'a label of bits is no longer in use (RFC 6891 §5)';
      if (i + 1 >= end) return 'a backslash stands at the end';
      const value = escapedAt(text, i + 1, end);
      if (value === -1) return 'a \\DDD escape needs three digits';
      if (value > 255) return 'a \\DDD escape is over 255';
      out.u8(value);
      i += isDigit(text[i + 1]!) ? 3 : 1;
    } else {
      const from = i;
      while (i + 1 < end && text[i + 1] !== DOT && text[i + 1] !== BACKSLASH) i += 1;
      out.slice(text, from, i + 1);
    }
  }
  const length = out.length - lengthAt - 1;
  if (length > 63) return 'a label is longer than 63 octets';
  if (length > 0) {
    out.patchU8(lengthAt, length);
    origin.write(out);
  }
  return out.length - from > 255 ? 'the name is longer than 255 octets' : undefined;
}

function isDigit(octet: number): boolean {
  return octet >= 48 && octet <= 57;
}

/** What `\X` or `\DDD` stands for, from the octet behind the backslash; -1 for too few digits. May be over 255. */
function escapedAt(text: Uint8Array, at: number, end: number): number {
  const first = text[at]!;
  if (!isDigit(first)) return first;
  if (at + 2 >= end || !isDigit(text[at + 1]!) || !isDigit(text[at + 2]!)) return -1;
  return (first - 48) * 100 + (text[at + 1]! - 48) * 10 + (text[at + 2]! - 48);
}

/** Reads `\X` or `\DDD` at `at` (the backslash); `last` is the index of the last octet used (RFC 1035 §5.1). Throws a NameError. */
export function unescape(octets: Uint8Array, at: number, end = octets.length): { octet: number; last: number } {
  if (at + 1 >= end) throw new NameError('a backslash stands at the end');
  const octet = escapedAt(octets, at + 1, end);
  if (octet === -1) throw new NameError('a \\DDD escape needs three digits');
  if (octet > 255) throw new NameError('a \\DDD escape is over 255');
  return { octet, last: isDigit(octets[at + 1]!) ? at + 3 : at + 1 };
}

/** Prints labels that stand on the wire from `start` to before `end`, the 0 at the end of a name included. */
function printWire(wire: Uint8Array, start: number, end: number, out: ByteWriter): void {
  if (wire[start] === 0) return out.u8(DOT);
  for (let at = start; at < end && wire[at] !== 0;) {
    const after = at + 1 + wire[at]!;
    for (at += 1; at < after; at++) {
      // Nearly every label is plain from here to its end.
      const from = at;
      while (at < after && PRINTED[wire[at]!] === 0) at += 1;
      out.slice(wire, from, at);
      if (at === after) break;
      const octet = wire[at]!;
      if (PRINTED[octet] === 1) {
        out.u8(BACKSLASH);
        out.u8(octet);
      } else out.escaped(octet);
    }
    out.u8(DOT);
  }
}

/** Prints a name that stands at `reader.at` without compression, and moves past it. */
export function printNameAt(reader: ByteReader, out: ByteWriter): void {
  const { data } = reader;
  let at = reader.at;
  while (at < reader.end && data[at] !== 0) {
    if (data[at]! > 63) throw new WireError('a label type is unknown');
    at += data[at]! + 1;
  }
  if (at >= reader.end) throw new WireError('a name runs past the end');
  if (at + 1 - reader.at > 255) throw new WireError('a name is longer than 255 octets');
  printWire(data, reader.at, at + 1, out);
  reader.at = at + 1;
}
