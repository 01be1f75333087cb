import { aboutOf } from './about';
import { REPLACE, readClauses, tokensOf } from './clauses';
import { RawRecord, Subject } from './find';
import { Line } from './lines';
import { Around } from './formRead';
import { isAddressWord, isHostWord } from './hostWord';
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

/** Words for the nameservers of a domain. */
export const SERVERS = /name ?servers?|naamservers?|serveurs? (?:de noms|dns)|servidores? (?:de nombres|dns)|server (?:dei nomi|dns)|server dei nomi/i;
/** `www` is to have the same value. */
const SAME =
  /\bwww\b[^.]{0,40}\b(?:same|too|as well|likewise|also|ebenso|auch|genauso|gleich\w*|egalement|aussi|meme|tambien|mismo|igual|anche|stess[oa]|ook|hetzelfde|idem)\b|\b(?:same|also|likewise|ebenso|auch|egalement|aussi|meme|tambien|mismo|anche|stess[oa]|ook|hetzelfde)\b[^.]{0,40}\bwww\b|\b(?:with and without|mit und ohne|avec et sans|con y sin|con e senza|met en zonder) www\b/;
const ADDRESS =
  /\bip\b|\bipv[46]\b|address|adress|direccion|indirizz|\bserver\b|serveur|servidor|point|zeig|apunt|punt|wijst|\banswers? (?:at|on)\b|\breach(?:ed|able)\b|\bis (?:now )?(?:live )?at\b|\bhosted (?:at|on)\b|liegt (?:auf|unter)|erreichbar|accessible|disponible en|raggiungibile|bereikbaar|se encuentra en|se trouve|\bmoves? to\b|\bnew one\b/;

/**
 * What sentences give, over ends of lines too: records, nameservers, addresses. All of it is asked about: a sentence can say anything.
 *
 *     Please set an A record for your domain to 203.0.113.10, www the same.   // @ A and www A
 *     Nameservers: ns1 and ns2 of hearth.example                               // two names
 */
export function readSentences(lines: readonly Line[], { subject }: Pick<Around, 'subject'>): SentencesRead {
  const records: RawRecord[] = [];
  const named: Named[] = [];
  const read = new Set<number>();
  let before: readonly string[] = [];
  let areServers = false;
  let ofList = DOUBT;
  let isAfterList = false;
  for (const sentence of sentencesIn(lines)) {
    const server = areServers ? listedServer(sentence) : undefined;
    if (server !== undefined) {
      named.push({ kind: 'nameserver', text: server, line: sentence.lines[0]!, doubt: ofList });
      isAfterList = true;
      for (const line of sentence.lines) read.add(line);
      continue;
    }
    // "and these are the ones to enter:" goes on with what was listed.
    const plain = plainWord(sentence.text);
    areServers = sentence.text.endsWith(':') && (SERVERS.test(plain) || isAfterList);
    ofList = FORBIDS.test(plain) ? NOT_DOUBT : subject.as === 'new' && aboutOf(sentence.text) === 'old' ? OLD_DOUBT : DOUBT;
    isAfterList = false;
    const found = readOne(sentence, { subject }, before);
    before = found.addresses;
    records.push(...found.records);
    named.push(...found.named);
    if (found.records.length + found.named.length > 0) for (const line of sentence.lines) read.add(line);
  }
  return { records, named, read };
}

/** The server of a line that is nothing else, below "change the nameservers to:". */
function listedServer({ text, lines }: Sentence): string | undefined {
  const word = withoutBullet(text);
  return lines.length === 1 && isHostWord(word) ? word : undefined;
}

/** A list goes on: what stands above ends with a colon, or is a host alone in its line. */
function isListed(open: string, above: Sentence | undefined): boolean {
  if (open.trim() !== '') return open.trim().endsWith(':');
  return above !== undefined && (above.text.endsWith(':') || isHostWord(withoutBullet(above.text)));
}

const withoutBullet = (text: string): string => text.trim().replace(/^(?:[-*•·]|\d{1,2}[.)])\s+/, '');

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
    // A host alone in its line is no part of the prose around it.
    if (isListed(text, sentences.at(-1)) && isHostWord(withoutBullet(raw))) {
      close();
      sentences.push({ text: raw.trim(), lines: [line] });
      continue;
    }
    // A field begins anew, and so does a point of a list.
    if (text !== '' && /^\s*(?:\p{Lu}[^:.!?]{1,40}:\s+\S|[-*•·]\s|\d{1,2}[.)]\s)/u.test(raw)) close();
    for (const part of raw.slice(0, LONGEST * 4).split(/(?<=[.!?])\s+(?=\p{Lu})/u)) {
      if (text !== '' && (/:$/.test(text) || (/[.!?]$/.test(text) && /^\s*\p{Lu}/u.test(part)))) close();
      text = `${text} ${part}`;
      if (of.at(-1) !== line) of.push(line);
      if (text.length > LONGEST) close();
    }
  }
  close();
  return sentences;
}

/** What a sentence gives, and what the next one may be about. */
interface Said extends Omit<SentencesRead, 'read'> {
  readonly addresses: readonly string[];
}

const DOUBT = 'It was read out of a sentence.';
const OLD_DOUBT = 'The sentence names it as what is there now.';
/** Words for what an address may be of, beside the website. */
const OTHER_SERVICE =
  /\b(?:data ?bases?|datenbank\w*|base de donnees|base de datos|sql|mysql|postgres\w*|smtp|imap|pop3?|mail\w*|e-mail\w*|correo|posta|ftp|sftp|ssh|vpn|backup\w*|sicherung\w*|staging|test\w*|internal|intern\w*|monitoring|office|buro|bureau|oficina|ufficio|kantoor)\b/;
const WEBSITE = /\b(?:web\w*|site|website|seite|homepage|sitio|sito|pagina)\b/;
const ALIAS_DOUBT = 'The sentence names an alias for it as well.';
const OTHER_DOUBT = 'It may be of something else than the website.';
const NOT_DOUBT = 'The sentence says that it is not to be used.';

/** What is there now, in brackets behind what is wanted: "(ahora apunta a 192.0.2.1)". */
const NOW_IN_BRACKETS =
  /\([^()]{0,20}\b(?:now|currently|today|was|jetzt|derzeit|aktuell|bisher|war|maintenant|actuellement|était|ahora|actualmente|antes|adesso|attualmente|ora|nu|momenteel|was|old|alt|ancien\w*|antes|vecchi\w*|oude?)\b[^()]{0,200}\)/giu;
/** Something that is not to be done. */
export const FORBIDS =
  /\b(?:do not|don.?t|never|must not|avoid)\s+(?:us\w+|set|point|add|enter|chang\w+|touch|delet\w+|remov\w+)\b|\bnicht\s+(?:\S+\s+)?(?:verwenden|benutzen|nutzen|eintragen|andern|loschen)\b|\bne\s+\S+\s+pas\b|\bn.(?:utilis|ajout|effac)\S+\s+pas\b|\bno\s+(?:us[eao]\w*|utili\w+|cambi\w+|modifi\w+|borr\w+)\b|\bnon\s+(?:usa\w+|utilizza\w+|modifica\w+|cancella\w+)\b|\bniet\s+(?:\S+\s+)?(?:gebruik\w*|wijzig\w*|verwijder\w*|aanpass\w*)\b|\bgebruik\b.{0,60}\bniet\b/;

function readOne({ text: whole, lines }: Sentence, { subject }: Pick<Around, 'subject'>, before: readonly string[]): Said {
  const [line, lastLine] = [lines[0]!, lines.at(-1)!];
  const past = subject.as === 'new' ? (whole.match(NOW_IN_BRACKETS) ?? []).flatMap(wordsIn).filter(isAddressWord) : [];
  const text = subject.as === 'new' ? whole.replace(NOW_IN_BRACKETS, ' ') : whole;
  const parts = text
    .slice(0, LONGEST)
    .split(/[,;]|\.\s/)
    .filter((part) => FORBIDS.test(plainWord(part)));
  // "The database server is 192.0.2.7" says nothing of the website.
  const services = text.split(/[,;]|\.\s|\s(?:and|und|et|y|ed?|en)\s/).filter((part) => OTHER_SERVICE.test(plainWord(part)) && !WEBSITE.test(plainWord(part)));
  const isOther = (value: string): boolean => services.some((part) => part.includes(value));
  const isForbidden = (value: string): boolean => parts.some((part) => part.includes(value));
  const isOld = subject.as === 'new' && aboutOf(text) === 'old';
  const plain = plainWord(text.slice(0, LONGEST));
  const named = SERVERS.test(plain) ? serversIn(wordsIn(wantedPart(text, plain, subject.as)), line, subject.zone) : [];
  const servers = new Set(named.map((one) => one.text.toLowerCase()));
  const tokens = tokensOf(text, subject).filter((token) => token.is !== 'host' || !servers.has(token.text.toLowerCase()));
  const { records, addresses, names } = readClauses(tokens, subject.as);
  const isExample = aboutOf(text) === 'example';
  const place = {
    ...{ line, lastLine, form: 'sentence' as const, doubts: [DOUBT] },
    ...(isExample && { out: 'It stands in an example.' }),
  };
  const all = records.map((record): RawRecord => ({ ...record, ...place, ...(isForbidden(record.value) && { out: NOT_DOUBT }) }));
  // What is an alias by the same sentence has no address of its own.
  const aliases = new Set(all.flatMap(({ owner, type }) => (type === 'CNAME' ? [owner] : [])));
  for (const [at, record] of all.entries())
    if ((record.type === 'A' || record.type === 'AAAA') && aliases.has(record.owner)) all[at] = { ...record, doubts: [...record.doubts, ALIAS_DOUBT] };
  const wasThere = past.map((value): RawRecord => ({ owner: all[0]?.owner ?? '@', type: value.includes(':') ? 'AAAA' : 'A', value, ...place, out: OLD_DOUBT }));
  // What a sentence says of the domain, it says of "www the same"; and of names that are named behind an address of the sentence before.
  const leads = all.filter(({ type, out }) => LEADING.has(type) && out === undefined);
  const same =
    SAME.test(lettersOf(text)) && leads.length > 0
      ? ['@', 'www'].flatMap((owner) =>
          leads.filter((lead) => !leads.some((one) => one.owner === owner && one.type === lead.type)).map((lead) => ({ ...lead, owner })),
        )
      : [];
  const ofEach = (owners: readonly string[], values: readonly string[]): RawRecord[] =>
    owners.flatMap((owner) => values.map((value): RawRecord => ({ owner, type: value.includes(':') ? 'AAAA' : 'A', value, ...place })));
  const later = records.length === 0 && addresses.length === 0 && named.length === 0 ? ofEach(names, before) : [];
  const isSaid = ADDRESS.test(plain) || /\(ipv[46]\)/i.test(text) || tokens[0]?.is === 'address';
  const given = isSaid && named.length === 0 ? addresses : [];
  const ofNames = ofEach(names, given);
  return {
    records: [...all, ...wasThere, ...same, ...later, ...ofNames],
    named: [
      ...named.map((one) => ({ ...one, doubt: isForbidden(one.text) ? NOT_DOUBT : isOld ? OLD_DOUBT : DOUBT })),
      ...given
        .filter((value) => !ofNames.some((one) => one.value === value))
        .map((address): Named => ({ kind: 'address', text: address, line, doubt: isForbidden(address) ? NOT_DOUBT : isOther(address) ? OTHER_DOUBT : DOUBT })),
    ],
    addresses: given,
  };
}

/** Small letters without accents, brackets and all. */
const lettersOf = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** Of "replace … by …" the part that is asked for. */
function wantedPart(text: string, plain: string, as: Subject['as']): string {
  if (!REPLACE.test(plain)) return text;
  const from = text.search(REPLACE);
  const by = from < 0 ? undefined : /\s(?:by|with|to|durch|par|por|con|door|naar)\s/i.exec(text.slice(from));
  if (!by) return text;
  return as === 'new' ? text.slice(from + by.index + by[0].length) : text.slice(0, from + by.index);
}

/** Types of what may be the same for `www`. */
const LEADING: ReadonlySet<string> = new Set(['A', 'AAAA', 'CNAME', 'ALIAS', 'ANAME']);

/** Names of servers: whole ones, and series such as "ns1 and ns2 of hearth.example". */
function serversIn(words: readonly string[], line: number, zone: string | undefined): Named[] {
  const doubt = DOUBT;
  const apex = zone?.replace(/\.$/, '').toLowerCase();
  const isOwn = (word: string): boolean =>
    apex !== undefined && (word.toLowerCase() === apex || (word.toLowerCase().endsWith(`.${apex}`) && !/^(?:ns|dns)/i.test(word)));
  const named: Named[] = [];
  const short: string[] = [];
  for (const word of words) {
    if (/^(?:ns|dns)\d{1,2}$/i.test(word)) short.push(word);
    else if (isHostWord(word) && !isOwn(word)) {
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
