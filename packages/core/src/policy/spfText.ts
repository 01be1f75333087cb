import { isSpf } from './spf';

/** An SPF record with more mechanisms, before what it says of everybody else. Those that it has already are not added. RFC 7208 §4.6. */
export function withSpfTerms(text: string, terms: readonly string[]): string {
  const words = wordsOf(text);
  const fresh = terms.filter((term) => !words.some((word) => word.toLowerCase() === term.toLowerCase()));
  const end = words.findIndex((word) => isEnd(word));
  words.splice(end < 0 ? words.length : end, 0, ...fresh);
  return ['v=spf1', ...words].join(' ');
}

/**
 * Several SPF records as one: every mechanism once, in their order, and the first of their ends. RFC 7208 §3.2 allows one only.
 * `v=spf1 mx -all` and `v=spf1 a ~all` give `v=spf1 mx a -all`.
 */
export function mergedSpf(texts: readonly string[]): string {
  const [first, ...rest] = texts.filter(isSpf);
  return withSpfTerms(
    first ?? 'v=spf1',
    rest.flatMap(wordsOf).filter((word, _index, all) => !isEnd(word) || (first !== undefined && !wordsOf(first).some(isEnd) && word === all.find(isEnd))),
  );
}

function wordsOf(text: string): string[] {
  return text.slice(6).split(' ').filter(Boolean);
}

function isEnd(word: string): boolean {
  return /^[+?~-]?all$|^redirect=/i.test(word);
}
