import { Label, labelOf, plainWord, withoutColon } from './labels';
import { Line } from './lines';
import { RawRecord } from './find';
import { Around, FormRead } from './formRead';
import { SWITCHED_OFF, isSwitchedOff } from './rowState';
import { typeWord } from './typeWord';
import { aboutOf, contraryWords, isContrary } from './about';
import { valuesIn } from './value';
import { typeNamed } from './clauses';

interface Card {
  name?: string;
  type?: string;
  value?: string;
  ttl?: string;
  priority?: string;
  weight?: string;
  port?: string;
  domain?: string;
  out?: boolean;
  /** A field says that the record does not count. */
  isOff?: boolean;
  line: number;
  lastLine: number;
  lines: number[];
}

/** A field that gives something else than a part of a record. */
export interface OtherField {
  readonly label: 'nameserver' | 'address' | 'ipv6';
  readonly value: string;
  readonly line: number;
}

const PARTS: ReadonlySet<Label> = new Set(['name', 'type', 'value', 'ttl', 'class', 'priority', 'weight', 'port', 'domain', 'noise']);

/**
 * Reads records that are given field by field: `Label: value`, a label with its value in the cell beside it or in the line below. The
 * same label again begins the next record, as a gap does.
 */
export function readFields(
  lines: readonly Line[],
  { subject, type: above }: Pick<Around, 'subject'> & Partial<Pick<Around, 'type'>>,
): FormRead & { readonly others: readonly OtherField[] } {
  const records: RawRecord[] = [];
  const others: OtherField[] = [];
  const read = new Set<number>();
  let card: Card | undefined;
  /** The type that a line above the fields names: "Create an A record". */
  let titled = above;
  /** What the lines below a heading are, one after the other. */
  let listed: 'nameserver' | 'address' | 'ipv6' | undefined;
  let waiting: { label: Label; heading: string; line: number } | undefined;
  const close = (): void => {
    const whole = card;
    card = undefined;
    waiting = undefined;
    if (!whole) return;
    const { type = titled, value, line, lastLine } = whole;
    if (type === undefined || value === undefined) return;
    for (const one of whole.lines) read.add(one);
    const doubts = whole.name === undefined && whole.domain === undefined ? ['No name stands there: the domain itself is taken.'] : [];
    if (whole.isOff) doubts.push(SWITCHED_OFF);
    const record: RawRecord = {
      owner: whole.name ?? whole.domain,
      type,
      value,
      ttl: whole.ttl,
      priority: whole.priority,
      weight: whole.weight,
      port: whole.port,
      line,
      lastLine,
      form: 'fields',
      doubts,
      ...(whole.out && { out: contraryWords('It is labelled', subject.as) }),
    };
    for (const one of valuesIn(type, value)) records.push(one === value ? record : { ...record, value: one });
  };
  const put = (label: Label, text: string, line: number, heading: string): boolean => {
    if (label === 'nameserver' || label === 'address' || label === 'ipv6') {
      // Beside name or type, an address is the value of that record.
      if (label !== 'nameserver' && card?.type !== undefined && card.value === undefined) return put('value', text, line, heading);
      others.push({ label, value: text, line });
      read.add(line);
      return true;
    }
    // "Record" heads names, types and values alike.
    if (label === 'name' && plainWord(heading) === 'record') {
      if (card?.type === undefined && typeWord(text) !== undefined) return put('type', text, line, '');
      if (card?.name !== undefined && card.value === undefined) return put('value', text, line, '');
    }
    const type = label === 'type' ? typeWord(text) : undefined;
    if (label === 'type' && type === undefined) return false;
    const key = label === 'class' || label === 'noise' ? undefined : label;
    const isOther = label === 'value' && isContrary(aboutOf(heading), subject.as);
    if (key !== undefined && card?.[key] !== undefined) {
      // Old value and new value of one record.
      if (label === 'value' && (isOther || card.out === true)) {
        card.lines.push(line);
        card.lastLine = line;
        if (!isOther) [card.value, card.out] = [text, false];
        return true;
      }
      close();
    }
    card ??= { line, lastLine: line, lines: [] };
    card.lines.push(line);
    card.lastLine = line;
    if (key !== undefined) card[key] = type ?? text;
    if (label === 'value') card.out = isOther;
    if (label === 'noise' && isSwitchedOff(text, heading)) card.isOff = true;
    return true;
  };
  for (const line of lines) {
    const text = line.text.trim();
    if (text === '') {
      if (!waiting) close();
      continue;
    }
    if (listed !== undefined && pairIn(line) === undefined && isHosts(text)) {
      put(listed, text, line.line, '');
      continue;
    }
    listed = undefined;
    if (waiting) {
      const { label, heading, line: from } = waiting;
      const isLabel = labelOf(text) !== undefined && typeWord(text) === undefined;
      waiting = undefined;
      if (!isLabel && put(label, text, line.line, heading)) {
        card?.lines.push(from);
        // Nameservers and addresses stand below their heading, several of them.
        if (isOther(label)) {
          read.add(from);
          listed = label;
        }
        continue;
      }
    }
    const pair = pairIn(line);
    const label = pair && labelOf(pair[0]);
    if (!pair || label === undefined || !(PARTS.has(label) || label === 'nameserver' || label === 'address' || label === 'ipv6')) {
      close();
      titled = typeNamed(text) ?? (pair ? titled : undefined);
      continue;
    }
    if (pair[1] !== '' && isOther(label)) listed = label;
    if (pair[1] === '') waiting = { label, heading: pair[0], line: line.line };
    else if (!put(label, pair[1], line.line, pair[0])) close();
  }
  close();
  return { records, read, others };
}

function isOther(label: Label): label is 'nameserver' | 'address' | 'ipv6' {
  return label === 'nameserver' || label === 'address' || label === 'ipv6';
}

/** Names of hosts and addresses, and nothing else. */
function isHosts(text: string): boolean {
  const words = text.split(/[\s,;]+/).filter((word) => word !== '');
  return words.every((word) => /^(?:[a-z0-9_-]+\.)+[a-z0-9-]{2,}\.?$/i.test(word) || /^[[(]?[0-9a-f:.]+[\])]?$/i.test(word));
}

/**
 * Reads lines that have a record each, every part with its label: `Type: A, Name: www, Value: 192.0.2.1`. What stands before a label
 * without one is left to other forms.
 */
export function readLabelledLines(lines: readonly Line[], around: Pick<Around, 'subject'>): FormRead {
  const records: RawRecord[] = [];
  const read = new Set<number>();
  for (const { line, text, cells } of lines) {
    const all = pairsOfLine(text, cells);
    if (all.length < 3) continue;
    const of = all.map(([label, value]): Line => ({ line, quote: 0, text: `${label}: ${value}` }));
    const found = readFields(of, around);
    if (found.records.length !== 1) continue;
    records.push(found.records[0]!);
    read.add(line);
  }
  return { records, read };
}

/** The labels of one line, each with its value, by whatever parts them: cells, marks, gaps, or the labels alone. */
function pairsOfLine(text: string, cells: readonly string[] | undefined): readonly (readonly [string, string])[] {
  const inCells = cells === undefined ? [] : alternating(cells.filter((cell) => cell !== ''));
  if (inCells.length > 0) return inCells;
  const labelled = (parts: readonly string[], pattern: RegExp): (readonly [string, string])[] => {
    const pairs = parts.map((part) => pattern.exec(part));
    if (pairs.length < 3 || !pairs.every((pair) => pair !== null && labelOf(pair[1]!) !== undefined)) return [];
    return pairs.map((pair) => [pair![1]!, pair![2]!] as const);
  };
  const bySpace = labelled(text.trim().split(/ {2,}|\t+/), /^(\S*[^\s:=]) (\S.*)$/);
  if (bySpace.length > 0) return bySpace;
  const byMark = labelled(text.replace(/ {2,}|\t+/g, '\t').split(/[\t,;|] ?(?=[^\t,;|:=]{1,48}[:=])/), /^\s*(?:\d+[.)]\s*)?([^:=]{1,48}?)\s*[:=]\s*(\S[^]*)$/);
  return byMark.length > 0 ? byMark : pairsWithin(text);
}

/** Cells of which every other one is a label, with the value behind it: Type, A, Host, www, Value, 192.0.2.1; empty where they are not. */
function alternating(cells: readonly string[]): (readonly [string, string])[] {
  const pairs = cells.flatMap((cell, index) => (index % 2 === 0 && cells[index + 1] !== undefined ? [[withoutColon(cell), cells[index + 1]!] as const] : []));
  const known = pairs.findIndex(([label, value]) => labelOf(label) === undefined || (labelOf(value) !== undefined && typeWord(value) === undefined));
  const taken = known < 0 ? pairs : pairs.slice(0, known);
  return taken.length >= 3 ? taken : [];
}

/** Characters of a line in which labels are looked for. */
const LONGEST_LINE = 5000;

/** Labels with nothing but a blank before them: `TYPE: A HOST: @ VALUE: 192.0.2.1`; empty where what stands before the first has none. */
function pairsWithin(text: string): (readonly [string, string])[] {
  const line = text.slice(0, LONGEST_LINE).trim();
  const starts: { readonly at: number; readonly label: string; readonly end: number }[] = [];
  for (const { index } of line.matchAll(/[:=](?=\s)/g)) {
    const words = line.slice(starts.at(-1)?.end ?? 0, index).split(/\s+/);
    const label = [3, 2, 1].map((count) => words.slice(-count).join(' ')).find((some) => some !== '' && !/\d/.test(some) && labelOf(some) !== undefined);
    if (label !== undefined) starts.push({ at: index - label.length, label, end: index + 1 });
  }
  if (starts[0]?.at !== 0) return [];
  return starts
    .map(({ label, end }, index) => [label, line.slice(end, starts[index + 1]?.at ?? line.length).trim()] as const)
    .filter(([, value]) => value !== '');
}

/** Characters within which a label ends. */
const LONGEST_LABEL = 50;

/** A field without the quotes and commas of a program's text, and without the dots that lead from a label to its value. */
function unmarkedField(text: string): string {
  if (text.length > LONGEST_LINE) return text.trim();
  const bare = text.trim().replace(/^([\p{L}][\p{L} -]{0,30}?)\s*\.{3,}\s+(?=\S)/u, '$1: ');
  const quoted = /^["']?([\p{L}_-]{2,30})["']?\s*[:=]\s*(?:"([^"\\]*)"|'([^'\\]*)'|([^"'\s]\S*?)),?$/u.exec(bare);
  if (!quoted) return bare;
  const value = quoted[2] ?? quoted[3] ?? quoted[4]!;
  return labelOf(quoted[1]!) === undefined ? bare : `${quoted[1]}: ${value}`;
}

/** A label and what is beside it: `Name: www`, `Name = www`, two cells, or a label alone. */
function pairIn({ text, cells }: Line): readonly [string, string] | undefined {
  if (cells) {
    const full = cells.filter((cell) => cell !== '');
    if (full.length === 2 || full.length === 1) return [withoutColon(full[0]!), full[1] ?? ''];
    return undefined;
  }
  const bare = unmarkedField(text);
  const end = /[:=\t|]| {2}/.exec(bare.slice(0, LONGEST_LABEL));
  if (end && labelOf(bare.slice(0, end.index)) !== undefined) return [bare.slice(0, end.index), bare.slice(end.index).replace(/^[\s:=|]+/, '')];
  return labelOf(text) !== undefined ? [withoutColon(text.trim()), ''] : undefined;
}
