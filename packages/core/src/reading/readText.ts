import { Name } from '../dns/name';
import { About, aboutOf, isContrary } from './about';
import { blocksOf } from './blocks';
import { RULED, cleanLines } from './clean';
import { OtherField, readFields, readLabelledLines } from './fields';
import { fileRange, hasFileMarks, isEntry, readFileLines, serialIn, shownRecord } from './fileLines';
import { Find, RawRecord, Subject, TextReading, Unread } from './find';
import { judge, problemOf } from './judge';
import { labelOf, withoutColon } from './labels';
import { isBlank, Line } from './lines';
import { readLookups } from './lookups';
import { NameFound, isMail, readMailHeaders } from './mailHeaders';
import { addressRow, serverOfLine } from './addressRows';
import { isAddressWord, namesAnything } from './hostWord';
import { nameFind, namedFind } from './namedFinds';
import { namesOfLine } from './nameLists';
import { readOwner } from './owner';
import { readPairCards } from './pairCards';
import { PARTINGS } from './parting';
import { partlyRead } from './partlyRead';
import { Named, readSentences } from './sentences';
import { isServersHeading } from './serversHeading';
import { settleFinds } from './settleFinds';
import { isCard, isTypeLine, readCards, readStacked } from './stacked';
import { Around, FormRead } from './formRead';
import { readTableLines } from './table';
import { titleType } from './titles';
import { readTree } from './tree';
import { wholeLines } from './wholeLines';
import { readWordRows } from './wordRows';

/** Lines by which the form of a block is told. */
const SAMPLE = 240;
/** Words of a line that may be a heading. */
const HEADING_WORDS = 9;
/** The domain that is read about where none in particular is. */
const NO_DOMAIN = 'domain.invalid.';

/**
 * Reads whatever people paste about a domain: zone files, tables, fields, lists, JSON, YAML, answers of query programs, headers of mails,
 * pages, sentences. Each find has its place and its trust; what is not read is listed line by line. Nothing is taken as sure that could be
 * something else. Time grows with the length of the text.
 *
 *     readText('www\tCNAME\tsites.hearth.example\t1 h', { zone: 'kelp.example.', as: 'old', own: [] }).finds
 *     // [{ kind: 'record', owner: 'www', type: 'CNAME', data: 'sites.hearth.example.', ttl: 3600, trust: 'sure', … }]
 */
export function readText(text: string, subject: Subject): TextReading {
  const taken = wholeLines(text);
  const beyond = text.length > taken.length ? text.slice(taken.length).split('\n').length : 0;
  return new TextReader(taken, subject).read(beyond);
}

/** What stands around a block of lines. */
interface Context {
  /** The heading says that nameservers follow. */
  areServers: boolean;
  about: About;
  /** The domain that a heading names, where it is another one. */
  other: string | undefined;
  type: string | undefined;
  /** A name of the domain that stands alone above its rows. */
  name: string | undefined;
  head: readonly string[] | undefined;
}

class TextReader {
  private readonly zone: Name;
  private readonly finds: Find[] = [];
  private readonly taken = new Set<number>();
  private readonly problems = new Map<number, string>();
  private readonly context: Context = { areServers: false, about: undefined, other: undefined, type: undefined, name: undefined, head: undefined };
  private serial: number | undefined;
  /** The text is markup, in which lines mean nothing. */
  private isPage = false;
  /** The text has one line. */
  private isShort = false;
  /** Where a program's data was cut off. */
  private cutAt: number | undefined;

  constructor(
    private readonly text: string,
    private readonly subject: Subject,
  ) {
    this.zone = Name.parse(subject.zone ?? NO_DOMAIN);
  }

  read(beyond: number): TextReading {
    const { lines, plain, leftOut } = cleanLines(this.text);
    this.isPage = plain === '' && lines.length > 0;
    this.isShort = lines.filter((line) => !isBlank(line)).length < 2;
    const tree = this.readTree(plain);
    if (!tree) this.readLines(lines);
    const unread = this.unreadOf(tree ? lines.filter(({ line }) => this.cutAt !== undefined && line >= this.cutAt) : lines);
    const partly = tree || this.isPage ? [] : partlyRead(lines, this.finds, this.subject);
    const finds = settleFinds(this.finds, lines, unread, { subject: this.subject, isPage: this.isPage, partly });
    return {
      finds,
      unread: [...unread, ...partly].sort((a, b) => a.line - b.line),
      leftOut: leftOut + beyond,
      serial: beyond + leftOut + unread.length === 0 ? this.serial : undefined,
    };
  }

  private around(): Around {
    return { subject: this.subject, zone: this.zone, type: this.context.type, name: this.context.name, head: this.context.head };
  }

  private readTree(plain: string): boolean {
    const tree = readTree(plain, this.around());
    if (!tree || tree.records.length === 0) return false;
    for (const record of tree.records) this.take(record);
    this.cutAt = tree.cutAt;
    if (tree.cutAt !== undefined) this.problems.set(tree.cutAt, 'the data was cut off here');
    return this.finds.length > 0;
  }

  private readLines(lines: readonly Line[]): void {
    let rest: readonly Line[] = lines;
    if (isMail(lines)) {
      const mail = readMailHeaders(lines);
      this.takeNames(mail.names);
      for (const line of mail.read) this.taken.add(line);
      rest = lines.filter(({ line }) => !mail.read.has(line));
    }
    if (hasFileMarks(rest) && this.readFile(rest)) return;
    const blocks = blocksOf(rest);
    const cards = readPairCards(blocks, this.around());
    if (cards.records.length > 0) this.takeForm(cards);
    for (let from = 0; from < blocks.length; from++) {
      if (blocks[from]!.every(({ line }) => this.taken.has(line))) continue;
      let to = from;
      while (to < blocks.length && isCard(blocks[to]!)) to += 1;
      if (to - from > 1) {
        const cards = readCards(blocks.slice(from, to), this.around());
        this.takeForm(cards);
        for (const block of blocks.slice(from, to)) if (!block.some(({ line }) => this.taken.has(line))) this.readBlock(block);
        from = to - 1;
      } else this.readBlock(blocks[from]!);
    }
    // Cells in lines of their own, with gaps between them, are in no block together.
    if (this.finds.every(({ kind }) => kind === 'name')) {
      const stacked = readStacked(rest, { ...this.around(), type: undefined, head: undefined });
      if (stacked.records.length > 0) {
        this.finds.length = 0;
        this.taken.clear();
        this.takeForm(stacked);
      }
    }
  }

  private readFile(lines: readonly Line[]): boolean {
    const range = fileRange(lines);
    if (!range) return false;
    const inside = lines.slice(range.from, range.to + 1);
    const file = readFileLines(inside, this.zone);
    if (file.records.length === 0 || file.bad.length > file.records.length + 2) return false;
    const bad = new Map(file.bad.map(({ line, problem }) => [line, problem]));
    for (const { line } of inside) if (!bad.has(line) && (file.from === undefined || line < file.from)) this.taken.add(line);
    for (const [line, problem] of bad) this.problems.set(line, problem);
    this.heading(blocksOf(lines.slice(0, range.from)).at(-1) ?? []);
    const texts = new Map(inside.map((one) => [one.line, one.text]));
    const badLines = [...bad.keys()].sort((a, b) => a - b);
    let at = 0;
    // A line without a name is about the name above it, which a line that cannot be read may have had.
    let isLost = false;
    for (const { record, line } of file.records) {
      const { owner, type, data } = shownRecord(record, this.zone);
      const out = record.owner.isAtOrBelow(this.zone) ? this.whyOut(this.context.about, undefined, owner) : 'It is of another domain.';
      for (; at < badLines.length && badLines[at]! < line; at++) isLost = true;
      if (!/^\s/.test(texts.get(line) ?? '')) isLost = false;
      const doubts = [
        ...(isLost ? ['A line above it, which may have its name, cannot be read.'] : []),
        ...(bad.has(line + 1) && !isEntry(texts.get(line + 1) ?? '') ? ['Does the line below belong to it?'] : []),
      ];
      this.finds.push({
        kind: 'record',
        owner,
        type,
        data,
        ttl: record.ttl,
        trust: out !== undefined ? 'out' : doubts.length > 0 ? 'ask' : 'sure',
        questions: out === undefined ? doubts : [out],
        others: [],
        form: 'zone file',
        line,
        lastLine: line,
      });
    }
    this.serial = serialIn(file, this.zone);
    for (const block of blocksOf([...lines.slice(0, range.from), ...lines.slice(range.to + 1)])) this.readBlock(block);
    return true;
  }

  private readBlock(block: readonly Line[]): void {
    const asked = readLookups(block);
    if (asked.records.length === 0 && asked.read.size === block.length) return this.takeForm(asked);
    const lines = this.withoutTitle(block);
    if (lines.length === 0) return;
    const form = this.formOf(lines);
    if (!form) {
      this.readWords(lines);
      return;
    }
    const { read: reader } = form;
    const before = this.leading(lines, reader);
    this.heading(before);
    for (const one of before) this.takeAddressRow(one);
    this.takeForm(readFields(before, this.around()));
    if (this.subject.as === 'new') this.readSentencesIn(before.filter(({ line, text }) => !this.taken.has(line) && namesAnything(text)));
    this.takeForm(reader(lines));
    // A title is of the block below it.
    this.context.type = undefined;
    const left = lines.filter((line) => !this.taken.has(line.line) && !before.includes(line));
    // A row of a table that could not be read is no sentence.
    const words = left.filter(({ text, cells }) => cells === undefined && !/[\t|]/.test(text));
    if (words.length > 0) this.readWords(words, false);
  }

  /** Takes the first line for what it says of the others, where it is a type or a name and nothing else. */
  private withoutTitle(lines: readonly Line[]): readonly Line[] {
    const [first, ...rest] = lines as [Line, ...Line[]];
    this.context.name = undefined;
    if (rest.length === 0 || first.cells !== undefined) return lines;
    const text = withoutColon(first.text.trim());
    const type = /[:=]/.test(text) ? undefined : titleType(text);
    const owner = /\s/.test(text) || !text.includes('.') ? undefined : readOwner(text, this.subject);
    // Cells in lines of their own begin with a type or a name as well.
    // A name that is not whole may be the first half of the line below it.
    const isName = owner?.is === 'ours' && (owner.isWhole || text.includes('_'));
    if ((type === undefined && !isName) || rest.some(({ text: one }) => isTypeLine(one))) return lines;
    if (type !== undefined) this.context.type = type;
    else [this.context.name, this.context.type] = [text, undefined];
    const form = this.formOf(rest);
    if (!form) {
      [this.context.name, this.context.type] = [undefined, undefined];
      return lines;
    }
    this.taken.add(first.line);
    return rest;
  }

  /** Lines before the first that the form reads: a heading of it. */
  private leading(lines: readonly Line[], reader: (lines: readonly Line[]) => FormRead): Line[] {
    const { read } = reader(lines.slice(0, SAMPLE));
    const first = lines.findIndex(({ line }) => read.has(line));
    return first <= 0 ? [] : lines.slice(0, first);
  }

  /** The form that reads most lines of a block, told by its first ones. */
  private formOf(lines: readonly Line[]): { readonly read: (lines: readonly Line[]) => FormRead } | undefined {
    const around = (): Around => this.around();
    const sample = lines.slice(0, SAMPLE);
    const forms: ((lines: readonly Line[]) => FormRead)[] = [
      (some) => readLookups(some),
      (some) => readLabelledLines(some, around()),
      ...PARTINGS.map((parting) => (some: readonly Line[]) => readTableLines(some, parting, around())),
      (some) => readFields(some, around()),
      (some) => readWordRows(some, around()),
      (some) => readStacked(some, around()),
    ];
    let best: { readonly read: (lines: readonly Line[]) => FormRead; readonly count: number } | undefined;
    for (const read of forms) {
      const { records, read: told, head } = read(sample);
      const count = this.judged(records) * 1000 + (records.length > 0 ? told.size : head ? 1 : 0);
      if (count > (best?.count ?? 0)) best = { read, count };
    }
    return best;
  }

  private judged(records: readonly RawRecord[]): number {
    return records.filter((record) => judge(record, this.subject, this.zone) !== undefined).length;
  }

  private takeForm(form: FormRead & { readonly others?: readonly OtherField[] }): void {
    if (form.head && form.records.length === 0) this.context.head = form.head;
    const failed = new Set<number>();
    for (const record of form.records) {
      if (this.take(record)) continue;
      for (let line = record.line; line <= record.lastLine; line++) failed.add(line);
      this.problems.set(record.line, problemOf(record, this.subject, this.zone));
      // The name stands there all the same.
      if (record.owner !== undefined) this.takeNames([{ name: record.owner, line: record.line }]);
    }
    for (const line of form.read) if (!failed.has(line)) this.taken.add(line);
    for (const { label, value, line } of form.others ?? []) this.takeField(label, value, line);
  }

  /** False where it is no record of its type. */
  private take(raw: RawRecord): boolean {
    const { about, other } = this.context;
    const out = raw.out ?? this.whyOut(about, other, raw.owner);
    const find = judge({ ...raw, ...(out === undefined ? {} : { out }) }, this.subject, this.zone);
    if (!find) return false;
    this.finds.push(find);
    return true;
  }

  private whyOut(about: About, other: string | undefined, owner: string | undefined): string | undefined {
    if (about === 'example') return 'It stands under an example.';
    if (about === 'past') return 'It stands under a history of what was there.';
    if (isContrary(about, this.subject.as))
      return about === 'new' ? 'It stands under what is wanted, not under what is there.' : 'It stands under what is there, not under what is wanted.';
    const isOwn = owner !== undefined && readOwner(owner, this.subject)?.is === 'ours' && owner.includes('.');
    return other !== undefined && !isOwn ? `It stands under another domain, ${other}.` : undefined;
  }

  /** What a heading says of what stands below it. */
  private heading(lines: readonly Line[]): void {
    this.context.areServers = isServersHeading(lines, this.context.areServers);
    for (const line of lines) {
      const text = line.text.trim();
      if (text === '' || text === RULED) continue;
      const words = text.split(/\s+/);
      const isShort = words.length <= HEADING_WORDS;
      if ((!isShort && !text.endsWith(':')) || /[:=]\s*\S/.test(text)) continue;
      this.context.about = aboutOf(text);
      this.context.type = titleType(text);
      this.context.head = undefined;
      const names = words.map((word) => word.replace(/^[("„“']+|[)"“”':,]+$/g, '')).filter((word) => /^[\p{L}\p{N}-]+(?:\.[\p{L}\p{N}-]+)+\.?$/u.test(word));
      if (names.length !== 1 || this.subject.zone === undefined) continue;
      const owner = readOwner(names[0]!, this.subject);
      if (owner?.is === 'ours') this.context.other = undefined;
      // Longer sentences name servers and panels as well.
      else if (owner?.is === 'elsewhere' && words.length <= 4) this.context.other = names[0];
    }
  }

  /** Lines that have no form: names, sentences, headings. */
  private readWords(lines: readonly Line[], isHeading = true): void {
    const plain = lines.filter(({ text }) => text !== RULED && text.trim() !== '');
    if (this.subject.as === 'new' && plain.length > 0 && plain.every(({ text }) => serverOfLine(text) !== undefined)) {
      for (const { line } of plain) this.taken.add(line);
      this.takeServers(plain.map(({ text, line }) => ({ name: serverOfLine(text)!, line })));
      return;
    }
    const names = plain.map((line) => namesOfLine(line));
    // One word below records may be what is left of one of them.
    const isAlone = this.finds.every(({ kind }) => kind === 'name');
    // One word may be a greeting, and one line the rest of a record.
    const isOneLine = isAlone && this.subject.as === 'old' && (this.isShort || names[0]?.every((name) => name.includes('.')) === true);
    const isList = plain.length > (isOneLine ? 0 : 1) && names.every((one) => one !== undefined && (isAlone || one.every((name) => name.includes('.'))));
    if (isList && isHeading && !this.isOneDomain(plain)) {
      const found = plain.flatMap((line, index) => names[index]!.map((name): NameFound => ({ name, line: line.line })));
      for (const { line } of plain) this.taken.add(line);
      if (this.subject.as === 'new') this.takeServers(found);
      else this.takeNames(found);
      return;
    }
    const fields = readFields(plain, this.around());
    this.takeForm(fields);
    for (const one of plain) this.takeAddressRow(one);
    const left = plain.filter(({ line }) => !this.taken.has(line));
    // What is left between rows of records may be of one of them.
    const read = this.readSentencesIn(isHeading || this.subject.as === 'new' ? left.filter(({ text }) => !/^\s*[;#]/.test(text)) : []);
    if (isHeading) this.heading(left.filter(({ line }) => !read.has(line)));
  }

  private readSentencesIn(lines: readonly Line[]): ReadonlySet<number> {
    const { records, named, read } = readSentences(lines, this.around());
    for (const record of records) this.take(record);
    for (const one of named) this.takeNamed(one);
    for (const line of read) this.taken.add(line);
    return read;
  }

  /** `www → 192.0.2.1`: a name and an address, which says the type by itself. */
  private takeAddressRow({ text, line, cells }: Line): void {
    const [owner, value] = (!this.taken.has(line) && cells === undefined && addressRow(text)) || [];
    if (owner === undefined || value === undefined || labelOf(owner) !== undefined) return;
    const type = value.includes(':') ? 'AAAA' : 'A';
    if (this.take({ owner, type, value, line, lastLine: line, form: 'list', doubts: ['No type stands there.'] })) this.taken.add(line);
  }

  /** A line that is nothing but a domain is the heading of what follows. */
  private isOneDomain(lines: readonly Line[]): boolean {
    if (lines.length !== 1) return false;
    const owner = readOwner(lines[0]!.text.trim(), this.subject);
    return owner?.is === 'elsewhere' || (owner?.is === 'ours' && owner.owner === '@' && owner.isWhole);
  }

  private takeField(label: OtherField['label'], value: string, line: number): void {
    const words = value.split(/[\s,;()[\]<>]+/).filter((word) => word !== '' && !(label === 'nameserver' && isAddressWord(word)));
    for (const word of words) this.takeNamed({ kind: label === 'nameserver' ? 'nameserver' : 'address', text: word, line, doubt: undefined });
  }

  private takeServers(found: readonly NameFound[]): void {
    for (const { name, line } of found) {
      const isServer = this.context.areServers || /^(?:ns|dns)[a-z0-9-]*\./i.test(name);
      const doubt = isContrary(this.context.about, this.subject.as) ? 'It stands under what is there now.' : isServer ? undefined : 'Is this a nameserver?';
      this.takeNamed({ kind: 'nameserver', text: name, line, doubt });
    }
  }

  private takeNamed(named: Named): void {
    const find = namedFind(named, this.subject, this.zone);
    if (find) this.finds.push(find);
  }

  private takeNames(names: readonly NameFound[]): void {
    for (const name of names) {
      const find = nameFind(name, this.subject);
      if (find) this.finds.push(find);
    }
  }

  private unreadOf(lines: readonly Line[]): Unread[] {
    return lines.flatMap((one): Unread[] => {
      if (isBlank(one) || one.text === RULED || one.text.trim() === '' || this.taken.has(one.line)) return [];
      return [{ line: one.line, text: one.text.trim().slice(0, 300), problem: this.problems.get(one.line) }];
    });
  }
}
