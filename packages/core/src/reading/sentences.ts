import { isIpv4, isIpv6 } from '../dns/address';
import { RawRecord } from './find';
import { Line } from './lines';
import { typeWord } from './typeWord';
import { readValue } from './value';
import { Around } from './formRead';
import { plainWord } from './labels';

/** A nameserver or an address that a sentence names. */
export interface Named {
  readonly kind: 'nameserver' | 'address';
  readonly text: string;
  readonly line: number;
  readonly doubt: string | undefined;
}

export interface SentencesRead {
  readonly records: readonly RawRecord[];
  readonly named: readonly Named[];
  readonly read: ReadonlySet<number>;
}

const TYPE =
  /(?<![\p{L}\w-])(AAAA|CNAME|ALIAS|ANAME|TXT|MX|CAA|SRV|A|NS)(?=[\s-]*(?:\([^)]*\)\s*)?(?:resource )?(?:[Rr]ecords?|RECORDS?|[Ee]ntry|[Ee]ntries|[Ee]intr\p{L}+|[Ee]nregistrements?|[Rr]egistros?|[Rr]egel|[Tt]ype)(?![\p{L}\w]))|(?:[Rr]ecords?|[Ee]nregistrements?|[Rr]egistros?|[Ee]intrag|[Ee]ntry|[Tt]yp|[Tt]ipo|[Tt]ype)\s+(?:of |de |di |van |vom )?(?:type |typ |tipo )?["“«]?(AAAA|CNAME|ALIAS|TXT|MX|CAA|A)(?![\p{L}\w-])/gu;
const SERVERS = /name ?servers?|naamservers?|serveurs? (?:de noms|dns)|servidores? (?:de nombres|dns)|server (?:dei nomi|dns)|server dei nomi/i;
const HOST = /^(?=.{4,253}\.?$)(?:[a-z0-9_](?:[a-z0-9_-]{0,61}[a-z0-9_])?\.)+[a-z](?:[a-z0-9-]{0,61}[a-z0-9])?\.?$/i;
/** `www` is to have the same value. */
const SAME =
  /\bwww\b[^.]{0,40}\b(?:same|too|as well|likewise|also|ebenso|auch|genauso|gleich\w*|egalement|aussi|meme|tambien|mismo|igual|anche|stess[oa]|ook|hetzelfde|idem)\b|\b(?:same|also|likewise|ebenso|auch|egalement|aussi|meme|tambien|mismo|anche|stess[oa]|ook|hetzelfde)\b[^.]{0,40}\bwww\b|\b(?:with and without|mit und ohne|avec et sans|con y sin|con e senza|met en zonder) www\b/;
const ADDRESS = /\bip\b|\bipv[46]\b|address|adress|direccion|indirizz|\bserver\b|serveur|servidor|point|zeig|apunt|punt|wijst/;

/**
 * What sentences give, over ends of lines too: records, nameservers, addresses. All of it is asked about: a sentence can say anything.
 *
 *     Please set an A record for your domain to 203.0.113.10, www the same.   // @ A and www A
 *     Nameservers: ns1 and ns2 of hearth.example                               // two names
 */
export function readSentences(lines: readonly Line[], { subject, zone }: Around): SentencesRead {
  const records: RawRecord[] = [];
  const named: Named[] = [];
  const read = new Set<number>();
  for (const sentence of sentencesIn(lines)) {
    const found = readOne(sentence, { subject, zone });
    records.push(...found.records);
    named.push(...found.named);
    if (found.records.length + found.named.length > 0) for (const line of sentence.lines) read.add(line);
  }
  return { records, named, read };
}

interface Sentence {
  readonly text: string;
  readonly lines: readonly number[];
}

/** Characters of one sentence that are looked at. */
const LONGEST = 1200;

function sentencesIn(lines: readonly Line[]): Sentence[] {
  const sentences: Sentence[] = [];
  let text = '';
  let of: number[] = [];
  const close = (): void => {
    if (text.trim() !== '') sentences.push({ text: text.trim().slice(0, LONGEST), lines: of });
    [text, of] = ['', []];
  };
  for (const { text: raw, line } of lines) {
    // A dot ends a sentence where a blank and a capital letter follow.
    for (const part of raw.slice(0, LONGEST * 4).split(/(?<=[.!?])\s+(?=\p{Lu})/u)) {
      if (text !== '' && /[.!?]$/.test(text) && /^\s*\p{Lu}/u.test(part)) close();
      text = `${text} ${part}`;
      if (of.at(-1) !== line) of.push(line);
      if (text.length > LONGEST) close();
    }
  }
  close();
  return sentences;
}

function readOne({ text, lines }: Sentence, { subject, zone }: Pick<Around, 'subject' | 'zone'>): Omit<SentencesRead, 'read'> {
  const [line, lastLine] = [lines[0]!, lines.at(-1)!];
  const quoted = [...text.matchAll(/["“”„«»`']([^"“”„«»`']{1,400})["“”«»`']/g)].map((match) => match[1]!.trim());
  const words = wordsIn(text);
  const plain = plainWord(text.slice(0, LONGEST));
  if (SERVERS.test(plain)) {
    const named = serversIn(words, line);
    if (named.length > 0) return { records: [], named };
  }
  const types = [...new Set([...text.matchAll(TYPE)].map((match) => typeWord(match[1] ?? match[2]!)!))];
  const records: RawRecord[] = [];
  for (const type of types) {
    const values = [...new Set([...quoted, ...words].filter((word) => word !== type && isValueOf(type, word, zone, subject.zone)))];
    const owners = ownersIn([...quoted, ...words], values, subject.zone);
    // Which of several values is meant is nobody's to choose, but addresses stand together.
    if (values.length === 0 || (values.length > 1 && type !== 'A' && type !== 'AAAA')) continue;
    const first = owners[0] ?? (type === 'CNAME' || type === 'ALIAS' ? (/\bwww\b/.test(plain) ? 'www' : undefined) : '@');
    if (first === undefined) continue;
    const all = new Set(SAME.test(plain) ? ['@', 'www', ...owners] : [first, ...owners]);
    for (const owner of all)
      for (const value of values)
        records.push({
          owner,
          type,
          value,
          priority: type === 'MX' ? /\b(?:prio\w*|preference|pref)\b\D{0,12}(\d{1,5})/i.exec(text)?.[1] : undefined,
          line,
          lastLine,
          form: 'sentence',
          doubts: ['It was read out of a sentence.'],
        });
  }
  if (records.length > 0) return { records, named: [] };
  const addresses = words.filter((word) => isIpv4(word) || isIpv6(word));
  if (addresses.length > 0 && ADDRESS.test(plain))
    return { records: [], named: addresses.map((address): Named => ({ kind: 'address', text: address, line, doubt: 'It was read out of a sentence.' })) };
  return { records: [], named: [] };
}

function ownersIn(words: readonly string[], values: readonly string[], zone: string | undefined): string[] {
  const apex = zone?.replace(/\.$/, '').toLowerCase();
  const found = new Set<string>();
  for (const word of words) {
    const lower = word.toLowerCase().replace(/\.$/, '');
    if (values.includes(word)) continue;
    if (word === '@' || lower === 'www' || /^_[a-z0-9-]+(?:\._[a-z0-9-]+)*$/.test(lower)) found.add(lower);
    else if (apex !== undefined && lower === apex) found.add('@');
    else if (apex !== undefined && lower.endsWith(`.${apex}`)) found.add(lower.slice(0, -apex.length - 1));
  }
  // Of "www" in "with and without www" the domain itself is meant as well.
  return [...found];
}

function isValueOf(type: string, word: string, zone: Parameters<typeof readValue>[2], domain: string | undefined): boolean {
  if (type === 'A') return isIpv4(word);
  if (type === 'AAAA') return isIpv6(word);
  if (type === 'TXT')
    return (
      /[=\d]/.test(word) &&
      (!/\s/.test(word) || /^v=/.test(word)) &&
      word.length >= 6 &&
      !isIpv4(word) &&
      !isIpv6(word) &&
      !HOST.test(word) &&
      !/^https?:/i.test(word)
    );
  if (!HOST.test(word)) return false;
  const apex = domain?.replace(/\.$/, '').toLowerCase();
  const lower = word.toLowerCase().replace(/\.$/, '');
  if (apex !== undefined && (lower === apex || lower.endsWith(`.${apex}`))) return false;
  return readValue(type, word, zone, { priority: '10' }) !== undefined;
}

/** Names of servers: whole ones, and series such as "ns1 and ns2 of hearth.example". */
function serversIn(words: readonly string[], line: number): Named[] {
  const doubt = 'It was read out of a sentence.';
  const named: Named[] = [];
  const short: string[] = [];
  for (const word of words) {
    if (/^(?:ns|dns)\d{1,2}$/i.test(word)) short.push(word);
    else if (HOST.test(word) && !isIpv4(word)) {
      if (short.length > 0 && !/^(?:ns|dns)\d*[.-]/i.test(word))
        for (const first of short.splice(0)) named.push({ kind: 'nameserver', text: `${first}.${word}`, line, doubt });
      else {
        // "ns1 and ns2.hearth.example" says the ending once.
        const ending = word.slice(word.indexOf('.') + 1);
        for (const first of short.splice(0)) named.push({ kind: 'nameserver', text: `${first}.${ending}`, line, doubt });
        named.push({ kind: 'nameserver', text: word, line, doubt });
      }
    }
  }
  return named;
}

export function wordsIn(text: string): string[] {
  return text
    .split(/[\s,;]+/)
    .map((word) => word.replace(/^["“”„«»`'(<[{]+/, '').replace(/["“”»`')>\]}:!?.]+$/, ''))
    .filter((word) => word !== '');
}
