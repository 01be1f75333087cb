import { isIpv4, isIpv6 } from '../dns/address';
import { Name, NameError } from '../dns/name';
import { parseRdata, printRdata } from '../dns/rdata';
import { quotedText } from '../dns/quotedText';
import { TextError } from '../dns/token';
import { typeCode } from '../dns/typeNames';
import { endingOf } from './owner';

/** How the value of a record is read. */
export interface ValueRead {
  /** In presentation form; empty where the text does not have all of it. */
  readonly data: string;
  readonly doubts: readonly string[];
  /** A target of one label: below the domain it has to be a name that is there. */
  readonly target?: string | undefined;
}

/** Numbers that stand in places of their own beside a value. */
export interface Beside {
  readonly priority?: string | undefined;
  readonly weight?: string | undefined;
  readonly port?: string | undefined;
}

/** Cut off, or drawn short in the middle. */
const CUT = /…|\.{3}|\[(?:cut|gekürzt|truncated|snip)\]/i;
/** How the value of each type begins with numbers that panels may show apart (RFC 1035 §3.3.9, RFC 2782, RFC 7553, RFC 9460 §2.1). */
const NUMBERS: Readonly<Record<string, readonly (keyof Beside)[]>> = {
  MX: ['priority'],
  KX: ['priority'],
  AFSDB: ['priority'],
  RT: ['priority'],
  SRV: ['priority', 'weight', 'port'],
  URI: ['priority', 'weight'],
  HTTPS: ['priority'],
  SVCB: ['priority'],
};
const NAMED: ReadonlySet<string> = new Set(['CNAME', 'NS', 'PTR', 'DNAME', 'ALIAS', 'ANAME', 'MX', 'SRV', 'KX', 'AFSDB', 'RT']);
const HOST = /^(?=.{1,253}\.?$)(?:[a-z0-9_](?:[a-z0-9_-]{0,61}[a-z0-9_])?\.)*[a-z0-9_](?:[a-z0-9_-]{0,61}[a-z0-9_])?\.?$/i;
/** Every octet of the longest data as a number of three digits, with its quotes. */
const LONGEST = 300_000;

/**
 * Reads a value as a panel shows it: a whole name with or without its final dot, a text with or without its quotes, numbers before it or
 * beside it. Undefined where it is none of this type. `isFile`: names are relative where no dot ends them, as a server reads a zone file.
 *
 *     readValue('MX', 'mx1.post.example', kelp, { priority: '10' })  // 10 mx1.post.example.
 *     readValue('A', '192.0.2.300', kelp)                            // undefined
 *     readValue('TXT', 'v=DKIM1; p=MIIB…', kelp)                     // no data: it is not whole
 */
export function readValue(type: string, text: string, zone: Name, beside: Beside = {}, isFile = false): ValueRead | undefined {
  if (text.length > LONGEST) return undefined;
  const value = text.trim();
  if (value === '') return undefined;
  if (CUT.test(value) && (type !== 'TXT' || /(?:…|\.{3})["”]?$/.test(value) || /[\w+/](?:…|\.{3})[\w+/]/.test(value)))
    return { data: '', doubts: ['Its value is not whole in this text.'] };
  switch (type) {
    case 'A':
      return isIpv4(bare(value)) ? plainRead(bare(value)) : undefined;
    case 'AAAA':
      return isIpv6(bare(value)) ? parsed(type, bare(value), zone) : undefined;
    case 'TXT':
    case 'SPF':
      return readText(type, value, zone);
    case 'CAA':
      return caa(value, zone);
    default:
      return NAMED.has(type) ? named(type, value, zone, beside, isFile) : numbered(type, value, zone, beside);
  }
}

/** Several addresses in one place, each of them; else what stands there. A type whose values are of one word may have more than one. */
export function valuesIn(type: string, text: string): readonly string[] {
  if (type !== 'A' && type !== 'AAAA') return [text];
  const all = text.split(/[\s,;]+(?:(?:and|und|et|y|e|en)\s+)?/i).filter((one) => one !== '');
  return all.length > 1 && all.every((one) => (type === 'A' ? isIpv4(one) : isIpv6(one))) ? all : [text];
}

/** True where a cell could be the value of this type, its numbers aside. */
export function fitsValue(type: string, text: string, zone: Name): boolean {
  const numbers = { priority: '10', weight: '0', port: '1' };
  return valuesIn(type, text).every((one) => readValue(type, one, zone, numbers) !== undefined);
}

const plainRead = (data: string): ValueRead => ({ data, doubts: [] });

function bare(value: string): string {
  return value.replace(/^["'“”«»]+|["'“”«»]+$/g, '').trim();
}

function parsed(type: string, text: string, zone: Name, doubts: readonly string[] = []): ValueRead | undefined {
  const code = typeCode(type);
  if (code === undefined) return undefined;
  try {
    return { data: printRdata(code, parseRdata(code, text, zone)), doubts };
  } catch (error) {
    if (error instanceof NameError || error instanceof TextError || error instanceof RangeError) return undefined;
    throw error;
  }
}

const STRINGS = /^"(?:[^"\\]|\\[^])*"(?:\s*"(?:[^"\\]|\\[^])*")*$/;

/** A text in quotes is one or more strings (RFC 1035 §5.1); without, it is one text, however many strings it takes. */
function readText(type: string, value: string, zone: Name): ValueRead | undefined {
  const straight = value.replace(/[“”„]/g, '"');
  if (STRINGS.test(straight)) return parsed(type, straight.replace(/"\s*"/g, '" "'), zone);
  const doubts: string[] = [];
  if (/^["']|["']$/.test(straight)) doubts.push('A quote stands on one side of it only.');
  else if (straight.includes('"')) doubts.push('Quotes stand within it.');
  if (/\s\([^()]*\)$|\s{2,}\S/.test(straight)) doubts.push('Does all of it belong to the text?');
  if (/^v=spf1\s.*\s[?~+-]?all\s+\S/i.test(straight)) doubts.push('More stands behind the end of its policy.');
  if (/&(?:quot|amp|lt|gt|#\d+);/.test(straight)) doubts.push('It holds marks of HTML.');
  if (/[\n\r]/.test(straight)) doubts.push('A line ends within it.');
  if (straight !== value) doubts.push('Its quotes are curly: they were typed by a word processor.');
  return parsed(type, quotedText(straight), zone, doubts);
}

function caa(value: string, zone: Name): ValueRead | undefined {
  const parts = /^(\d{1,3})\s+([a-z0-9]{1,30})\s+(\S[^]*)$/i.exec(value.replace(/[“”„]/g, '"'));
  if (!parts) return undefined;
  const rest = parts[3]!;
  const isQuoted = /^"(?:[^"\\]|\\[^])*"$/.test(rest);
  if (!isQuoted && /"/.test(rest)) return undefined;
  return parsed('CAA', `${parts[1]} ${parts[2]} ${isQuoted ? rest : quotedText(rest)}`, zone);
}

function named(type: string, value: string, zone: Name, beside: Beside, isFile: boolean): ValueRead | undefined {
  const doubts: string[] = [];
  const wanted = NUMBERS[type] ?? [];
  let words = bare(value)
    .replace(/,\s*(?:prio|pref)\p{L}*[.:=]?\s*(\d{1,5})$/iu, ' $1')
    .replace(/[[(](?:(?:prio|pref)\p{L}*[.:=]?\s*)?(\d{1,5})[\])]/giu, '$1')
    .split(/\s+/);
  // Some panels show the priority of mail after its target.
  if (wanted.length === 1 && words.length === 2 && isNumber(words[1]!) && !isNumber(words[0]!)) words = [words[1]!, words[0]!];
  if (type === 'SRV' && words.length === 4 && !isNumber(words[0]!) && words.slice(1).every(isNumber)) {
    words = [...words.slice(1), words[0]!];
    doubts.push('Its numbers stand behind the target: are they priority, weight and port?');
  }
  const target = words.at(-1)!;
  const numbers = words.slice(0, -1);
  if (numbers.length > wanted.length || !numbers.every(isNumber)) return undefined;
  const missing = wanted.slice(0, wanted.length - numbers.length).map((part) => beside[part]?.trim() ?? '');
  if (missing.some((one) => one !== '' && !isNumber(one))) return undefined;
  // Priority stands beside, or none does; of three numbers any may stand beside.
  const all = [...missing.filter((one) => one !== ''), ...numbers];
  if (all.length < wanted.length) {
    if (type !== 'MX') return { data: '', doubts: [`A ${type} record begins with ${wanted.length} numbers; here ${all.length} stand.`] };
    doubts.push('No priority stands there: 10 is taken.');
    all.unshift('10');
  }
  const name = targetName(target, isFile, zone, doubts);
  if (name === undefined) return undefined;
  if (type === 'ALIAS' || type === 'ANAME') return { data: name, doubts };
  const read = parsed(type, [...all, name].join(' '), zone, doubts);
  return read && !isFile && /^[^.@]+$/.test(name) ? { ...read, target: name.toLowerCase() } : read;
}

function targetName(text: string, isFile: boolean, zone: Name, doubts: string[]): string | undefined {
  if (text === '@' || text === '.') return text;
  if (!HOST.test(text) || isIpv4(text)) return undefined;
  if (isFile || text.endsWith('.')) return text;
  if (!text.includes('.')) return text;
  if (/^\d+$/.test(text.slice(text.lastIndexOf('.') + 1))) return undefined;
  // Escapes and labels that only a zone file can have are read as there.
  if (Name.tryParse(`${text}.`) === undefined) return undefined;
  if (/(?:^|\.)_[^.]*$/.test(text)) doubts.push(`Is ${text} a whole name, or one below ${zone.toString().replace(/\.$/, '')}?`);
  // A name that was cut off ends in what is no ending.
  else if (endingOf(text) === 'none') doubts.push(`Is ${text} whole? It ends like no domain.`);
  return `${text}.`;
}

function numbered(type: string, value: string, zone: Name, beside: Beside): ValueRead | undefined {
  const numbers = (NUMBERS[type] ?? []).map((part) => beside[part]?.trim() ?? '').filter(isNumber);
  return parsed(type, value, zone) ?? (numbers.length > 0 ? parsed(type, `${numbers.join(' ')} ${value}`, zone) : undefined);
}

function isNumber(text: string): boolean {
  return /^\d{1,5}$/.test(text);
}
