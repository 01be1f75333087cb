import { aboutOf } from './about';
import { withNamesAbove } from './blankNames';
import { RawRecord } from './find';
import { Around, FormRead } from './formRead';
import { isHead } from './table';
import { labelOf } from './labels';
import { Line } from './lines';
import { isNoise } from './noiseWords';
import { readOwner } from './owner';
import { SWITCHED_OFF, isSwitchedOff } from './rowState';
import { LEAST_TTL, ttlText } from './ttlText';
import { typeWord } from './typeWord';
import { readValue } from './value';

/** In which order owner, type and value stand. */
type Order = 'owner type value' | 'type owner value' | 'owner value type' | 'type value owner' | 'value type owner' | 'owner value';
const ORDERS: readonly Order[] = ['owner type value', 'type owner value', 'owner value type', 'type value owner', 'value type owner'];

/** Words of a line; a longer one is a value, whose end is not looked at word by word. */
const MOST_WORDS = 400;

/**
 * Reads lines whose parts stand between single blanks. The order is that in which most lines can be read; a line that it explains only
 * in part is none of its rows.
 *
 *     www A 192.0.2.1
 *     @ 3600 IN MX 10 mx1.post.example
 */
export function readWordRows(lines: readonly Line[], around: Around): FormRead {
  const read = new Set<number>();
  // A list that is set in as a whole leaves no names out.
  const isSetIn = lines.every(({ text, cells }) => cells !== undefined || /^\s/.test(text));
  const split = lines.flatMap((one) => {
    const line = inCell(asLine(isSetIn ? { ...one, text: one.text.trimStart() } : one));
    if (line === undefined) return [];
    // A field has a form of its own.
    if (/^[^:]{1,48}:(?:\s|$)/.test(line.text) && labelOf(line.text.slice(0, line.text.indexOf(':'))) !== undefined) return [];
    const words = wordsOf(line.text).filter((word) => !/^(?:->|=>|-->|→|➔|➜|=|:)$/.test(word));
    // "New records:" says what stands below, and is no row of titles.
    const isHeading = line.text.trimEnd().endsWith(':') && aboutOf(line.text) !== undefined;
    if (words.length > 1 && !isHeading && isHeadLine(words)) {
      read.add(line.line);
      return [];
    }
    return words.length > 1 && words.length <= MOST_WORDS ? [{ line, words }] : [];
  });
  const orders: readonly Order[] = around.type === undefined ? ORDERS : [...ORDERS, 'owner value'];
  const tried = orders.map((order) => split.map(({ line, words }) => readLine(words, line, order, around)));
  const counts = tried.map((records) => records.filter((one) => one !== undefined).length);
  const most = Math.max(0, ...counts);
  if (most === 0) return { records: [], read };
  const best = counts.indexOf(most);
  const records = split.flatMap((_, index): RawRecord[] => {
    const record = tried[best]![index];
    if (!record) return [];
    for (let line = record.line; line <= record.lastLine; line++) read.add(line);
    // Another order that explains as many lines, and this one differently, is as good.
    const rival = tried.find((all, order) => order !== best && counts[order] === most && all[index] && differs(all[index], record))?.[index];
    if (!rival) return [record];
    return [{ ...record, doubts: [...record.doubts, 'Name and value could be the other way round.'], other: { owner: rival.owner, value: rival.value } }];
  });
  return { records: withNamesAbove(records, around.subject), read };
}

/** Characters of a line that is looked at as a setting. */
const LONGEST_SETTING = 2000;

/** A record that a setting holds as it would stand in a zone file: `local-data: "www.kelp.example. 300 IN A 192.0.2.1"`. */
function asLine(line: Line): Line {
  if (line.text.length > LONGEST_SETTING) return line;
  // "@ (MX): 10 mail.kelp.example"
  const [, name, type, value] = /^\s*(\S+)\s+\(([A-Z]{1,6})\)\s*:?\s+(\S.*)$/.exec(line.text) ?? [];
  if (name !== undefined && typeWord(type!) !== undefined) return { ...line, text: `${name} ${type} ${value}` };
  // "www CNAME: sites.host.example"
  const marked = /^\s*(\S+)\s+([A-Z]{1,6})\s?:\s+(\S.*)$/.exec(line.text);
  if (marked && typeWord(marked[2]!) === marked[2]) return { ...line, text: `${marked[1]} ${marked[2]} ${marked[3]}` };
  const inside = /^\s*[\w-]+[:=]\s*(["'])(.+)\1[,;]?\s*$/.exec(line.text)?.[2];
  return inside !== undefined && wordsOf(inside).slice(1, 5).some(isTypeUpper) ? { ...line, text: inside } : line;
}

/** A line as it is; of a row of a page its last cell, which may hold a record whole beside words about it. */
function inCell(line: Line): Line | undefined {
  if (line.cells === undefined) return line;
  const last = line.cells.findLast((cell) => cell !== '');
  return last !== undefined && line.cells.length <= 2 && wordsOf(last).length > 2 ? { line: line.line, quote: line.quote, text: last } : undefined;
}

function differs(a: RawRecord, b: RawRecord): boolean {
  return a.owner !== b.owner || a.value !== b.value || a.type !== b.type;
}

function isHeadLine(words: readonly string[]): boolean {
  return words.length < 12 && isHead(words) && words.filter((word) => labelOf(word) !== undefined).length >= words.length * 0.7;
}

/** Words, each with its quotes; a quoted text is one. */
export function wordsOf(text: string): string[] {
  return text.match(/"(?:[^"\\]|\\[^])*"|[^\s]+/g) ?? [];
}

function readLine(words: readonly string[], { line, text }: Line, order: Order, around: Around): RawRecord | undefined {
  const ends = /^\s/.test(text) ? ['', ...words] : [...words];
  // Buttons and states at the end of a row.
  // What stands in brackets at the end says something of the row.
  let remark: string | undefined;
  const bracket = ends.findLastIndex((word) => /^[[(]/.test(word));
  if (
    bracket > 1 &&
    /[\])]$/.test(ends.at(-1)!) &&
    around.type !== 'TXT' &&
    !ends.slice(0, bracket).some((word) => /^(?:TXT|SPF)$/i.test(word)) &&
    !/^[[(]\d+[\])]$/.test(ends[bracket]!)
  )
    remark = ends.splice(bracket).join(' ');
  let isOff = false;
  while (ends.length > 2 && isNoise(ends.at(-1)!) && !isTypeUpper(ends.at(-1)!)) isOff = isSwitchedOff(ends.pop()!, '') || isOff;
  if (order === 'owner value') {
    const [owner, ...rest] = ends;
    const value = valueOf(around.type!, rest, around);
    const record = value && parts(around.type!, owner, value, value.ttl, around);
    // Any two words could be a name and a text.
    if (record && around.type === 'TXT' && !/^"|=/.test(record.value)) return undefined;
    return record && { ...record, line, lastLine: line, form: 'list' };
  }
  for (const at of typePlaces(ends)) {
    const record = readAt(ends, at, order, around) ?? beforeComment(ends, at, order, around);
    if (!record) continue;
    // In small letters a type may be a word of a sentence.
    const isWord = !isTypeUpper(ends[at]!) && record.type !== 'A' && record.type !== 'AAAA';
    const doubts = [
      ...record.doubts,
      ...(isWord ? [`Is “${ends[at]!}” meant as a type?`] : []),
      ...(isOff ? [SWITCHED_OFF] : []),
      ...(remark === undefined ? [] : [`Behind it stands “${remark.slice(0, LONGEST_COMMENT)}”.`]),
    ];
    return { ...record, line, lastLine: line, form: 'list', doubts };
  }
  return undefined;
}

/** The same without what stands behind a semicolon, as in zone files: what it says is asked about. */
function beforeComment(words: readonly string[], at: number, order: Order, around: Around): Parts | undefined {
  const from = words.findIndex((word, index) => index > at + 1 && word.startsWith(';'));
  if (from < 0) return undefined;
  const record = readAt(words.slice(0, from), at, order, around);
  const comment = words.slice(from).join(' ');
  const isPlain = record !== undefined && record.type !== 'TXT' && aboutOf(comment) === undefined && comment.length < LONGEST_COMMENT;
  return record && (isPlain ? record : { ...record, doubts: [...record.doubts, `Behind it stands “${comment.slice(0, LONGEST_COMMENT)}”.`] });
}

/** Characters of a comment that says something of its row. */
const LONGEST_COMMENT = 60;

type Parts = Omit<RawRecord, 'line' | 'lastLine' | 'form'>;

/** Where a type stands; one in capitals counts before one in small letters. */
function typePlaces(words: readonly string[]): number[] {
  const places = words.slice(0, 8).flatMap((word, index) => (typeWord(word) !== undefined ? [index] : []));
  const last = words.length - 1;
  if (last >= 8 && typeWord(words[last]!) !== undefined) places.push(last);
  const upper = places.filter((at) => isTypeUpper(words[at]!));
  return upper.length > 0 ? upper : places;
}

function isTypeUpper(word: string): boolean {
  return typeWord(word) !== undefined && word === word.toUpperCase();
}

function readAt(words: readonly string[], at: number, order: Order, around: Around): Parts | undefined {
  const type = typeWord(words[at]!)!;
  const before = words.slice(0, at);
  const behind = words.slice(at + 1);
  if (order === 'owner type value') {
    const front = frontOf(before);
    if (!front) return undefined;
    // The value came to stand in the next line.
    if (behind.length === 0 && before.length > 1) return parts(type, front.owner, { text: '…', ttl: undefined, doubts: [] }, front.ttl, around);
    const value = valueOf(type, behind, around);
    return value && parts(type, front.owner, value, front.ttl ?? value.ttl, around);
  }
  if (order === 'type owner value') {
    if (before.some((word) => word !== '')) return undefined;
    const [owner, ...rest] = behind;
    if (owner === undefined) return undefined;
    const value = valueOf(type, rest, around);
    return value && parts(type, owner, value, value.ttl, around);
  }
  if (order === 'owner value type') {
    const [owner, ...rest] = before;
    const ttl = behind.length === 0 ? undefined : behind.length === 1 && isTtl(behind[0]!) ? behind[0] : null;
    if (owner === undefined || ttl === null) return undefined;
    const value = valueOf(type, rest, around);
    return value && parts(type, owner, value, ttl ?? value.ttl, around);
  }
  if (order === 'value type owner') {
    const [number] = behind;
    const isNumbered = behind.length === 2 && type === 'MX' && /^\d{1,5}$/.test(number!);
    const name = behind.at(-1);
    // A value is no name of a series, or which of the two is the name is nobody's to tell.
    if (type === 'TXT' && !/=/.test(before.join(' '))) return undefined;
    if (name === undefined || behind.length > (isNumbered ? 2 : 1) || (type !== 'A' && type !== 'AAAA' && type !== 'TXT' && type !== 'MX')) return undefined;
    const value = valueOf(type, [...(isNumbered ? [number!] : []), ...before.filter((word) => word !== '')], around);
    return value && parts(type, name, value, value.ttl, around);
  }
  if (before.some((word) => word !== '')) return undefined;
  const owner = behind.at(-1);
  if (owner === undefined || behind.length < 2) return undefined;
  const value = valueOf(type, behind.slice(0, -1), around);
  return value && parts(type, owner, value, value.ttl, around);
}

interface Value {
  readonly text: string;
  readonly ttl: string | undefined;
  readonly doubts: readonly string[];
}

function parts(type: string, owner: string | undefined, value: Value, ttl: string | undefined, { subject }: Around): Parts | undefined {
  // A label is neither a name nor a value.
  if (owner?.endsWith(':') || /^[^\s"]+:$/.test(value.text)) return undefined;
  if (owner !== undefined && owner !== '' && (readOwner(owner, subject) === undefined || (isTtl(owner) && !/^\d{1,3}$/.test(owner)))) return undefined;
  const doubts = [...value.doubts];
  if (owner !== undefined && owner !== '' && isNoise(owner)) doubts.push(`Is “${owner}” the name, or does it say how the record is?`);
  if (owner === undefined) doubts.push('No name stands there: the domain itself is taken.');
  return { owner, type, value: value.text, ttl, doubts };
}

/** `www 3600 IN` in any order that master files take (RFC 1035 §5.1); undefined where more stands there. */
function frontOf(words: readonly string[]): { readonly owner: string | undefined; readonly ttl: string | undefined } | undefined {
  const rest = words.filter((word, index) => index === 0 || !/^(?:IN|CLASS1)$/i.test(word));
  if (rest.length === 1 && /^(?:IN|CLASS1)$/i.test(rest[0]!)) return { owner: undefined, ttl: undefined };
  if (rest.length === 0) return { owner: undefined, ttl: undefined };
  if (rest.length === 1) return { owner: rest[0], ttl: undefined };
  if (rest.length === 2 && isTtl(rest[1]!)) return { owner: rest[0], ttl: rest[1] };
  return undefined;
}

function isTtl(word: string): boolean {
  return ttlText(word) !== undefined;
}

/** The words of a value with what may stand around it; undefined where something is left over. */
function valueOf(type: string, words: readonly string[], { zone }: Around): Value | undefined {
  const from = words.length > 1 && isTtl(words[0]!) && !startsWithNumber(type) ? 1 : 0;
  const all = words.slice(from).filter((word, index) => !(index === 0 && /^IN$/i.test(word)));
  const front = from === 1 ? words[0] : undefined;
  const fits = (some: readonly string[]): boolean => some.length > 0 && readValue(type, some.join(' '), zone) !== undefined;
  if (type === 'TXT' || type === 'SPF') return textOf(all, front);
  const whole = fits(all) ? [{ text: all.join(' '), ttl: front }] : [];
  const last = all.at(-1);
  const isLast = last !== undefined && front === undefined && isLongTtl(last) && fits(all.slice(0, -1));
  const isFirst = startsWithNumber(type) && all.length > 2 && isLongTtl(all[0]!) && fits(all.slice(1));
  const found = [
    ...whole,
    ...(isLast ? [{ text: all.slice(0, -1).join(' '), ttl: last }] : []),
    ...(isFirst ? [{ text: all.slice(1).join(' '), ttl: all[0] }] : []),
  ];
  if (found.length === 0) return undefined;
  return { ...found[0]!, doubts: found.length > 1 && whole.length === 0 ? ['Which of the numbers is the TTL?'] : [] };
}

/** A TTL that is none of the small numbers with which values begin. */
function isLongTtl(word: string): boolean {
  return isTtl(word) && !(Number(word) < LEAST_TTL);
}

function startsWithNumber(type: string): boolean {
  return ['MX', 'SRV', 'CAA', 'HTTPS', 'SVCB', 'URI', 'NAPTR', 'KX', 'TLSA', 'SSHFP', 'DS', 'DNSKEY', 'CDS', 'CDNSKEY', 'AFSDB', 'CERT', 'LOC'].includes(type);
}

/** A text in quotes ends with them; without, it may go on to the end of the line, and nobody can see where it ends. */
function textOf(words: readonly string[], ttl: string | undefined): Value | undefined {
  if (words.length === 0) return undefined;
  if (words[0]!.startsWith('"')) {
    const end = words.findIndex((word) => !/^"[^]*"$/.test(word));
    const quoted = end < 0 ? words : words.slice(0, end);
    if (quoted.length === 0) return { text: words.join(' '), ttl, doubts: ['A quote in it is not closed.'] };
    const behind = words.slice(quoted.length);
    if (behind.length === 0) return { text: quoted.join(' '), ttl, doubts: [] };
    if (behind.length === 1 && isTtl(behind[0]!) && ttl === undefined) return { text: quoted.join(' '), ttl: behind[0], doubts: [] };
    return undefined;
  }
  if (words.length === 1) return { text: words[0]!, ttl, doubts: /[=:\d]/.test(words[0]!) ? [] : ['Is this the text?'] };
  const text = words.join(' ');
  // Policies say themselves where they end (RFC 7208 §5.1); of others a TTL at the end may be of the row.
  const isPolicy = /^v=spf1\s.*[?~+-]all$/i.test(text) || /^v=(?:DKIM1|DMARC1|STSv1|TLSRPTv1)\s*;/i.test(text);
  const last = words.at(-1)!;
  if (ttl === undefined && isTtl(last) && Number(last) >= LEAST_TTL)
    return {
      text: words.slice(0, -1).join(' '),
      ttl: last,
      doubts: /^v=spf1\s.*[?~+-]all$/i.test(words.slice(0, -1).join(' ')) ? [] : ['Is the number at the end a TTL?'],
    };
  return { text, ttl, doubts: isPolicy ? [] : ['Does all to the end of the line belong to the text?'] };
}
