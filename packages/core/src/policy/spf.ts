/** One mechanism of an SPF record (RFC 7208 §4.6.1), or a modifier. */
export interface SpfTerm {
  readonly kind: 'mechanism' | 'modifier';
  readonly qualifier: '+' | '-' | '~' | '?';
  /** In lower case. */
  readonly name: string;
  /** After the colon, equals sign or slash; empty where there is none. */
  readonly value: string;
}

export interface SpfRecord {
  readonly terms: readonly SpfTerm[];
  /** Terms that cannot be read: receivers answer permerror. */
  readonly unread: readonly string[];
  /** Terms of this record that ask the DNS; those that it includes come on top (RFC 7208 §4.6.4). */
  readonly lookups: number;
  /** It says what becomes of everybody else: an `all`, or a `redirect`. */
  readonly ends: boolean;
}

/** Lookups after which receivers answer permerror (RFC 7208 §4.6.4). */
export const SPF_LOOKUPS = 10;

const ASKS: ReadonlySet<string> = new Set(['include', 'a', 'mx', 'ptr', 'exists', 'redirect']);
const MECHANISMS: ReadonlySet<string> = new Set(['all', 'include', 'a', 'mx', 'ptr', 'ip4', 'ip6', 'exists']);
/** Mechanisms that need a value. */
const NEEDS: ReadonlySet<string> = new Set(['include', 'ip4', 'ip6', 'exists']);

/** True for a text that receivers take for SPF (RFC 7208 §4.5). */
export function isSpf(text: string): boolean {
  return /^v=spf1(?: |$)/i.test(text);
}

/** Reads an SPF record; undefined where the text is none. Never throws. RFC 7208 §4.6, §12. */
export function readSpf(text: string): SpfRecord | undefined {
  if (!isSpf(text)) return undefined;
  const terms: SpfTerm[] = [];
  const unread: string[] = [];
  for (const word of text.slice(6).split(' ').filter(Boolean)) {
    const term = modifierOf(word) ?? mechanismOf(word);
    if (term) terms.push(term);
    else unread.push(word);
  }
  const ends = terms.some(({ name }) => name === 'all' || name === 'redirect');
  return { terms, unread, lookups: terms.filter(({ name }) => ASKS.has(name)).length, ends };
}

function modifierOf(word: string): SpfTerm | undefined {
  const found = /^([a-z][a-z0-9_.-]*)=(\S*)$/i.exec(word);
  return found ? { kind: 'modifier', qualifier: '+', name: found[1]!.toLowerCase(), value: found[2]! } : undefined;
}

function mechanismOf(word: string): SpfTerm | undefined {
  const found = /^([+?~-]?)([a-z0-9]+)(?:([:/])(\S*))?$/i.exec(word);
  if (!found) return undefined;
  const name = found[2]!.toLowerCase();
  const value = found[3] === '/' ? `/${found[4]!}` : (found[4] ?? '');
  if (!MECHANISMS.has(name) || (NEEDS.has(name) && (value === '' || value.startsWith('/'))) || (name === 'all' && found[3] !== undefined)) return undefined;
  return { kind: 'mechanism', qualifier: (found[1] || '+') as SpfTerm['qualifier'], name, value };
}
