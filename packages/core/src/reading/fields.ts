import { Label, labelOf } from './labels';
import { Line } from './lines';
import { RawRecord } from './find';
import { Around, FormRead } from './formRead';
import { typeWord } from './typeWord';
import { aboutOf } from './about';

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
export function readFields(lines: readonly Line[], { subject }: Pick<Around, 'subject'>): FormRead & { readonly others: readonly OtherField[] } {
  const records: RawRecord[] = [];
  const others: OtherField[] = [];
  const read = new Set<number>();
  let card: Card | undefined;
  /** What the lines below a heading are, one after the other. */
  let listed: 'nameserver' | 'address' | 'ipv6' | undefined;
  let waiting: { label: Label; heading: string; line: number } | undefined;
  const close = (): void => {
    const whole = card;
    card = undefined;
    waiting = undefined;
    if (!whole) return;
    const { type, value, line, lastLine } = whole;
    if (type === undefined || value === undefined) return;
    for (const one of whole.lines) read.add(one);
    const doubts = whole.name === undefined && whole.domain === undefined ? ['No name stands there: the domain itself is taken.'] : [];
    records.push({
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
      ...(whole.out && { out: subject.as === 'old' ? 'It is labelled as what is wanted.' : 'It is labelled as what is there now.' }),
    });
  };
  const put = (label: Label, text: string, line: number, heading: string): boolean => {
    if (label === 'nameserver' || label === 'address' || label === 'ipv6') {
      // Beside name or type, an address is the value of that record.
      if (label !== 'nameserver' && card?.type !== undefined && card.value === undefined) return put('value', text, line, heading);
      others.push({ label, value: text, line });
      read.add(line);
      return true;
    }
    const type = label === 'type' ? typeWord(text) : undefined;
    if (label === 'type' && type === undefined) return false;
    const key = label === 'class' || label === 'noise' ? undefined : label;
    const about = label === 'value' ? aboutOf(heading) : undefined;
    const isContrary = about !== undefined && about !== 'example' && about !== subject.as;
    if (key !== undefined && card?.[key] !== undefined) {
      // Old value and new value of one record.
      if (label === 'value' && (isContrary || card.out === true)) {
        card.lines.push(line);
        card.lastLine = line;
        if (!isContrary) [card.value, card.out] = [text, false];
        return true;
      }
      close();
    }
    card ??= { line, lastLine: line, lines: [] };
    card.lines.push(line);
    card.lastLine = line;
    if (key !== undefined) card[key] = type ?? text;
    if (label === 'value') card.out = isContrary;
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
  for (const { line, text } of lines) {
    const parts = text.replace(/ {2,}|\t+/g, '\t').split(/[\t,;|] ?(?=[^\t,;|:=]{1,48}[:=])/);
    const pairs = parts.map((part) => /^\s*(?:\d+[.)]\s*)?([^:=]{1,48}?)\s*[:=]\s*(\S[^]*)$/.exec(part));
    if (pairs.length < 3 || !pairs.every((pair) => pair !== null && labelOf(pair[1]!) !== undefined)) continue;
    const of = pairs.map((pair): Line => ({ line, quote: 0, text: `${pair![1]}: ${pair![2]}` }));
    const found = readFields(of, around);
    if (found.records.length !== 1) continue;
    records.push(found.records[0]!);
    read.add(line);
  }
  return { records, read };
}

/** Characters within which a label ends. */
const LONGEST_LABEL = 50;

/** A label and what is beside it: `Name: www`, `Name = www`, two cells, or a label alone. */
function pairIn({ text, cells }: Line): readonly [string, string] | undefined {
  if (cells) {
    const full = cells.filter((cell) => cell !== '');
    if (full.length === 2 || full.length === 1) return [full[0]!.replace(/\s*[:=]$/, ''), full[1] ?? ''];
    return undefined;
  }
  const bare = text.trim();
  const end = /[:=\t|]| {2}/.exec(bare.slice(0, LONGEST_LABEL));
  if (end && labelOf(bare.slice(0, end.index)) !== undefined) return [bare.slice(0, end.index), bare.slice(end.index).replace(/^[\s:=|]+/, '')];
  return labelOf(text) !== undefined ? [text.trim().replace(/\s*[:=]$/, ''), ''] : undefined;
}
