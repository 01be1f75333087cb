import { isIpv4, isIpv6 } from '../dns/address';
import { Name } from '../dns/name';
import { quotedText } from '../dns/quotedText';
import { INVISIBLE, WIDE_BLANKS } from '../reading/unseen';

export interface Cleaned {
  readonly text: string;
  /** What was done to it, in words; nothing where it was clean. */
  readonly said: readonly string[];
}

/** Types whose value, or what it ends in, is a name. */
const NAMED: ReadonlySet<string> = new Set(['CNAME', 'NS', 'MX', 'SRV', 'PTR', 'DNAME']);
const LONGEST = 70_000;
const ROUNDS = 10;

/**
 * What was copied from a page, a mail, a browser or a zone file, as the value of a record: one a line. What it does is said, and nothing is
 * guessed that the text does not have. Text of more than 70,000 characters is left alone.
 *
 *     cleanPasted(zone, 'CNAME', 'https://sites.host.example/')   // `sites.host.example.`, without the scheme, the slash, with a final dot
 *     cleanPasted(zone, 'TXT', 'v=spf1 mx -all')                  // `"v=spf1 mx -all"`, as one text
 */
export function cleanPasted(zone: Name, type: string, pasted: string): Cleaned {
  if (pasted.length > LONGEST) return { text: pasted, said: [] };
  let text = pasted;
  const said = new Set<string>();
  // What is cleaned away can uncover more of it.
  for (let round = 0; round < ROUNDS; round++) {
    const once = cleanedOnce(zone, type, text);
    for (const words of once.said) said.add(words);
    if (once.text === text) break;
    text = once.text;
  }
  return { text, said: [...said] };
}

function cleanedOnce(zone: Name, type: string, pasted: string): Cleaned {
  const said = new Set<string>();
  const say = <T>(changed: boolean, words: string, value: T): T => {
    if (changed) said.add(words);
    return value;
  };
  const seen = pasted.replace(INVISIBLE, '');
  say(seen !== pasted, 'characters that cannot be seen are gone', seen);
  const apart = type === 'A' || type === 'AAAA' ? seen.split(/[\s,;]+/) : seen.split(/\r?\n/);
  const lines = apart.map((line) => line.replace(WIDE_BLANKS, ' ').replaceAll('\t', ' ').trim()).filter((line) => line !== '');
  const cleaned = lines.map((line) => {
    const bare = withoutFront(line, type);
    say(bare !== line, 'name, TTL and type before the value are gone', bare);
    if (type === 'TXT' || type === 'SPF') return asText(bare, say);
    if (type === 'A' || type === 'AAAA') return asAddress(bare, say);
    return NAMED.has(type) ? asName(zone, type, bare, say) : bare;
  });
  return { text: cleaned.join('\n'), said: [...said] };
}

type Say = <T>(changed: boolean, words: string, value: T) => T;

/** `www 3600 IN CNAME sites.host.example.` → `sites.host.example.` */
function withoutFront(line: string, type: string): string {
  // What is quoted is a value, whatever stands in it.
  if (/^["“”„]/.test(line)) return line;
  const front = new RegExp(`^(?:\\S+\\s+)?(?:\\d+\\s+)?(?:IN\\s+)?${type}\\s+(?=\\S)`, 'i').exec(line);
  return front && front[0].trim() !== '' ? line.slice(front[0].length) : line;
}

/** Text is quoted whole: parted at its blanks it would be read without them (RFC 1035 §5.1). */
function asText(line: string, say: Say): string {
  const straight = line.replace(/[“”„]/g, '"');
  say(straight !== line, 'curly quotes are straight', straight);
  if (straight.startsWith('"')) return straight;
  return say(true, 'quotes are around it, so that its blanks stay', quotedText(straight));
}

function asAddress(word: string, say: Say): string {
  if (isIpv4(word) || isIpv6(word)) return word;
  const found = /^(?:[a-z][a-z0-9+.-]*:\/\/)?(?:\[([0-9a-f:.]+)\]|(\d+\.\d+\.\d+\.\d+))(?::\d+)?(?:\/.*)?$/i.exec(word);
  const address = found?.[1] ?? found?.[2];
  return address !== undefined && (isIpv4(address) || isIpv6(address)) ? say(true, 'what stands around the address is gone', address) : word;
}

function asName(zone: Name, type: string, line: string, say: Say): string {
  const unmarked = line.replace(/[\s,;]+$/, '');
  if (unmarked === '') return line;
  const words = say(unmarked !== line, 'the mark at the end is gone', unmarked.split(/\s+/));
  // Some panels show the priority of mail after its target.
  const turned = type === 'MX' && words.length === 2 && /^\d+$/.test(words[1]!) && !/^\d+$/.test(words[0]!) ? [words[1]!, words[0]!] : words;
  say(turned !== words, 'the priority stands before the target', turned);
  const last = turned.at(-1)!;
  const name = hostIn(last);
  say(name !== last, 'scheme, port, path or quotes around the name are gone', name);
  const whole = name.includes('.') && !name.endsWith('.') && isName(name) ? `${name}.` : name;
  say(whole !== name, `a dot ends it: without one it would be read as below ${zone.toString().replace(/\.$/, '')}`, whole);
  return [...turned.slice(0, -1), whole].join(' ');
}

/** `https://sites.host.example:443/x` → `sites.host.example`; a slash is part of the names of RFC 2317, such as `0/25.2.0.192.in-addr.arpa.` */
function hostIn(word: string): string {
  const bare = word.replace(/^["'“”]+|["'“”]+$/g, '');
  const [, scheme, host = ''] = /^([a-z][a-z0-9+.-]*:\/\/)?([^/?#]*)/i.exec(bare)!;
  const name = (scheme !== undefined || host.includes('.') ? host : bare).replace(/:\d+$/, '');
  return name === '' || name === '.' ? word : name;
}

function isName(text: string): boolean {
  return Name.tryParse(`${text}.`) !== undefined;
}
