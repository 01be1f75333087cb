import { isAddressWord, isHostWord } from './hostWord';
import { aboutOf, contraryWords, isContrary } from './about';
import { RawRecord, Subject } from './find';
import { plainWord } from './labels';
import { CATALOGUE_NAMES } from '../survey/catalogue';
import { typeWord } from './typeWord';

/** What a word of a sentence is to its records. */
export type Token =
  /** `isVague`: a word for the domain, which may be no more than a manner of speaking. */
  | { readonly is: 'name'; readonly owner: string; readonly isVague?: boolean }
  | { readonly is: 'address'; readonly text: string }
  | { readonly is: 'host'; readonly text: string }
  | { readonly is: 'text'; readonly text: string }
  | { readonly is: 'type'; readonly type: string }
  | { readonly is: 'priority'; readonly number: string }
  /** What follows is where something leads: "to", "auf", "→". */
  | { readonly is: 'to' }
  /** What follows is what it is for: "for", "de", "van". */
  | { readonly is: 'for' }
  | { readonly is: 'old' }
  | { readonly is: 'new' }
  | { readonly is: 'break' };

const TYPE_WORDS = 'resource |dns-?';
const RECORD = '(?:records?|entr(?:y|ies)|eintr(?:ag|ags|age|agen|äge|ägen)|enregistrements?|registros?|regels?|regel|type|typ|tipo|voci|voce)';
/** "A record", "CNAME-Eintrag", "registro A", "enregistrement de type TXT". */
const TYPE = new RegExp(
  `(?<![\\p{L}\\w.-])(AAAA|CNAME|ALIAS|ANAME|TXT|MX|CAA|SRV|A|NS)(?=[\\s-]*(?:\\([^)]*\\)\\s*)?(?:${TYPE_WORDS})?${RECORD}(?![\\p{L}\\w]))|${RECORD}\\s+(?:of |de |di |van |vom )?(?:type |typ |tipo )?["“«]?(AAAA|CNAME|ALIAS|TXT|MX|CAA|A)(?![\\p{L}\\w.-])|(?<![\\p{L}\\w.-])(AAAA|CNAME|MX|TXT)(?![\\p{L}\\w.-])`,
  'giu',
);
/** A type that stands alone in capitals, before a name or an address: "set A @ 203.0.113.1". */
const BARE_TYPE = /(?<![\p{L}\w.-])(AAAA|A)(?=\s+(?:@|www\b|\d{1,3}\.\d|[0-9a-fA-F]{1,4}:))/gu;
const TO =
  /^(?:to|at|as|is|be|auf|als|ist|lautet|nach|zu|zum|zur|vers|est|comme|sur|a|à|al|como|es|hacia|naar|is|als|op|wijst|verso|come|è|e'|punta|puntare|points?|pointing|pointe|pointer|zeigt|zeigen|verweist|apunta|apuntar|apunte|has|hat|heeft|tiene|ha|with|mit|avec|con|met|value|wert|valeur|valor|waarde|valore|address|adresse|ip|ipv4|ipv6|should|moet|doit|debe|deve|soll|muss)$/;
const FOR = /^(?:for|für|fur|pour|para|per|voor|of|von|vom|de|du|del|di|van|on|under|unter|sous|bajo|sotto|onder)$/;
const ITSELF = /^(?:hauptdomain|root-?domain|apex|stammdomain|domain|domäne|domaine|dominio|domein|hoofddomein|rootdomein|basisdomain|root)$/;
/** One value in the place of another: "replace … by …". */
export const REPLACE = /\b(?:replac\w*|chang\w*|ersetz\w*|remplac\w*|reemplac\w*|sustitu\w*|cambi\w*|sostitu\w*|vervang\w*|wijzig\w*|ander\w*)\b/i;
const BY = /^(?:by|with|to|durch|par|por|con|door|naar|in|auf)$/;
/** Marks and words that part one statement from the next. */
const BREAK = /^(?:;|\.|and|und|et|y|ed?|en|while|sowie|puis|también|außerdem)$/;

const LABELS: ReadonlySet<string> = new Set(CATALOGUE_NAMES.filter((name) => /^[a-z][a-z0-9-]{1,}$/.test(name)));
/** Characters of a sentence that are looked at. */
const LONGEST = 1200;

/** The mnemonic in a match of `TYPE`. */
const typeOf = (match: RegExpExecArray): string => typeWord((match[1] ?? match[2] ?? match[3])!.toUpperCase())!;

/**
 * The one type that a line names: "Create an A record", "CNAME-record toevoegen"; undefined where it names none, or several.
 */
export function typeNamed(text: string): string | undefined {
  const types = new Set([...text.slice(0, LONGEST).matchAll(TYPE)].map(typeOf));
  return types.size === 1 ? [...types][0] : undefined;
}

/** The words of a sentence as what they are to its records, in their order. */
export function tokensOf(sentence: string, { zone }: Subject): Token[] {
  const text = sentence.slice(0, LONGEST);
  const types = new Map(
    [...text.matchAll(BARE_TYPE), ...text.matchAll(TYPE)].map((match) => [
      match.index + match[0].search(/(?:AAAA|CNAME|ALIAS|ANAME|TXT|MX|CAA|SRV|\bA\b|NS)/i),
      match,
    ]),
  );
  const isReplaced = REPLACE.test(plainWord(text));
  const apex = zone?.replace(/\.$/, '').toLowerCase();
  const tokens: Token[] = [];
  const words = [...text.matchAll(/["“„«]([^"“”„«»]{1,400})["”“»]|(v=(?:spf1|dmarc1|dkim1)\b[^"”»]*)|[^\s,;()]+|[;,]/giu)];
  for (const [index, match] of words.entries()) {
    const at = match.index;
    const type = [...types].find(([from]) => from >= at && from < at + match[0].length)?.[1];
    const quoted = (match[1] ?? match[2])?.trim();
    const raw = quoted ?? match[0];
    const word = raw.replace(/^[<[{'`*]+/, '').replace(/[>\]}'`*:!?.]+$/, '');
    const lower = word.toLowerCase();
    if (match[2] !== undefined || (quoted !== undefined && /\s|=/.test(quoted) && !isAddressWord(quoted))) {
      if (/[=\d]/.test(raw)) tokens.push({ is: 'text', text: match[2] === undefined ? raw : raw.replace(/\s*[.,]$/, '') });
      continue;
    }
    if (type) {
      tokens.push({ is: 'type', type: typeOf(type) });
      continue;
    }
    if (raw === ';' || raw === ',') {
      if (raw === ';') tokens.push({ is: 'break' });
      continue;
    }
    const bare = lower.replace(/\.$/, '');
    if (word === '@' || bare === 'www') tokens.push({ is: 'name', owner: bare });
    else if (apex !== undefined && bare === apex) tokens.push({ is: 'name', owner: '@' });
    else if (apex !== undefined && bare.endsWith(`.${apex}`)) tokens.push({ is: 'name', owner: bare.slice(0, -apex.length - 1) });
    else if (isAddressWord(word)) tokens.push({ is: 'address', text: word });
    else if (/^_[a-z0-9-]+(?:\._?[a-z0-9-]+)*$/.test(bare) && !isHostWord(word)) tokens.push({ is: 'name', owner: bare });
    else if (/^(?:→|->|=>|-->|⇒|➜|:)$/.test(match[0])) tokens.push({ is: 'to' });
    else if (isHostWord(word)) tokens.push({ is: 'host', text: word });
    else if (/^(?:prio\w*|preference|preferenza|préférence|preferencia|voorkeur)$/iu.test(word)) {
      const number = /^\D{0,12}?(\d{1,5})\b/.exec(text.slice(at + match[0].length))?.[1];
      if (number !== undefined) tokens.push({ is: 'priority', number });
    } else if (quoted === undefined && /=/.test(word) && /^[\w=:.+/-]{6,}$/.test(word) && !/^https?:/i.test(word)) tokens.push({ is: 'text', text: word });
    else if (quoted !== undefined && /^[\w=:.+/-]{6,}$/.test(quoted) && /\d|=/.test(quoted)) tokens.push({ is: 'text', text: quoted });
    else if (LABELS.has(bare) && isLabelHere(words, index, quoted !== undefined)) tokens.push({ is: 'name', owner: bare });
    else if (ITSELF.test(bare)) tokens.push({ is: 'name', owner: '@', isVague: true });
    else if (isReplaced && BY.test(bare)) tokens.push({ is: 'to' });
    else if (FOR.test(bare)) tokens.push({ is: 'for' });
    else if (BREAK.test(bare) && !TO.test(bare)) tokens.push({ is: 'break' });
    else if (TO.test(bare)) tokens.push({ is: 'to' });
    else {
      const about = aboutOf(bare);
      if (about === 'old' || about === 'new') tokens.push({ is: about });
    }
  }
  return tokens;
}

/** A word such as "mail" is a name where a sentence treats it as one: in quotes, before "as" or an arrow, or behind "subdomain". */
function isLabelHere(words: readonly RegExpExecArray[], index: number, isQuoted: boolean): boolean {
  const near = (by: number): string => plainWord(words[index + by]?.[0] ?? '');
  return (
    isQuoted ||
    /^(?:als|as|comme|como|come|cname|alias|zeigt|points?|pointe|apunta|punta|wijst)$/.test(near(1)) ||
    /^(?:→|->|=>)$/.test(words[index + 1]?.[0] ?? '') ||
    /^(?:subdomain|subdomein|sous-domaine|subdominio|sottodominio|host|hostname)$/.test(near(-1))
  );
}

/** What one sentence says: records, and addresses that it says of nothing in particular. */
export interface Clauses {
  readonly records: readonly Omit<RawRecord, 'line' | 'lastLine' | 'form' | 'doubts'>[];
  readonly addresses: readonly string[];
  /** Names that are named and given nothing. */
  readonly names: readonly string[];
}

/** For what a value is meant of which the sentence does not say it. */
function usualOwners(type: string, value: string, named: readonly string[]): string[] {
  if (type === 'CNAME' || type === 'ALIAS') return named.includes('www') ? ['www'] : [];
  return type === 'TXT' && /^v=dmarc1/i.test(value) ? ['_dmarc'] : ['@'];
}

/** Reads what stands around each value of a sentence: the type and the names before it, or the names for which it is given behind it. */
export function readClauses(tokens: readonly Token[], as: Subject['as']): Clauses {
  const records: { owner: string; type: string; value: string; priority?: string; out?: string }[] = [];
  const addresses: string[] = [];
  let owners: string[] = [];
  const used = new Set<string>();
  let type: string | undefined;
  let about: 'old' | 'new' | undefined;
  let priority: string | undefined;
  /** The last value that was given, until another statement begins. */
  let last: { owners: string[]; from: number } | undefined;
  /** Values in the place of which the next one stands. */
  let replaced: { out?: string }[] = [];
  /** An alias that was given before the name for which it is. */
  let waiting: string | undefined;
  /** A value was given of which the sentence says that it is old. */
  let isOldSaid = false;
  let isTo = false;
  let isFor = false;
  const all: string[] = [];
  const outWords = (): string | undefined => (isContrary(about, as) ? contraryWords('The sentence names it', as) : undefined);
  const give = (value: string, of: string): void => {
    // "From 192.0.2.1 to 203.0.113.1": the first is what was there.
    const isNext = last !== undefined && isTo && owners.length === 0;
    if (isNext && of !== 'MX' && records.length > last!.from) {
      for (const one of records.slice(last!.from)) if (one.type === of && as === 'new') one.out = contraryWords('The sentence names it', as);
    }
    const to = owners.length > 0 ? owners : isNext ? last!.owners : usualOwners(of, value, all);
    const from = records.length;
    const out = outWords();
    if (as === 'new') for (const one of replaced) one.out = contraryWords('The sentence names it', as);
    replaced = [];
    for (const owner of to)
      records.push({ owner, type: of, value, ...(of === 'MX' && priority !== undefined && { priority }), ...(out !== undefined && { out }) });
    waiting = to.length === 0 ? value : undefined;
    for (const owner of to) used.add(owner);
    last = { owners: to, from };
    owners = [];
    isTo = false;
  };
  for (const [index, token] of tokens.entries()) {
    switch (token.is) {
      case 'type':
        if (last !== undefined) {
          // "A 192.0.2.1 → CNAME sites.host.example": the name is the same, and the first is what was there.
          owners = isTo ? last.owners : [];
          replaced = isTo ? records.slice(last.from) : [];
        }
        type = token.type;
        last = undefined;
        isTo = false;
        break;
      case 'name':
        if (token.isVague && type === undefined) break;
        all.push(token.owner);
        if ((type === 'CNAME' || type === 'ALIAS') && isTo && !isFor && (owners.length > 0 || token.owner === '@') && !owners.includes(token.owner)) {
          if (owners.length === 0) owners = ['www'];
          give(token.owner, type);
          used.add(token.owner);
        } else if (type === 'MX' && isTo && token.owner !== '@' && token.owner !== 'www') {
          if (owners.length === 0) owners = ['@'];
          give(token.owner, 'MX');
          used.add(token.owner);
        } else if (last !== undefined && isFor) {
          // "203.0.113.1 for @ and www": it is theirs, and not the domain's by itself.
          const given = records.slice(last.from);
          if (waiting !== undefined && type !== undefined) records.push({ owner: token.owner, type, value: waiting });
          else if (!last.owners.includes(token.owner)) {
            const first = given[0];
            const isUsual = last.owners.length === 1 && last.owners[0] === '@' && !all.slice(0, -1).includes('@');
            if (first && isUsual) for (const one of given) one.owner = token.owner;
            else if (first) records.push(...given.filter((one) => one.owner === first.owner).map((one) => ({ ...one, owner: token.owner })));
            last = { owners: isUsual ? [token.owner] : [...last.owners, token.owner], from: last.from };
          }
          used.add(token.owner);
        } else {
          if (last !== undefined) {
            last = undefined;
            if (type === 'MX' || type === 'TXT') type = undefined;
          }
          if (replaced.length > 0) [owners, replaced] = [[], []];
          owners.push(token.owner);
          isTo = false;
        }
        break;
      case 'address': {
        const own = token.text.includes(':') ? 'AAAA' : 'A';
        const isNamed = type === 'A' || type === 'AAAA' || ((owners.length > 0 || last !== undefined) && isTo);
        if (type === 'AAAA' && own === 'A') break;
        if (isNamed) give(token.text, own);
        else if (outWords() === undefined) {
          // "192.0.2.1 → 203.0.113.1": the first is what was there.
          if (as === 'new' && tokens[index - 1]?.is === 'to' && tokens[index - 2]?.is === 'address') addresses.pop();
          addresses.push(token.text);
        }
        isOldSaid = about === 'old';
        isFor = false;
        break;
      }
      case 'host':
        if (type === 'CNAME' || type === 'ALIAS' || type === 'ANAME' || type === 'MX' || type === 'NS') give(token.text, type);
        else if (owners.length > 0 && isTo && type === undefined && owners.every((owner) => owner !== '@')) give(token.text, 'CNAME');
        isFor = false;
        break;
      case 'text':
        if (type === 'TXT' || /^v=/i.test(token.text)) give(token.text, 'TXT');
        isFor = false;
        break;
      case 'priority':
        priority = token.number;
        if (last !== undefined) for (const one of records.slice(last.from)) if (one.type === 'MX') one.priority = token.number;
        break;
      case 'to':
        // "The old 192.0.2.1 by 203.0.113.1": what is old ends where the new begins.
        if (isOldSaid) [about, isOldSaid] = [undefined, false];
        isTo = true;
        isFor = false;
        break;
      case 'for':
        isFor = true;
        break;
      case 'break':
        isTo = false;
        // Names that are listed stay together; a value ends its statement.
        if (last !== undefined && !isFor) {
          owners = [];
          about = undefined;
        }
        break;
      default:
        about = token.is;
    }
  }
  return { records, addresses, names: [...new Set(all)].filter((name) => !used.has(name)) };
}
