import { Line } from './lines';
import { typeWord } from './typeWord';
import { labelOf } from './labels';
import { isIpv4, isIpv6 } from '../dns/address';

/** One name a line, or several with marks between them, and nothing else. A name out of an address bar or a mail address counts. */
export function namesOfLine({ text }: Line): string[] | undefined {
  const words = text
    .split(/[\s,;]+/)
    .map((word) => word.trim())
    .filter((word) => word !== '');
  if (words.length === 0) return undefined;
  if (words.length > 1 && !words.every((word) => word.includes('.'))) return undefined;
  const names = words.map(nameOfWord);
  return names.every((name) => name !== undefined) ? (names as string[]) : undefined;
}

function nameOfWord(word: string): string | undefined {
  if (word === '@') return word;
  if (typeWord(word) === word || labelOf(word) !== undefined || isIpv4(word) || isIpv6(word)) return undefined;
  const bare = word
    .replace(/^[a-z]+:\/\//i, '')
    .replace(/[/?#].*$/, '')
    .replace(/^.*@(?=.)/, '')
    .replace(/:\d+$/, '');
  return /^[\p{L}\p{N}_*](?:[\p{L}\p{N}_.-]*[\p{L}\p{N}_.])?$/u.test(bare) ? bare : undefined;
}

/** Names of a domain that stand anywhere in a text, as in links and scripts: for the survey to ask for. */
export function namesBelow(text: string, zone: string): string[] {
  const apex = zone.replace(/\.$/, '').toLowerCase();
  const found = new Set<string>();
  const lower = text.toLowerCase();
  for (let at = lower.indexOf(apex); at >= 0; at = lower.indexOf(apex, at + apex.length)) {
    const behind = lower[at + apex.length];
    if (behind !== undefined && /[a-z0-9_-]/.test(behind)) continue;
    // `zone.example.net` is of another domain.
    if (behind === '.' && /[a-z0-9]/.test(lower[at + apex.length + 1] ?? '')) continue;
    let from = at;
    while (from > 0 && at - from < 200 && /[a-z0-9._*-]/.test(lower[from - 1]!)) from -= 1;
    const name = lower.slice(from, at + apex.length).replace(/^[.-]+/, '');
    if (name === apex || name.endsWith(`.${apex}`)) found.add(`${name}.`);
  }
  return [...found];
}
