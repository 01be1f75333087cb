import { parse as parseYaml } from 'yaml';
import { typeCode, typeMnemonic } from '../dns/typeNames';
import { Form, RawRecord } from './find';
import { Label, labelOf } from './labels';
import { Around } from './formRead';
import { SWITCHED_OFF, isSwitchedOff } from './rowState';
import { typeWord } from './typeWord';

/** How deep values may be nested, and how many are looked at. */
const DEEPEST = 40;
const MOST_NODES = 400_000;
/** Characters of YAML that are read: its reader takes far longer than that of JSON. */
const YAML_LIMIT = 2_000_000;

export interface TreeRead {
  readonly records: readonly RawRecord[];
  readonly form: Form;
  /** Where it was cut off: the first line that was not read. */
  readonly cutAt: number | undefined;
}

/** Reads JSON or YAML in any shape that has names, types and values somewhere; undefined where it is neither. */
export function readTree(text: string, around: Around): TreeRead | undefined {
  const json = jsonIn(text);
  if (json) return { records: recordsIn(json.tree, text, 'json', around), form: 'json', cutAt: json.cutAt };
  if (text.length > YAML_LIMIT || !isYamlLike(text)) return undefined;
  let tree: unknown;
  try {
    tree = parseYaml(text, { maxAliasCount: 0, logLevel: 'error', schema: 'failsafe' });
  } catch {
    // What is no YAML is read in another way.
    return undefined;
  }
  const records = recordsIn(tree, text, 'yaml', around);
  return records.length > 0 ? { records, form: 'yaml', cutAt: undefined } : undefined;
}

function jsonIn(text: string): { readonly tree: unknown; readonly cutAt: number | undefined } | undefined {
  const trimmed = text.trimEnd();
  if (!/^\s*[[{]/.test(trimmed)) return undefined;
  const whole = parsed(trimmed) ?? linesOfJson(trimmed);
  if (whole !== undefined) return { tree: whole, cutAt: undefined };
  const start = closed(trimmed);
  const tree = start && parsed(start.text);
  return tree === undefined ? undefined : { tree, cutAt: trimmed.slice(0, start!.end).split('\n').length + 1 };
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    // What is no JSON is read in another way.
    return undefined;
  }
}

/** JSON that was cut off, up to the last object that is whole, with its brackets closed; undefined where none is. */
function closed(text: string): { readonly text: string; readonly end: number } | undefined {
  const open: string[] = [];
  let whole: { readonly end: number; readonly brackets: string } | undefined;
  let isQuoted = false;
  for (let at = 0; at < text.length; at++) {
    const character = text[at]!;
    if (isQuoted) {
      if (character === '\\') at += 1;
      else if (character === '"') isQuoted = false;
    } else if (character === '"') isQuoted = true;
    else if (character === '{' || character === '[') open.push(character === '{' ? '}' : ']');
    else if (character === '}' || character === ']') {
      if (open.pop() !== character) return undefined;
      if (character === '}' && open.length > 0 && open.length < DEEPEST) whole = { end: at + 1, brackets: open.toReversed().join('') };
    }
  }
  return whole && { text: `${text.slice(0, whole.end)}${whole.brackets}`, end: whole.end };
}

/** A value a line, as programs write logs of them. */
function linesOfJson(text: string): unknown {
  const lines = text.split('\n').filter((line) => line.trim() !== '');
  if (lines.length < 2 || !lines.every((line) => /^\s*\{.*\},?\s*$/.test(line))) return undefined;
  const values = lines.map((line) => parsed(line.trim().replace(/,$/, '')));
  return values.every((value) => value !== undefined) ? values : undefined;
}

/** Lists of entries, or names with what stands below them. */
function isYamlLike(text: string): boolean {
  return (
    /^[ \t]*-\s+['"]?[\w@*.-]+['"]?:(?:\s|$)/m.test(text) || (/^['"]?[^\s#:][^:\n]*:[ \t]*\r?\n[ \t]*(?:- |\S[^\n]*:)/m.test(text) && /^[ \t]+\S/m.test(text))
  );
}

interface Known {
  readonly name?: string | undefined;
  readonly type?: string | undefined;
  readonly ttl?: string | undefined;
  readonly priority?: string | undefined;
  readonly weight?: string | undefined;
  readonly port?: string | undefined;
  readonly domain?: string | undefined;
}

function recordsIn(tree: unknown, text: string, form: Form, { subject }: Around): RawRecord[] {
  const places = new Places(text);
  const records: RawRecord[] = [];
  let nodes = 0;
  const add = (known: Known, value: string, isOff: boolean): void => {
    if (known.type === undefined) return;
    const line = places.lineOf(value);
    records.push({
      owner: known.name !== undefined && known.domain !== undefined ? joined(known.name, known.domain) : (known.name ?? known.domain),
      type: known.type,
      value,
      ttl: known.ttl,
      priority: known.priority,
      weight: known.weight,
      port: known.port,
      line,
      lastLine: line,
      form,
      doubts: [
        ...(known.name === undefined && known.domain === undefined ? ['No name stands there: the domain itself is taken.'] : []),
        ...(isOff ? [SWITCHED_OFF] : []),
      ],
    });
  };
  const walk = (node: unknown, known: Known, depth: number, isOff: boolean): void => {
    nodes += 1;
    if (nodes > MOST_NODES || depth > DEEPEST) return;
    if (Array.isArray(node)) {
      const numbers = { MX: 1, SRV: 3 }[known.type ?? ''];
      // [10, "mail.kelp.example"] is one value.
      if (
        numbers !== undefined &&
        node.length === numbers + 1 &&
        node.slice(0, -1).every((one) => /^\d{1,5}$/.test(String(one))) &&
        typeof node.at(-1) === 'string'
      ) {
        add(known, node.join(' '), isOff);
        return;
      }
      for (const one of node) walk(one, known, depth + 1, isOff);
      return;
    }
    if (typeof node === 'string' || typeof node === 'number') {
      add(known, String(node), isOff);
      return;
    }
    if (typeof node !== 'object' || node === null) return;
    const entries = Object.entries(node);
    const own: { -readonly [part in keyof Known]: Known[part] } = {};
    const values: unknown[] = [];
    const below: [string, unknown][] = [];
    let off = isOff;
    for (const [key, value] of entries) {
      const label = labelOf(camelParted(key));
      const isPlain = typeof value === 'string' || typeof value === 'number';
      const type = isPlain && label === 'type' ? typeIn(value) : undefined;
      if (type !== undefined) own.type = type;
      else if (isPlain && isPart(label)) own[label] = String(value);
      else if (isPlain && label === 'domain') own.domain = String(value);
      else if (/^(?:disabled|inactive|deleted)$/i.test(key)) off ||= value === true || value === 'true';
      else if (/^(?:enabled|active)$/i.test(key)) off ||= value === false || value === 'false';
      else if (isPlain && label === 'noise') off ||= isSwitchedOff(String(value), key);
      else if ((label === 'value' || label === 'address' || label === 'ipv6') && !isNamed(key, value)) values.push(value);
      else if (label === 'nameserver' && Array.isArray(value)) below.push(['NS', value]);
      else below.push([key, value]);
    }
    const merged: Known = { ...known, ...own };
    // A list named "records" is of sets of their own where its entries have types.
    for (const value of values) walk(value, merged, depth + 1, off);
    for (const [key, value] of below) {
      if (typeof value !== 'object' && !isTypeKey(key)) continue;
      if (isTypeKey(key) && (merged.name !== undefined || merged.domain !== undefined || isLeafy(value)))
        walk(value, { ...merged, type: typeWord(key) }, depth + 1, off);
      else if (isNameKey(key) && typeof value === 'object' && own.name === undefined && known.name === undefined)
        walk(value, { ...merged, name: nameFor(key, subject.zone) ?? (hasTypes(value) ? '@' : undefined) }, depth + 1, off);
      else walk(value, merged, depth + 1, off);
    }
  };
  walk(tree, {}, 0, false);
  return records;
}

/** A type by its mnemonic, or by its number (RFC 8427 §2.1). */
function typeIn(value: string | number): string | undefined {
  const code = Number(value);
  return Number.isInteger(code) && code > 0 && code < 0xffff ? typeMnemonic(code) : typeWord(String(value));
}

function isPart(label: Label | undefined): label is 'name' | 'ttl' | 'priority' | 'weight' | 'port' {
  return label === 'name' || label === 'ttl' || label === 'priority' || label === 'weight' || label === 'port';
}

/** recordType → record Type */
function camelParted(key: string): string {
  return key.replace(/([a-z])([A-Z])/g, '$1 $2');
}

function isTypeKey(key: string): boolean {
  return /^[A-Z][A-Z0-9]{0,9}$/.test(key) && typeCode(key) !== undefined;
}

/** A name that is a label as well, such as `old`: what stands below it is a record. */
function isNamed(key: string, value: unknown): boolean {
  return /^(?:old|new|current|before|after|required)$/i.test(key) && typeof value === 'object' && value !== null && !Array.isArray(value) && 'type' in value;
}

/** What stands below has a type each: it is what a name has. */
function hasTypes(value: unknown): boolean {
  return typeof value === 'object' && value !== null && !Array.isArray(value) && Object.keys(value).length > 0 && Object.keys(value).every(isTypeKey);
}

function isLeafy(value: unknown): boolean {
  return typeof value !== 'object' || Array.isArray(value);
}

const CONTAINERS =
  /^(?:zones?|records?|rrsets?|data|dns|results?|entries|items|list|response|payload|body|values?|content|answers?|meta|attributes|resource_?records?|record_?sets?)$/i;

function isNameKey(key: string): boolean {
  return !CONTAINERS.test(key) && !isTypeKey(key) && /^(?:@|\*|[*\w-]+(?:\.[\w-]+)*\.?)?$/.test(key);
}

/** The name that a key stands for; the domain at the top holds names of its own. */
function nameFor(key: string, zone: string | undefined): string | undefined {
  return zone !== undefined && `${key.replace(/\.$/, '')}.`.toLowerCase() === zone.toLowerCase() ? undefined : key;
}

function joined(name: string, domain: string): string {
  const whole = domain.replace(/\.$/, '');
  if (name === '' || name === '@') return whole;
  const bare = name.replace(/\.$/, '').toLowerCase();
  return bare === whole.toLowerCase() || bare.endsWith(`.${whole.toLowerCase()}`) ? name : `${name}.${whole}`;
}

/** Characters within which the next value stands. */
const AHEAD = 20_000;

/** On which line each value stands, looked for in the order in which values come. */
class Places {
  private at = 0;
  private line = 1;
  /** Where the line ends that is looked at: looked for once a line, since data may stand in a single one. */
  private end: number;

  constructor(private readonly text: string) {
    this.end = this.endFrom(0);
  }

  lineOf(value: string): number {
    const quoted = JSON.stringify(value).slice(1, -1);
    // A value that is written in another way is not looked for through the whole text.
    const ahead = this.text.slice(this.at, this.at + AHEAD);
    const found = [quoted, value].map((one) => ahead.indexOf(one)).find((one) => one >= 0);
    if (found === undefined) return this.line;
    const next = this.at + found;
    while (this.end < next) {
      this.line += 1;
      this.end = this.endFrom(this.end + 1);
    }
    this.at = next;
    return this.line;
  }

  private endFrom(at: number): number {
    const end = this.text.indexOf('\n', at);
    return end < 0 ? Infinity : end;
  }
}
