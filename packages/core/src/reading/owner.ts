import { toASCII } from 'tr46';
import { parse } from 'tldts';
import { isIpv4 } from '../dns/address';
import { Name } from '../dns/name';
import { Subject } from './find';
import { plainWord } from './labels';

/** How the name of a record is read. */
export type OwnerRead =
  /** Below the domain, `@` for itself; `isWhole`: it stood there in full. */
  | { readonly is: 'ours'; readonly owner: string; readonly other?: string | undefined; readonly doubt?: string | undefined; readonly isWhole: boolean }
  | { readonly is: 'elsewhere'; readonly name: string };

/** Words that panels put for the domain itself; without brackets each could be a label as well. */
const ITSELF: ReadonlySet<string> = new Set('root apex empty blank none null leer leere vide vacio vuoto leeg naked hauptdomain'.split(' '));
/** A domain that stands for the reader's own on the pages of hosts. */
const PLACEHOLDER =
  /^(?:(.+)\.)?(?:[{[<]*(?:your-?domain|my-?domain|ihre-?domain|votre-?domaine|su-?dominio|tuo-?dominio|uw-?domein|domain|domein|dominio)[>\]}]*(?:\.[a-z]{2,10})?|(?:example|domain)\.[a-z]{2,10})$/i;
const LABEL = /^(?:\*|[a-z0-9_](?:[a-z0-9_-]{0,61}[a-z0-9_])?)$/i;
const LONGEST = 1100;

/**
 * Reads the name of a record as people write it: relative, whole with its dot or without, `@`, nothing, a word for the domain itself, with
 * accents or their encoding. Undefined where it is no name. Nothing is guessed: what could be two names has both.
 *
 *     readOwner('www', kelp)                 // www
 *     readOwner('www.kelp.example', kelp)    // www
 *     readOwner('root', kelp)                // `@`, or the name root
 */
export function readOwner(text: string, { zone, own, as }: Subject): OwnerRead | undefined {
  // A panel draws the ending behind the field: `www .kelp.example`.
  const typed = text
    .trim()
    .replace(/^["'“”«»]+|["'“”«»]+$/g, '')
    .replace(/^(\S+)\s+\.(?=\S+$)/, '$1.')
    .replace(/^@\.(?=\S)/, '');
  if (typed.length > LONGEST) return undefined;
  if (typed === '' || typed === '@' || typed === '-' || /^\((?:[^)]*)\)$/.test(typed) || /^@\s*\([^)]*\)$/.test(typed)) return ours('@');
  const bare = typed.endsWith(')') ? typed.replace(/\s\([^)]*\)$/, '').trimEnd() : typed;
  if (ITSELF.has(plainWord(bare)) && !bare.includes('.'))
    return { ...ours('@'), other: bare.toLowerCase(), doubt: `Does “${bare}” mean the domain itself, or a name “${bare.toLowerCase()}”?` };
  const name = asciiName(bare);
  if (name === undefined) return undefined;
  const isAbsolute = name.endsWith('.') && !name.endsWith('\\.');
  const whole = isAbsolute ? name : `${name}.`;
  const below = zone === undefined ? belowOne(whole, own) : relativeTo(whole, zone);
  if (below !== undefined) {
    if (zone !== undefined && below !== '@' && relativeTo(`${below}.`, zone) !== undefined) {
      const once = relativeTo(`${below}.`, zone)!;
      return { ...ours(once, true), other: below, doubt: `The domain stands twice in ${bare}: is it ${once}, or is the name truly so?` };
    }
    return ours(below, true);
  }
  if (isAbsolute) return placeholder(whole, as) ?? { is: 'elsewhere', name: whole };
  const stand = as === 'new' || zone === undefined ? placeholder(whole, 'new') : undefined;
  if (stand) return stand;
  if (!name.split(/(?<!\\)\./).every((label) => LABEL.test(label) || label.includes('\\'))) return undefined;
  if (isIpv4(name)) return { ...ours(name), doubt: `Is ${bare} an address, or a name?` };
  const ending = endingOf(name);
  if (ending === 'none') return ours(name);
  if (ending === 'domain' && zone !== undefined) return { is: 'elsewhere', name: whole };
  return { ...ours(name), doubt: `Is ${bare} a name below the domain, or a whole one?` };
}

function ours(owner: string, isWhole = false): OwnerRead & { is: 'ours' } {
  return { is: 'ours', owner, isWhole };
}

/** Names of the documentation and of tests are domains as well (RFC 2606). */
const RESERVED: ReadonlySet<string> = new Set(['example', 'test', 'invalid', 'localhost']);

/**
 * Whether a name without its final dot ends like a domain: in an ending of countries, a reserved one or a common one, or in one that is a
 * word as well. Labels that begin with an underscore stand before a name (RFC 8552), and say nothing of it.
 *
 *     endingOf('_dmarc.kelp.example')  // 'domain'
 *     endingOf('booking.shop')         // 'word'
 *     endingOf('s1._domainkey')        // 'none'
 */
export function endingOf(name: string): 'domain' | 'word' | 'none' {
  if (name.includes('\\')) return 'none';
  const labels = name.toLowerCase().replace(/^\*\./, '').split('.');
  const behind = labels.slice(labels.findLastIndex((label) => label.startsWith('_')) + 1);
  const last = behind.at(-1);
  if (last === undefined || behind.length < 2) return 'none';
  if (RESERVED.has(last) || COMMON.has(last)) return 'domain';
  if (!/^[a-z]{2,}$/.test(last) || parse(`x.${last}`).isIcann !== true) return 'none';
  return last.length === 2 ? 'domain' : 'word';
}

const COMMON: ReadonlySet<string> = new Set(['com', 'net', 'org', 'info', 'biz']);

function placeholder(whole: string, as: Subject['as']): OwnerRead | undefined {
  if (as !== 'new') return undefined;
  const found = PLACEHOLDER.exec(whole.slice(0, -1));
  return found ? ours(found[1] ?? '@', true) : undefined;
}

/** www.zone.example. → www; zone.example. → @; undefined where it is of another domain. Takes any case. */
function relativeTo(whole: string, zone: string): string | undefined {
  const [name, apex] = [whole.toLowerCase(), zone.toLowerCase()];
  if (name === apex) return '@';
  return name.endsWith(`.${apex}`) ? whole.slice(0, -zone.length - 1) : undefined;
}

function belowOne(whole: string, own: readonly string[]): string | undefined {
  for (const one of own) {
    const below = relativeTo(whole, `${one}.`);
    if (below !== undefined) return below;
  }
  return undefined;
}

/** In the encoding of names (RFC 5891); undefined where it is no name. */
function asciiName(text: string): string | undefined {
  if (/\s/.test(text)) return undefined;
  // eslint-disable-next-line no-control-regex
  const ascii = /[^\x00-\x7f]/.test(text) ? toASCII(text, { checkHyphens: false, useSTD3ASCIIRules: false }) : text;
  return ascii !== null && ascii !== '' && Name.tryParse(ascii.endsWith('.') ? ascii : `${ascii}.`) !== undefined ? ascii : undefined;
}
