import { quotedText } from '../dns/quotedText';
import { isIpv4, isIpv6 } from '../dns/address';
import { PageLabel, labelOf } from './pageLabels';
import { PageLine, pageLines } from './pageLines';

/** Something that a host's page or mail gives. `sure`: it stood in fields or a table; else it was read out of a sentence, and is asked about. */
export interface PageFind {
  readonly kind: 'record' | 'nameserver' | 'address';
  /** Of a record: below the domain, `@` for the domain itself; of a nameserver its name; of an address nothing. */
  readonly owner: string;
  readonly type: string;
  /** In presentation form; of a nameserver its name with final dot, of an address the address. */
  readonly data: string;
  readonly sure: boolean;
  /** What was guessed about it, or what is to be looked at, in words. */
  readonly questions: readonly string[];
  readonly line: number;
}

export interface PageReading {
  readonly finds: readonly PageFind[];
  /** Lines that look as if they gave something, and could not be read. */
  readonly notUnderstood: readonly { readonly line: number; readonly text: string }[];
}

const TYPES = ['A', 'AAAA', 'CNAME', 'ALIAS', 'MX', 'TXT', 'CAA', 'NS', 'SRV'];
/** A domain that stands for the reader's own. */
const PLACEHOLDER =
  /^(?:(.+)\.)?(?:[{[<]*(?:your-?domain|my-?domain|ihre-?domain|votre-?domaine|su-?dominio|tuo-?dominio|uw-?domein)[>\]}]*(?:\.[a-z]{2,10})?|(?:example|domain)\.[a-z]{2,10})$/i;
/** What is kept of the finds and the lines not understood: nobody reads more. */
const MOST = 60;
const HOST = /^(?=.{1,253}\.?$)(?:[a-z0-9_](?:[a-z0-9_-]{0,61}[a-z0-9_])?\.)+[a-z](?:[a-z0-9-]{0,61}[a-z0-9])?\.?$/i;
/** What is in a line that looks as if it gave something. */
const HINTS = /\b(?:\d{1,3}\.){3}\d{1,3}\b|\b(?:CNAME|AAAA|TXT|MX|CAA)\b|\b(?:ns|dns)\d?\.[a-z0-9-]+\.[a-z]{2,}/i;

/**
 * What a host's page or welcome mail gives: nameservers, addresses and records, out of tables, fields, lists, prose and HTML, with labels
 * in several languages. `own`: domains of clients, absolute or not; a value that leads to one of them is questioned, since on such pages
 * it is nearly always the example's own name in the place of the host's.
 */
export function readHostPage(text: string, own: readonly string[] = []): PageReading {
  const reader = new Reader(
    pageLines(text),
    own.map((name) => name.toLowerCase().replace(/\.$/, '')),
  );
  return reader.read();
}

interface Fields {
  name?: string;
  type?: string;
  value?: string;
  priority?: string;
  line: number;
}

class Reader {
  private readonly finds: PageFind[] = [];
  private readonly missed: { line: number; text: string }[] = [];
  private columns: readonly (PageLabel | undefined)[] | undefined;
  private fields: Fields | undefined;
  /** A label that stood alone: the next line is its value. */
  private waiting: PageLabel | undefined;
  /** Below a heading that says nameservers, names stand in lines of their own. */
  private belowNameservers = false;

  constructor(
    private readonly lines: readonly PageLine[],
    private readonly own: readonly string[],
  ) {}

  read(): PageReading {
    for (const line of this.lines) if (!this.take(line)) this.leftOver(line);
    this.close();
    return { finds: distinct(this.finds).slice(0, MOST), notUnderstood: this.missed.slice(0, MOST) };
  }

  /** True where a line was read, or gives nothing. */
  private take(line: PageLine): boolean {
    const { cells } = line;
    if (cells.length === 0) {
      // A gap ends a record that is given field by field, and a table.
      this.close();
      this.columns = undefined;
      return true;
    }
    const labels = cells.map((cell) => labelOf(cell));
    if (cells.length > 1 && labels.filter((label) => label !== undefined).length >= 2 && labels.includes('value')) {
      this.close();
      this.columns = labels;
      return true;
    }
    if (this.columns && cells.length > 1 && this.row(line, this.columns)) return true;
    if (cells.length > 2 && this.bareRow(line)) return true;
    return this.zoneLine(line) || this.labelled(line) || this.listed(line) || this.sentence(line);
  }

  /** A row of a table with a head. */
  private row({ cells, line }: PageLine, columns: readonly (PageLabel | undefined)[]): boolean {
    const at = (label: PageLabel): string | undefined => {
      const index = columns.indexOf(label);
      return index < 0 ? undefined : cells[index];
    };
    const type = at('type') ?? this.typeIn(cells);
    const value = at('value');
    if (type === undefined || value === undefined) return false;
    return this.record({ line, type, value, ...optional('name', at('name')), ...optional('priority', at('priority')) }, true);
  }

  /** A row without a head: one cell is a type, one parses as its value. */
  private bareRow({ cells, line }: PageLine): boolean {
    const at = cells.findIndex((cell) => typeOf(cell) !== undefined);
    if (at < 0) return false;
    const type = typeOf(cells[at]!)!;
    const rest = cells.filter((_, index) => index !== at);
    const value = rest.findLastIndex((cell) => dataOf(type, cell, undefined) !== undefined && cell !== '@');
    if (value < 0) return false;
    const name = rest.find((cell, index) => index !== value && isOwner(cell));
    const priority = rest.find((cell, index) => index !== value && /^\d{1,5}$/.test(cell));
    return this.record({ line, type, value: rest[value]!, ...optional('name', name), ...optional('priority', type === 'MX' ? priority : undefined) }, true);
  }

  private typeIn(cells: readonly string[]): string | undefined {
    return cells.find((cell) => typeOf(cell) !== undefined);
  }

  /** As in a zone file, in one cell: `_hearth TXT hearth-site=9f2c`. A first word that may begin a sentence is no name here. */
  private zoneLine({ cells, line }: PageLine): boolean {
    const found = /^(@|\*|www|[\w-]*_[\w.-]*|[\w-]+(?:\.[\w-]+)+\.?)\s+(?:\d+\s+)?(?:IN\s+)?(A|AAAA|CNAME|MX|TXT|CAA|NS|SRV)\s+(\S.*)$/.exec(cells.at(-1)!);
    return found !== null && this.record({ line, name: found[1]!, type: found[2]!, value: found[3]! }, true);
  }

  /** `Label: value`, a label with its value in the cell beside it, or a label alone with the value below. */
  private labelled({ cells, line }: PageLine): boolean {
    const [first, ...rest] = cells as [string, ...string[]];
    if (this.waiting) {
      const label = this.waiting;
      this.waiting = undefined;
      if (labelOf(first) === undefined && this.field(label, cells.join(' '), line)) return true;
    }
    const pair = /^([^:=]{1,40})\s*[:=]\s*(.*)$/.exec(first);
    const label = labelOf(rest.length > 0 ? first : (pair?.[1] ?? first));
    const value = rest.length > 0 ? rest.join(' ') : (pair?.[2] ?? '').trim();
    if (label === undefined) return false;
    if (label === 'nameserver' && value === '') {
      this.belowNameservers = true;
      return true;
    }
    if (value === '') {
      // A title such as "Address" says nothing by itself where the next line is no value.
      this.waiting = label;
      return true;
    }
    return this.field(label, value, line);
  }

  private field(label: PageLabel, value: string, line: number): boolean {
    switch (label) {
      case 'nameserver':
        return this.nameservers(value, line, true);
      case 'address':
      case 'ipv6':
        return this.addresses(value, line, true);
      case 'ttl':
        return true;
      default: {
        // The same label again begins another record.
        if (this.fields?.[label] !== undefined) this.close();
        if (label === 'type' && typeOf(value) === undefined) return false;
        this.fields = { ...(this.fields ?? { line }), [label]: value };
        return true;
      }
    }
  }

  /** A record that was given field by field is whole, or is not understood. */
  private close(): void {
    const { fields } = this;
    this.fields = undefined;
    this.waiting = undefined;
    if (!fields) return;
    const { type, value, line } = fields;
    if (type !== undefined && value !== undefined && this.record({ ...fields, type, value }, true)) return;
    const given = [fields.name, type, value].filter((one) => one !== undefined);
    if (given.length > 1) this.missed.push({ line, text: given.join(' ').slice(0, 200) });
  }

  /** Names below a heading that says nameservers, or addresses that stand alone. */
  private listed({ cells, line }: PageLine): boolean {
    const words = cells
      .join(' ')
      .split(/[\s,;]+/)
      .filter(Boolean);
    if (this.belowNameservers && words.every((word) => HOST.test(word) || isIpv4(bracketed(word)) || isIpv6(bracketed(word))))
      return this.nameservers(words.join(' '), line, true);
    this.belowNameservers = false;
    if (words.length > 0 && words.every((word) => /^(?:ns|dns)[a-z0-9-]*\./i.test(word) && HOST.test(word)))
      return this.nameservers(words.join(' '), line, true);
    return false;
  }

  /** A record, nameservers or an address in a sentence: it is read, and asked about. */
  private sentence({ cells, line }: PageLine): boolean {
    const text = cells.join(' ');
    const type =
      /(?<![\w-])(AAAA|CNAME|ALIAS|TXT|MX|A)(?:[\s-]*(?:resource )?(?:record|entry|eintrag|enregistrement|registro))/i.exec(text)?.[1] ??
      /(?:record|enregistrement|registro|eintrag)\s+(?:of )?(?:type |tipo |de type |de tipo |vom typ )?["“«]?(AAAA|CNAME|TXT|MX|A)\b/i.exec(text)?.[1];
    if (type !== undefined) {
      const found = this.fromSentence(cells, typeOf(type)!, line);
      if (found) return true;
    }
    if (/name ?servers?|naamservers?|serveurs? (?:de noms|dns)|servidores? (?:de nombres|dns)|server dns/i.test(text) && this.nameservers(text, line, false))
      return true;
    const addresses = wordsIn(text).filter((word) => isIpv4(word) || isIpv6(word));
    if (addresses.length > 0 && /\bip\b|ipv[46]|address|adresse|dirección|indirizzo|adres\b|server|points?|zeig|pointe|apunt/i.test(text))
      return this.addresses(addresses.join(' '), line, false);
    return false;
  }

  private fromSentence(cells: readonly string[], type: string, line: number): boolean {
    // Quotes belong to one cell: `"A | TXT record ns1"` quotes nothing that stands there.
    const quoted = cells.flatMap((cell) => [...cell.matchAll(/["“”«»`']([^"“”«»`']{1,400})["“”«»`']/g)].map((match) => match[1]!.trim()));
    const words = cells.flatMap(wordsIn);
    const candidates = [...quoted, ...words].filter((word) => word !== type);
    const values = [...new Set(candidates.filter((word) => (type === 'TXT' ? isToken(word) : dataOf(type, word, undefined) !== undefined)))];
    const name = candidates.find((word) => /^(?:@|www|_[a-z0-9-]+)$/i.test(word));
    // Two values in one sentence: which of them is meant, or both, is not for us to say, but for addresses.
    if (values.length === 0 || (values.length > 1 && type !== 'A' && type !== 'AAAA')) return false;
    const owner = name ?? (type === 'CNAME' ? undefined : '@');
    if (owner === undefined) return false;
    let any = false;
    for (const value of values)
      any = this.record({ line, name: owner, type, value }, false, name === undefined ? ['No name stands there: the domain itself is taken.'] : []) || any;
    return any;
  }

  private record(fields: Required<Pick<Fields, 'type' | 'value' | 'line'>> & Fields, sure: boolean, questions: readonly string[] = []): boolean {
    const type = typeOf(fields.type);
    const data = type && dataOf(type, fields.value, fields.priority);
    if (!type || data === undefined) return false;
    const asked = [...questions];
    const owner = this.ownerOf(fields.name, asked);
    if (owner === undefined) return false;
    if (type === 'NS' && owner === '@') return this.nameservers(fields.value, fields.line, sure);
    const target = /(?:^|\s)([a-z0-9_.-]+)\.$/i.exec(data)?.[1]?.toLowerCase();
    if (target && ['CNAME', 'ALIAS', 'MX'].includes(type) && this.own.some((name) => target === name || target.endsWith(`.${name}`)))
      asked.push(`It leads to ${target}, which is a client’s own name: the host’s is meant?`);
    this.finds.push({
      kind: 'record',
      owner,
      type: type === 'ALIAS' ? 'CNAME' : type,
      data,
      sure: sure && asked.length === 0,
      questions: asked,
      line: fields.line,
    });
    return true;
  }

  /** Below the domain; undefined where it is no name. Pages show an example's own domain, or words for it. */
  private ownerOf(name: string | undefined, asked: string[]): string | undefined {
    const text = (name ?? '').replace(/\.$/, '').trim();
    if (text === '' || text === '@' || /^(?:\(?(?:root|apex|empty|blank|leer|vide|vacío|vuoto|leeg|none|domain itself|naked domain)\)?)$/i.test(text))
      return '@';
    const lower = text.toLowerCase();
    const own = this.own.find((one) => lower === one || lower.endsWith(`.${one}`));
    if (own) return lower === own ? '@' : lower.slice(0, -own.length - 1);
    const placeholder = PLACEHOLDER.exec(text);
    if (placeholder) return placeholder[1] ?? '@';
    if (!isOwner(text)) return undefined;
    if (text.split('.').length > 2) asked.push(`Is ${text} a name below the domain, or a whole one?`);
    return text;
  }

  private nameservers(text: string, line: number, sure: boolean): boolean {
    const names = wordsIn(text).filter((word) => HOST.test(word) && !isIpv4(word));
    for (const name of names) {
      const whole = `${name.replace(/\.$/, '').toLowerCase()}.`;
      this.finds.push({ kind: 'nameserver', owner: whole, type: 'NS', data: whole, sure, questions: [], line });
    }
    return names.length > 0;
  }

  private addresses(text: string, line: number, sure: boolean): boolean {
    const found = wordsIn(text).filter((word) => isIpv4(word) || isIpv6(word));
    for (const data of found) this.finds.push({ kind: 'address', owner: '@', type: isIpv4(data) ? 'A' : 'AAAA', data, sure, questions: [], line });
    return found.length > 0;
  }

  private leftOver({ cells, line }: PageLine): void {
    const text = cells.join(' ');
    if (HINTS.test(text)) this.missed.push({ line, text: text.slice(0, 200) });
  }
}

function optional<K extends string>(key: K, value: string | undefined): { [P in K]?: string } {
  return (value === undefined || value === '' ? {} : { [key]: value }) as { [P in K]?: string };
}

/** A type by its mnemonic, with the words that pages put beside it. */
function typeOf(text: string): string | undefined {
  const bare = text
    .replace(/[\s-]*(?:record|entry|eintrag|enregistrement|registro)$/i, '')
    .trim()
    .toUpperCase();
  return TYPES.find((type) => type === bare);
}

function isOwner(text: string): boolean {
  return text === '@' || /^(?=.{1,200}$)(?:\*|[a-z0-9_](?:[a-z0-9_-]{0,61}[a-z0-9_])?)(?:\.[a-z0-9_](?:[a-z0-9_-]{0,61}[a-z0-9_])?)*$/i.test(text);
}

/** A value in presentation form; undefined where it is none of this type. */
function dataOf(type: string, text: string, priority: string | undefined): string | undefined {
  const value = text
    .trim()
    .replace(/^["“«`']+|["”»`']+$/g, '')
    .trim();
  const host = (name: string): string | undefined => (HOST.test(name) && !isIpv4(name) ? `${name.replace(/\.$/, '').toLowerCase()}.` : undefined);
  switch (type) {
    case 'A':
      return isIpv4(value) ? value : undefined;
    case 'AAAA':
      return isIpv6(value) ? value.toLowerCase() : undefined;
    case 'CNAME':
    case 'ALIAS':
    case 'NS':
      return host(value);
    case 'MX': {
      const parts = value.split(/\s+/);
      const [number, name] = parts.length === 2 ? parts : [priority, parts[0]];
      const target = name && host(name);
      return target && number !== undefined && /^\d{1,5}$/.test(number) ? `${number} ${target}` : undefined;
    }
    case 'TXT':
      return value === '' ? undefined : quotedText(value);
    case 'CAA': {
      const parts = /^(\d{1,3})\s+(issue|issuewild|iodef)\s+"?([^"]+)"?$/.exec(value);
      return parts ? `${parts[1]!} ${parts[2]!} "${parts[3]!}"` : undefined;
    }
    case 'SRV': {
      const parts = /^(\d{1,5})\s+(\d{1,5})\s+(\d{1,5})\s+(\S+)$/.exec(value);
      const target = parts && host(parts[4]!);
      return target ? `${parts[1]!} ${parts[2]!} ${parts[3]!} ${target}` : undefined;
    }
    default:
      return undefined;
  }
}

/** A text that is a token and no word of the sentence. */
function isToken(word: string): boolean {
  return /[=\d]/.test(word) && word.length >= 6 && !isIpv4(word) && !HOST.test(word);
}

function wordsIn(text: string): string[] {
  return text
    .split(/[\s,;]+/)
    .map((word) => bracketed(word.replace(/^["“«`'(<[]+/, '').replace(/["”»`')>\].:!?]+$/, '')))
    .filter((word) => word !== '');
}

function bracketed(word: string): string {
  return word.replace(/^[([]|[)\]]$/g, '');
}

/** Each once, in the order of the lines; a name with two aliases is nobody's to choose between. */
function distinct(finds: readonly PageFind[]): PageFind[] {
  const byKey = new Map<string, PageFind>();
  for (const find of finds) {
    const key = `${find.kind} ${find.owner} ${find.type} ${find.data}`.toLowerCase();
    const known = byKey.get(key);
    if (!known || (find.sure && !known.sure)) byKey.set(key, find);
  }
  const all = [...byKey.values()].sort((a, b) => a.line - b.line);
  return all.map((find) => {
    const others = find.type === 'CNAME' ? all.filter((one) => one !== find && one.kind === 'record' && one.type === 'CNAME' && one.owner === find.owner) : [];
    return others.length === 0
      ? find
      : { ...find, sure: false, questions: [...find.questions, `${find.owner} can have one alias: is it this, or ${others[0]!.data}?`] };
  });
}
