import { getDomain, getPublicSuffix } from 'tldts';
import { toASCII } from 'tr46';
import { Name, NameError } from '../dns/name';
import { isIpv4, isIpv6 } from '../dns/address';
import { parsePrefix } from '../dns/prefix';
import { isReverse, reverseZone } from '../dns/reverse';
import { showName } from '../dns/showName';

/** What may be moved: a whole domain, or one name of it alone, or several. `zone` is the registrable domain, without final dot. */
export interface DomainChoice {
  readonly scope: 'whole' | 'name';
  readonly zone: string;
  /** The names meant, without final dot: the zone itself for `whole`. */
  readonly names: readonly string[];
  /** As people write it, accents and all. */
  readonly shown: string;
}

/** Names of one domain that are moved by themselves. */
const MOST_NAMES = 50;

export type DomainReading = { readonly ok: true; readonly choices: readonly DomainChoice[] } | { readonly ok: false; readonly problem: string };

/**
 * Understands what a person pastes where a domain is asked for: a URL, a mail address, a `www.` name, an accented name, a range of addresses.
 *
 *     readDomain('https://www.lighthouse.example/visit')  // lighthouse.example, whole
 *     readDomain('shop.lighthouse.example')               // lighthouse.example whole, or shop.lighthouse.example alone; so of its www
 *     readDomain('192.0.2.0/24')                          // 2.0.192.in-addr.arpa, whole
 *     readDomain('shop.lighthouse.example, blog.lighthouse.example')  // the same of both
 */
export function readDomain(input: string): DomainReading {
  const pasted = input.trim();
  if (pasted === '') return problem('Type a domain name, such as lighthouse.example.');
  if (pasted.length > 2000) return problem('This is too long to be a domain name.');
  const range = pasted.includes('/') ? parsePrefix(pasted) : undefined;
  if (range) return rangeZone(pasted, reverseZone(range));
  // What stands in an address of a page is no list.
  const parts = pasted.split(/[/?#@]/.test(pasted) ? /\s+/ : /[\s,;]+/).filter((part) => part !== '');
  return parts.length > 1 && parts.every((part) => part.includes('.')) ? readSeveral(parts) : readOne(pasted);
}

/** Names of one domain; each is read like one alone. */
function readSeveral(parts: readonly string[]): DomainReading {
  if (parts.length > MOST_NAMES) return problem(`More than ${MOST_NAMES} names are not moved by themselves: move the whole domain.`);
  const names = new Set<string>();
  let whole: DomainChoice | undefined;
  let alone = true;
  for (const part of parts) {
    const reading = readOne(part);
    if (!reading.ok) return reading;
    const [first, name] = reading.choices;
    if (whole && first!.zone !== whole.zone)
      return problem(`${shorten(whole.shown)} and ${shorten(first!.shown)} are two domains: each is a move of its own. Many are surveyed at once under Moves.`);
    whole = first!;
    // The domain itself, and its www, go with the whole of it.
    if (name && name.names[0] !== `www.${name.zone}`) names.add(name.names[0]!);
    else alone = false;
  }
  const all = [...names];
  if (!alone || all.length === 0) return { ok: true, choices: [whole!] };
  const shown = all.length > 1 ? `${showName(all[0]!)} and ${all.length - 1} more` : showName(all[0]!);
  return { ok: true, choices: [whole!, { scope: 'name', zone: whole!.zone, names: all, shown }] };
}

/** The names of a range's addresses are a zone of their own. */
function rangeZone(pasted: string, zone: string | undefined): DomainReading {
  return zone === undefined
    ? problem(`The names of ${pasted} are no zone by themselves. Type the name of the zone that they stand in, such as 0-63.2.0.192.in-addr.arpa.`)
    : itself(zone);
}

/** Names of addresses are registered nowhere: whatever is delegated is a whole. */
function itself(zone: string): DomainReading {
  return { ok: true, choices: [{ scope: 'whole', zone, names: [zone], shown: zone }] };
}

function readOne(pasted: string): DomainReading {
  let host = pasted.replace(/^[a-z][a-z0-9+.-]*:(\/\/)?/i, '').replace(/[/?#].*$/s, '');
  host = host
    .slice(host.lastIndexOf('@') + 1)
    .replace(/:\d+$/, '')
    .replace(/\.$/, '');
  if (isIpv4(host) || isIpv6(host.replace(/^\[|\]$/g, ''))) return problem(`${shorten(host)} is an address. Type the domain name instead.`);
  if (host === '' || /[\s,;<>"'()\\]/.test(host)) return problem(`"${shorten(pasted)}" is not a domain name.`);
  const ascii = asciiOf(host);
  if (ascii === null || ascii === '') return problem(`"${shorten(host)}" is not a domain name: it holds characters that no name may hold.`);
  if (!/^[a-z0-9_.-]+$/.test(ascii)) return problem(`"${shorten(host)}" is not a domain name.`);
  try {
    Name.parse(ascii);
  } catch (error) {
    if (error instanceof NameError) return problem(`"${shorten(host)}" is not a domain name: ${error.message}.`);
    throw error;
  }
  if (!ascii.includes('.')) return problem(`"${shorten(host)}" has no dot. Type the whole domain name, such as lighthouse.example.`);
  if (isReverse(Name.parse(ascii))) return itself(ascii);
  const options = { validateHostname: false, allowPrivateDomains: false };
  const zone = getDomain(ascii, options);
  if (zone === null)
    return problem(
      `${shorten(ascii)} is ${getPublicSuffix(ascii, options) === ascii ? 'a public suffix, under which domains are registered' : 'not a registrable domain'}.`,
    );
  const whole: DomainChoice = { scope: 'whole', zone, names: [zone], shown: showName(zone) };
  // An address of a page is of the whole site, whichever spelling it has.
  if (ascii === zone || (ascii === `www.${zone}` && ascii !== pasted.toLowerCase().replace(/\.$/, ''))) return { ok: true, choices: [whole] };
  return { ok: true, choices: [whole, { scope: 'name', zone, names: [ascii], shown: showName(ascii) }] };
}

/** A host name as it is asked for (UTS 46); null where it has no such form. Plain names, nearly all of a list, are only put in small letters. */
function asciiOf(host: string): string | null {
  if (/^[a-z0-9_.-]+$/i.test(host) && !/xn--/i.test(host)) return host.toLowerCase();
  return toASCII(host, { checkBidi: true, checkHyphens: false, checkJoiners: true, useSTD3ASCIIRules: false, verifyDNSLength: false });
}

function problem(text: string): DomainReading {
  return { ok: false, problem: text };
}

function shorten(text: string): string {
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
}
